// How long ago something was, in the largest unit that fits.

const UNITS: readonly (readonly [Intl.RelativeTimeFormatUnit, number])[] = [
  ["year", 365 * 24 * 3600],
  ["month", 30 * 24 * 3600],
  ["week", 7 * 24 * 3600],
  ["day", 24 * 3600],
  ["hour", 3600],
  ["minute", 60],
];
const WORDS = new Intl.RelativeTimeFormat("en", { numeric: "auto" });

export function ago(ms: number, now = Date.now()): string {
  const seconds = Math.max(0, (now - ms) / 1000);
  const [unit, size] = UNITS.find(([, long]) => seconds >= long) ?? [null, 1];
  return unit === null ? "just now" : WORDS.format(-Math.floor(seconds / size), unit);
}
