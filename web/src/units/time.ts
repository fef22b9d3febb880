// Times as they are told.

/** `3:05`, and `1:02:07` where it takes hours. */
export function clock(seconds: number): string {
  const whole = Math.max(0, Math.floor(seconds));
  const two = (part: number) => String(part).padStart(2, "0");
  const [hours, minutes, rest] = [Math.floor(whole / 3600), Math.floor(whole / 60) % 60, whole % 60];
  return hours > 0 ? `${String(hours)}:${two(minutes)}:${two(rest)}` : `${String(minutes)}:${two(rest)}`;
}

/** `45 s`, `3 min 5 s`. */
export function spent(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  const [minutes, rest] = [Math.floor(whole / 60), whole % 60];
  if (minutes === 0) return `${String(rest)} s`;
  return rest === 0 ? `${String(minutes)} min` : `${String(minutes)} min ${String(rest)} s`;
}

/** `8 min`, `45 s`: as it is said. */
export function lasting(seconds: number): string {
  if (seconds < 90) return `${String(Math.round(seconds))} s`;
  if (seconds < 5400) return `${String(Math.round(seconds / 60))} min`;
  return `${(seconds / 3600).toFixed(1)} h`;
}

const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: "full" });
const TIME = new Intl.DateTimeFormat(undefined, { timeStyle: "short" });

/** A day in words. */
export const day = (ms: number): string => DAY.format(ms);
/** A time of day. */
export const time = (ms: number): string => TIME.format(ms);

/** A local date as it is written, `2026-11-29`. */
export function dateOf(ms: number): string {
  const at = new Date(ms);
  const two = (part: number) => String(part).padStart(2, "0");
  return `${String(at.getFullYear())}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}
