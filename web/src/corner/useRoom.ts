// What the window leaves for drawings and picture.
import { useMemo } from "react";

import type { Step } from "../api/client";
import type { Room } from "../table/judging";
import { useWindowSize } from "../ui/useWindowSize";

/** Width of the thread, and of the page at most, px. */
export const THREAD_PX = 176;
const WIDEST_PX = 1760;
/** From here down it is a phone's page. */
const NARROW_PX = 768;
/** The bar above, and titles, scale and notes beside the drawings, px. */
const ABOVE_PX = 56;
const TITLES_PX = 134;

export interface Layout {
  narrow: boolean;
  /** Width of the column of the drawings, px. */
  middle: number;
  room: Room;
}

export function useRoom(step: Step | null): Layout {
  const wide = step === "card";
  // On the Light step the picture has the column to itself.
  const part = step === "light" ? 0.83 : 0.6;
  const { width, height } = useWindowSize();
  return useMemo(() => {
    const narrow = width < NARROW_PX;
    const whole = Math.min(width, WIDEST_PX) - (narrow ? 0 : THREAD_PX);
    const middle = narrow ? whole : Math.round(whole * (wide ? 0.46 : 0.455));
    const sheet = {
      width: middle - (narrow ? 24 : 28),
      height: narrow ? 800 : Math.max(height - ABOVE_PX - TITLES_PX, 420),
    };
    const frameWidth = narrow ? whole - 24 : Math.round((whole - middle - 36) * part);
    return { narrow, middle, room: { sheet, frameWidth } };
  }, [width, height, wide, part]);
}
