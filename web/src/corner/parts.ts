// Taking a layout whole or in parts.
import type { Plan } from "../api/client";

export type Part = "all" | "place" | "lights" | "microphone" | "screen";

export const PARTS: readonly (readonly [Part, string])[] = [
  ["all", "All of it"],
  ["place", "Seat, camera and furniture"],
  ["lights", "Lights"],
  ["microphone", "Microphone"],
  ["screen", "Screen"],
];

const FIELDS: Record<Part, readonly (keyof Plan["layout"])[]> = {
  all: ["seat", "camera", "lights", "microphone", "screen", "backdrop", "furniture"],
  place: ["seat", "camera", "backdrop", "furniture"],
  lights: ["lights"],
  microphone: ["microphone"],
  screen: ["screen"],
};

/** The plan with a part of another one's layout. Whole, it takes the other's schools along: they belong to it. */
export function withPart(plan: Plan, other: Plan, part: Part): Plan {
  const layout = { ...plan.layout };
  for (const field of FIELDS[part]) {
    if (other.layout[field] == null) Reflect.deleteProperty(layout, field);
    else Object.assign(layout, { [field]: other.layout[field] });
  }
  const schools = part === "all" ? (other.brief.schools ?? {}) : (plan.brief.schools ?? {});
  return { ...plan, brief: { ...plan.brief, schools }, layout };
}

/** The parts in which two layouts differ, the whole first; none where they are the same. */
export function partsThatDiffer(plan: Plan, other: Plan): Part[] {
  const text = (value: unknown) => JSON.stringify(value ?? null);
  const differs = (part: Part) =>
    FIELDS[part].some((field) => text(plan.layout[field]) !== text(other.layout[field]));
  return PARTS.map(([part]) => part).filter(differs);
}
