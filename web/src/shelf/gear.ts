// Changes to what is at hand.
import type { Gear, Plan } from "../api/client";

export type Shelf = Record<string, Gear>;
/** Changes the shelf as it is when its turn comes. */
export type OnChange = (change: (shelf: Shelf) => Shelf) => void;

/** A thing put on the shelf, or some of it changed; what is set to null is no longer told. */
export function withGear(shelf: Shelf, id: string, change: Record<string, unknown>): Shelf {
  const told = Object.entries({ ...shelf[id], ...change }).filter(([, v]) => v !== null);
  return { ...shelf, [id]: Object.fromEntries(told) as unknown as Gear };
}

/** Figures of a thing typed anew: they are no longer assumed. */
export function withFigures(shelf: Shelf, id: string, figures: Record<string, unknown>): Shelf {
  const assumed = shelf[id]?.figures_assumed === true ? { figures_assumed: false } : {};
  return withGear(shelf, id, { ...figures, ...assumed });
}

export function withoutGear(shelf: Shelf, id: string): Shelf {
  const rest = { ...shelf };
  Reflect.deleteProperty(rest, id);
  return rest;
}

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
