// Where the sun lies at the hour that is looked at: told by the day, drawn over plan and side view.
import { createContext, useContext } from "react";

import type { Vector } from "../table/handles";

export interface Sunlight {
  /** Corners of each place where it lies, m; none where no hour is looked at. */
  lies: Vector[][];
  show: (lies: Vector[][]) => void;
}

export const SunlightContext = createContext<Sunlight>({ lies: [], show: () => undefined });

export const useSunlight = (): Sunlight => useContext(SunlightContext);
