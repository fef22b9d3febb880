// Ticks of one corner, by the name of their step.
import type { Schemas } from "../api/client";

export type Tick = Omit<Schemas["Tick"], "by"> & { by?: string };
export type Step = Schemas["LayingStep"];

/** Where ticks that are not sent yet are kept. */
export const ticksOf = (corner: number) => `fogon.ticks.${String(corner)}`;

/** The first step that is not done, from one on and round again; the one itself where all are. */
export function nextOpen(steps: readonly Step[], ticks: Map<string, Tick>, from: number): number {
  const order = steps.map((_, index) => (from + index) % steps.length);
  return order.find((index) => !ticks.get(steps[index]?.id ?? "")?.done) ?? from;
}
