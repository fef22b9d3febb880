// Ticks of one corner: what the server knows, and over it what was ticked here and not sent yet, which outlives the page.
import type { Schemas } from "../api/client";

export type Tick = Omit<Schemas["Tick"], "by"> & { by?: string };
export type Step = Schemas["LayingStep"];

/** Of two that speak of one step the later holds; sent again it is the same. */
export function joined(known: readonly Tick[], own: readonly Tick[]): Map<string, Tick> {
  const all = new Map(known.map((tick) => [tick.step, tick]));
  for (const tick of own) {
    const other = all.get(tick.step);
    if (!other || tick.at_ms >= other.at_ms) all.set(tick.step, tick);
  }
  return all;
}

/** What is left to send once some of it was taken: of each step what was touched since. */
export function unsent(waiting: readonly Tick[], taken: readonly Tick[]): Tick[] {
  return waiting.filter((tick) => !taken.some((one) => one.step === tick.step && one.at_ms >= tick.at_ms));
}

/** The first step that is not done, from one on and round again; the one itself where all are. */
export function nextOpen(steps: readonly Step[], ticks: Map<string, Tick>, from: number): number {
  const order = steps.map((_, index) => (from + index) % steps.length);
  return order.find((index) => !ticks.get(steps[index]?.id ?? "")?.done) ?? from;
}

const nameOf = (corner: number) => `fogon.ticks.${String(corner)}`;

/** What was ticked here and not sent yet. */
export function waitingIn(storage: Storage, corner: number): Tick[] {
  try {
    return JSON.parse(storage.getItem(nameOf(corner)) ?? "[]") as Tick[];
  } catch {
    return [];
  }
}

export function keepWaiting(storage: Storage, corner: number, waiting: readonly Tick[]): void {
  try {
    if (waiting.length === 0) storage.removeItem(nameOf(corner));
    else storage.setItem(nameOf(corner), JSON.stringify(waiting));
  } catch {
    // The page still holds it, and sends it.
  }
}
