// Saves by the day on which they were made.
import type { Schemas } from "../api/client";

type Saved = Schemas["Saved"];

export const CLOCK = new Intl.DateTimeFormat(undefined, { timeStyle: "short" });
const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: "full" });

/** Each day in words with its saves; both stay in their order. */
export function byDay(saves: readonly Saved[]): [string, Saved[]][] {
  const days = new Map<string, Saved[]>();
  for (const save of saves) {
    const day = DAY.format(save.at_ms);
    days.set(day, [...(days.get(day) ?? []), save]);
  }
  return [...days];
}
