// Things hung or laid to reduce the echo.
import type { Plan } from "../api/client";

/** As wide and high as an area is hung by itself, m: no wider than two metres. */
export function sizeOf(areaM2: number): [number, number] {
  const side = Math.min(Math.sqrt(areaM2), 2);
  return [Math.round((areaM2 / side) * 100) / 100, Math.round(side * 100) / 100];
}

/** A plan without a hung thing; its gear stays on the shelf unless it was put there only to be hung. */
export function withoutTreatment(plan: Plan, id: string): Plan {
  const treatment = { ...plan.layout.treatment };
  const gear = treatment[id]?.gear;
  Reflect.deleteProperty(treatment, id);
  const shelf = { ...plan.brief.gear };
  const used = Object.values(treatment).some((one) => one.gear === gear);
  if (gear !== undefined && !used && shelf[gear]?.state === "wanted") Reflect.deleteProperty(shelf, gear);
  return { ...plan, layout: { ...plan.layout, treatment }, brief: { ...plan.brief, gear: shelf } };
}
