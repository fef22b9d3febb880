// A hand that holds something on a drawing: followed until it lets go, or until Escape breaks it off. One finger holds; a second
// one does nothing to what is held.
import { useDrag } from "@use-gesture/react";
import { useEffect, useRef } from "react";

export interface Holding<T> {
  /** It moves: by so many pixels since it took hold; `live` while it is still held. */
  onMove: (what: T, px: [number, number], how: { live: boolean; anyway: boolean }) => void;
  /** It took hold and moves. */
  onHold: (what: T) => void;
  /** It was broken off. */
  onBreak: (what: T) => void;
}

/** Pixels within which a press only points. */
const STILL_PX = 3;

export function useHolding<T>({ onMove, onHold, onBreak }: Holding<T>) {
  const cancel = useRef<(() => void) | null>(null);
  const held = useRef<{ what: T } | null>(null);
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      if (event.key !== "Escape" || !cancel.current) return;
      event.stopPropagation();
      cancel.current();
    };
    window.addEventListener("keydown", keys, true);
    return () => window.removeEventListener("keydown", keys, true);
  }, []);
  useEffect(() => {
    // A finger on a grip takes the thing; it does not scroll the page. Styles alone do not keep a browser from it here.
    const still = (event: TouchEvent) => {
      if (event.target instanceof Element && event.target.closest(".grip, .grip-top")) event.preventDefault();
    };
    document.addEventListener("touchstart", still, { passive: false });
    return () => document.removeEventListener("touchstart", still);
  }, []);
  return useDrag<PointerEvent>(
    (state) => {
      if (state.tap) return;
      // As it was when the hand took it: it is drawn anew with every move.
      if (state.first) {
        held.current = { what: (state.args as [T])[0] };
        cancel.current = state.cancel;
        onHold(held.current.what);
      }
      if (!held.current) return;
      const { what } = held.current;
      const anyway = "altKey" in state.event && state.event.altKey;
      if (state.canceled) onBreak(what);
      else {
        // From where the press was: not from where it was first taken for a drag.
        const [x, y] = [state.xy[0] - state.initial[0], state.xy[1] - state.initial[1]];
        onMove(what, [x, y], { live: !state.last, anyway });
      }
      if (state.last) [cancel.current, held.current] = [null, null];
    },
    { threshold: STILL_PX, filterTaps: true, pointer: { buttons: 1, keys: false }, preventDefault: false },
  );
}
