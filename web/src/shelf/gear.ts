// Changes to what is at hand.
import type { Gear, Plan } from "../api/client";
import { freeId as free } from "../ui/ids";

/** A thing put on the shelf, or some of its figures changed; a figure set to null is no longer told. */
export function withGear(plan: Plan, id: string, change: Record<string, unknown>): Plan {
  const told = Object.entries({ ...plan.brief.gear?.[id], ...change }).filter(([, v]) => v !== null);
  const gear = { ...plan.brief.gear, [id]: Object.fromEntries(told) as unknown as Gear };
  return { ...plan, brief: { ...plan.brief, gear } };
}

export function withoutGear(plan: Plan, id: string): Plan {
  const gear = { ...plan.brief.gear };
  Reflect.deleteProperty(gear, id);
  return { ...plan, brief: { ...plan.brief, gear } };
}

/** An id that nothing on the shelf has yet. */
export const freeId = (plan: Plan, stem: string): string => free(stem, Object.keys(plan.brief.gear ?? {}));

/** Whether the layout, or how the corner stands today, names a thing. */
export function inUse(plan: Plan, id: string): boolean {
  const names = (value: unknown): boolean => {
    if (value === null || typeof value !== "object") return false;
    return Object.entries(value).some(
      ([key, inner]) => (["gear", "body", "lens"].includes(key) && inner === id) || names(inner),
    );
  };
  const lens = Object.values(plan.brief.gear ?? {}).some((g) => g.kind === "lens" && g.built_into === id);
  return lens || names(plan.layout) || names(plan.brief.today);
}
