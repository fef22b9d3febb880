// The hour that is looked at: told by the day; plan and side view show where the sun lies then, the picture how it looks.
import { createContext, useContext } from "react";

import type { Hour } from "../api/viewer";
import type { Vector } from "../table/handles";

export interface Looked {
  /** Corners of each place where the sun lies, m. */
  lies: Vector[][];
  hour: Hour;
  /** The hour in words. */
  words: string;
}

export interface Sunlight {
  /** None where no hour is looked at. */
  looked: Looked | null;
  look: (at: Looked | null) => void;
}

export const SunlightContext = createContext<Sunlight>({ looked: null, look: () => undefined });

export const useSunlight = (): Sunlight => useContext(SunlightContext);
