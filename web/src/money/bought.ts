// A thing that has been bought: on the shelf with its day and price, and the corner laid out with it.
import type { Plan, Schemas } from "../api/client";

/** A day as plans write it. */
export const dayOf = (date: Date): string =>
  [date.getFullYear(), date.getMonth() + 1, date.getDate()]
    .map((part, at) => String(part).padStart(at === 0 ? 4 : 2, "0"))
    .join("-");

/** The plan with what a home has: its things on the shelf, the corner laid out with them. */
export function withMeans(plan: Plan, means: Schemas["Substitute"]): Plan {
  const { brief, layout } = means.plan;
  return { ...plan, brief: { ...plan.brief, gear: { ...plan.brief.gear, ...brief.gear } }, layout };
}

/** The plan after the first step of the way to buy. */
export function withPurchase(plan: Plan, step: Schemas["PathStep"], on: Date): Plan {
  const gear = { ...plan.brief.gear };
  for (const item of step.items) {
    const thing = step.plan.brief.gear?.[item.id];
    if (thing) gear[item.id] = { ...thing, bought: { date: dayOf(on), price: item.price / item.count } };
  }
  return { ...plan, brief: { ...plan.brief, gear }, layout: step.plan.layout };
}
