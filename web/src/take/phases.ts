// A take as it goes: counted down, still at its begin, on, still at its end.

export type Phase = "idle" | "countdown" | "still-before" | "on" | "still-after";

export interface Course {
  /** Before the take, s. */
  countdown_s: number;
  /** Stillness at both ends, s. */
  stillness_s: number;
}

export interface Times {
  /** When start was pressed, ms; none while nothing goes. */
  pressed_ms: number | null;
  /** When stop was pressed. */
  stopped_ms: number | null;
}

/** When the camera has to run: at the end of the countdown, ms. */
export const begunAt = (pressed_ms: number, course: Course): number => pressed_ms + 1000 * course.countdown_s;

/** Where a take is, and how many seconds of that are left or gone. */
export function phaseAt(now_ms: number, times: Times, course: Course): { phase: Phase; seconds: number } {
  const { pressed_ms, stopped_ms } = times;
  if (pressed_ms === null) return { phase: "idle", seconds: 0 };
  const begun_ms = begunAt(pressed_ms, course);
  if (now_ms < begun_ms) return { phase: "countdown", seconds: Math.ceil((begun_ms - now_ms) / 1000) };
  const spoken_ms = begun_ms + 1000 * course.stillness_s;
  if (stopped_ms !== null) {
    const ends_ms = stopped_ms + 1000 * course.stillness_s;
    if (now_ms < ends_ms) return { phase: "still-after", seconds: Math.ceil((ends_ms - now_ms) / 1000) };
    return { phase: "idle", seconds: 0 };
  }
  if (now_ms < spoken_ms) return { phase: "still-before", seconds: Math.ceil((spoken_ms - now_ms) / 1000) };
  return { phase: "on", seconds: Math.floor((now_ms - begun_ms) / 1000) };
}
