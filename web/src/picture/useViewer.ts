// A viewfinder for as long as somebody looks through it: pages that follow each other share one, so that nothing is worked out anew.
import { useEffect, useState, useSyncExternalStore } from "react";

import { Viewer, type Hour, type Overlay, type View } from "../api/viewer";
import type { Plan } from "../api/client";

/** Kept so long after the last one looked, ms. */
const KEPT_MS = 10_000;

/** The first picture is asked for so long after its place is there, ms. */
const FIRST_AFTER_MS = 200;

interface Held {
  viewer: Viewer;
  eyes: number;
  leaving: number | null;
}

const held = new Map<string, Held>();

/** A page that nobody sees lets its pictures go. */
let resting: number | undefined;
document.addEventListener("visibilitychange", () => {
  window.clearTimeout(resting);
  const all = (what: (viewer: Viewer) => void) => held.forEach(({ viewer }) => what(viewer));
  if (document.hidden) resting = window.setTimeout(() => all((viewer) => viewer.rest()), KEPT_MS);
  else all((viewer) => viewer.wake());
});

function take(place: string): Viewer {
  const found = held.get(place) ?? { viewer: new Viewer(), eyes: 0, leaving: null };
  held.set(place, found);
  return found.viewer;
}

function enter(place: string): () => void {
  const own = held.get(place);
  if (!own) return () => undefined;
  own.eyes += 1;
  if (own.leaving !== null) window.clearTimeout(own.leaving);
  own.leaving = null;
  return () => {
    own.eyes -= 1;
    if (own.eyes > 0) return;
    own.leaving = window.setTimeout(() => {
      own.viewer.close();
      held.delete(place);
    }, KEPT_MS);
  };
}

/** The viewfinder of a place on the page, showing a plan; nothing is asked while it is off. */
export function useViewer(
  place: string,
  plan: Plan,
  width: number,
  overlay: Overlay,
  isOn: boolean,
  hour?: Hour,
): [Viewer, View] {
  const [viewer] = useState(() => take(place));
  useEffect(() => enter(place), [place]);
  const view = useSyncExternalStore(viewer.subscribe, viewer.view);
  // The first picture takes all processors for a second: readings and drawings are painted before it.
  const [isPainted, setPainted] = useState(view.frame !== null);
  const follows = isOn && view.slow_ms === null;
  useEffect(() => {
    const later = window.setTimeout(() => setPainted(true), FIRST_AFTER_MS);
    return () => window.clearTimeout(later);
  }, []);
  useEffect(() => {
    if (follows && isPainted) viewer.show({ plan, width, overlay, hour });
  }, [viewer, plan, width, overlay, follows, isPainted, hour]);
  return [viewer, view];
}
