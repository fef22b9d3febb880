// The parts of a layout: taken whole or in parts, compared, held by locks. A field that a layout comes to have does not
// compile until it has its place here.
import type { Plan } from "../api/client";

type Layout = Plan["layout"];
type Field = keyof Layout;
export type Part = "all" | "place" | "lights" | "microphone" | "screen" | "angles" | "treatment";

/** To which part each field belongs, and whether it holds one thing or several by their ids. */
const FIELDS: Record<Field, { part: Exclude<Part, "all">; holds: "one" | "several" }> = {
  seat: { part: "place", holds: "one" },
  camera: { part: "place", holds: "one" },
  furniture: { part: "place", holds: "several" },
  backdrop: { part: "place", holds: "one" },
  lights: { part: "lights", holds: "several" },
  microphone: { part: "microphone", holds: "one" },
  screen: { part: "screen", holds: "one" },
  angles: { part: "angles", holds: "several" },
  treatment: { part: "treatment", holds: "several" },
};
const ALL_FIELDS = Object.keys(FIELDS) as Field[];

const WORDS: Record<Part, string> = {
  all: "all of it",
  place: "its seat, camera and furniture",
  lights: "its lights",
  microphone: "its microphone",
  screen: "its screen",
  angles: "its second angles",
  treatment: "what it hangs to reduce echo",
};
export const PARTS = Object.entries(WORDS) as [Part, string][];

const fieldsOf = (part: Part): Field[] =>
  part === "all" ? ALL_FIELDS : ALL_FIELDS.filter((field) => FIELDS[field].part === part);

/** The plan with a part of another one's layout. Whole, it takes the other's schools along: they belong to it. */
export function withPart(plan: Plan, other: Plan, part: Part): Plan {
  const layout = { ...plan.layout };
  for (const field of fieldsOf(part)) {
    if (other.layout[field] == null) Reflect.deleteProperty(layout, field);
    else Object.assign(layout, { [field]: other.layout[field] });
  }
  const schools = part === "all" ? (other.brief.schools ?? {}) : (plan.brief.schools ?? {});
  return { ...plan, brief: { ...plan.brief, schools }, layout };
}

/** The parts in which two layouts differ, the whole first; none where they are the same. */
export function partsThatDiffer(plan: Plan, other: Plan): Part[] {
  // Nothing and an empty list of things are the same.
  const text = (value: unknown) =>
    value == null || (typeof value === "object" && Object.keys(value).length === 0)
      ? "null"
      : JSON.stringify(value);
  const differs = (part: Part) =>
    fieldsOf(part).some((field) => text(plan.layout[field]) !== text(other.layout[field]));
  return PARTS.map(([part]) => part).filter(differs);
}

/** What a lock holds of a thing: which it is, where and how it stands; not how it is set. */
interface Placed {
  locked?: boolean;
  [field: string]: unknown;
}
const HELD = ["gear", "body", "position_m", "bearing_deg", "tilt_deg", "aim_m", "on", "turned"] as const;

function stance(thing: Placed | undefined): string {
  const support = (thing?.support ?? {}) as { base_m?: unknown; on?: unknown };
  const own = HELD.map((field) => thing?.[field] ?? null);
  return JSON.stringify([thing === undefined, own, support.base_m ?? null, support.on ?? null]);
}

/** Every placed thing of a layout, by where it is held: a light and a table may be called alike. */
function thingsOf(layout: Layout): Map<string, { words: string; thing: Placed }> {
  const all = new Map<string, { words: string; thing: Placed }>();
  for (const field of ALL_FIELDS) {
    const value = layout[field];
    if (value == null) continue;
    if (FIELDS[field].holds === "one") all.set(field, { words: `the ${field}`, thing: value });
    else
      for (const [id, thing] of Object.entries(value as Record<string, unknown>))
        all.set(`${field}/${id}`, { words: `the ${id.replaceAll("-", " ")}`, thing: thing as Placed });
  }
  return all;
}

/** The locked thing that another layout would move, in words; null if none. */
export function heldBy({ layout }: Plan, other: Layout): string | null {
  const then = thingsOf(other);
  const held = [...thingsOf(layout)].find(
    ([at, { thing }]) => thing.locked === true && stance(thing) !== stance(then.get(at)?.thing),
  );
  return held?.[1].words ?? null;
}

/** The plan with something changed in one of its layout's things, told by its place there: `/lights/key`. */
export function withThing(plan: Plan, pointer: string, change: Record<string, unknown>): Plan {
  const [, field = "", id] = pointer.split("/");
  if (!(field in FIELDS)) return plan;
  const layout = plan.layout as unknown as Record<string, unknown>;
  const now = layout[field];
  const changed =
    id === undefined
      ? { ...(now as object), ...change }
      : { ...(now as object), [id]: { ...(now as Record<string, object> | undefined)?.[id], ...change } };
  return { ...plan, layout: { ...plan.layout, [field]: changed } };
}
