// What is shown in the picture, kept in the browser from one visit to the next.
import { useState } from "react";

import type { Overlay } from "../api/viewer";

export const GUIDES = [
  ["thirds", "Thirds"],
  ["centre", "Centre"],
  ["safe", "Safe area"],
  ["vertical", "9:16"],
  ["headroom", "Headroom"],
] as const;

export const OVERLAYS = [
  ["none", "Nothing"],
  ["clipping", "What burns out"],
  ["stops", "Stops, from the face"],
] as const satisfies readonly (readonly [Overlay, string])[];

export interface Options {
  guides: string[];
  overlay: Overlay;
  /** The line drawing in place of the photograph. */
  lines: boolean;
}

const KEPT = "fogon.picture";

/** As they were last; the first time thirds over the photograph. */
export function kept(): Options {
  const usual: Options = { guides: ["thirds"], overlay: "none", lines: false };
  try {
    const told = JSON.parse(localStorage.getItem(KEPT) ?? "null") as Partial<Options> | null;
    const guides: unknown[] = Array.isArray(told?.guides) ? told.guides : usual.guides;
    return {
      guides: GUIDES.map(([id]) => id).filter((id) => guides.includes(id)),
      overlay: OVERLAYS.find(([id]) => id === told?.overlay)?.[0] ?? usual.overlay,
      lines: told?.lines === true,
    };
  } catch {
    // Nothing kept, or nothing that can be read.
    return usual;
  }
}

export function useOptions(): [Options, (change: Partial<Options>) => void] {
  const [options, setOptions] = useState(kept);
  const change = (part: Partial<Options>) => {
    const next = { ...options, ...part };
    setOptions(next);
    localStorage.setItem(KEPT, JSON.stringify(next));
  };
  return [options, change];
}
