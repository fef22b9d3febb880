// Changes to a plan that no rule resists: settings, locks, measured values, schools.
import type { Handle, Plan, Schemas } from "../api/client";
import { withThing } from "./parts";

type Light = Schemas["Light"];
type Camera = Schemas["Camera"];

const withLayout = (plan: Plan, layout: Partial<Plan["layout"]>): Plan => ({
  ...plan,
  layout: { ...plan.layout, ...layout },
});

export function withLight(plan: Plan, id: string, change: Partial<Light>): Plan {
  const light = plan.layout.lights?.[id];
  if (!light) return plan;
  return withLayout(plan, { lights: { ...plan.layout.lights, [id]: { ...light, ...change } } });
}

export const withCamera = (plan: Plan, change: Partial<Camera>): Plan =>
  withLayout(plan, { camera: { ...plan.layout.camera, ...change } });

type Recording = NonNullable<Plan["brief"]["recording"]>;
type Given<T> = { [K in keyof T]?: T[K] | null };

/** Fields set to null are left out: what is not told is assumed. */
function given<T extends object>(told: T, change: Given<T>): T {
  return Object.fromEntries(Object.entries({ ...told, ...change }).filter(([, v]) => v !== null)) as T;
}

export const withRecording = (plan: Plan, change: Given<Recording>): Plan => ({
  ...plan,
  brief: { ...plan.brief, recording: given<Recording>(plan.brief.recording ?? {}, change) },
});

type RunSheet = NonNullable<Plan["brief"]["run"]>;

/** What is to be shot, told anew; what is null is no longer told. */
export const withRun = (plan: Plan, change: Given<RunSheet>): Plan => ({
  ...plan,
  brief: { ...plan.brief, run: given<RunSheet>(plan.brief.run ?? {}, change) },
});

export const withPerson = (plan: Plan, change: Given<Plan["brief"]["person"]>): Plan => ({
  ...plan,
  brief: { ...plan.brief, person: given(plan.brief.person, change) },
});

/** A door or window told anew; what is null is no longer told. */
export function withOpening(
  plan: Plan,
  id: string,
  change: Given<NonNullable<Plan["brief"]["room"]["openings"]>[string]>,
): Plan {
  const opening = plan.brief.room.openings?.[id];
  if (!opening) return plan;
  const openings = { ...plan.brief.room.openings, [id]: given(opening, change) };
  return { ...plan, brief: { ...plan.brief, room: { ...plan.brief.room, openings } } };
}

export const withBudget = (plan: Plan, budget: number): Plan => ({
  ...plan,
  brief: { ...plan.brief, money: { ...plan.brief.money, budget } },
});

/** Own weights of the aspects; null goes back to those of the school. */
export const withWeights = (plan: Plan, weights: Schemas["Weights"] | null): Plan => ({
  ...plan,
  brief: { ...plan.brief, money: { ...plan.brief.money, weights } },
});

export const withFurnishing = (plan: Plan, furnishing: string): Plan => ({
  ...plan,
  brief: {
    ...plan.brief,
    room: {
      ...plan.brief.room,
      furnishing: furnishing === "" ? null : (furnishing as Plan["brief"]["room"]["furnishing"] & string),
    },
  },
});

export function withoutLight(plan: Plan, id: string): Plan {
  const lights = { ...plan.layout.lights };
  Reflect.deleteProperty(lights, id);
  return withLayout(plan, { lights });
}

export function withoutAngle(plan: Plan, id: string): Plan {
  const angles = { ...plan.layout.angles };
  Reflect.deleteProperty(angles, id);
  const layout = { ...plan.layout, angles };
  if (Object.keys(angles).length === 0) Reflect.deleteProperty(layout, "angles");
  return { ...plan, layout };
}

export const withGaze = (plan: Plan, gaze_offset_deg: number): Plan =>
  withLayout(plan, { seat: { ...plan.layout.seat, gaze_offset_deg } });

/** Locks or unlocks a thing. Furniture that stands where the room has it is put there by its lock. */
export function withLock(plan: Plan, handle: Handle, locked: boolean): Plan {
  const placed = handle.pointer.startsWith("/furniture/")
    ? { position_m: handle.position_m, bearing_deg: handle.bearing_deg ?? 0 }
    : {};
  return withThing(plan, handle.pointer, { ...placed, locked });
}

export function withMeasured(plan: Plan, reading: string, value: number | null): Plan {
  const measured = { ...plan.brief.measured };
  if (value === null) delete measured[reading];
  else measured[reading] = value;
  return { ...plan, brief: { ...plan.brief, measured } };
}

export const withSchool = (plan: Plan, school: string, choice: string): Plan => ({
  ...plan,
  brief: { ...plan.brief, schools: { ...plan.brief.schools, [school]: choice } },
});

/** The plan with its place on the earth. */
export const withPlace = (plan: Plan, place: NonNullable<Plan["brief"]["place"]>): Plan => ({
  ...plan,
  brief: { ...plan.brief, place },
});

/** The plan with the bearing of north in its room and how far it may be off, or without one. */
export const withNorth = (plan: Plan, north_deg: number | null, north_within_deg: number | null): Plan => ({
  ...plan,
  brief: { ...plan.brief, room: { ...plan.brief.room, north_deg, north_within_deg } },
});

/** The plan with its windows covered, or as the key with nothing or a white curtain before them; dark curtains stay. */
export function withWindowWay(plan: Plan, way: "cover" | "key" | "white-curtain"): Plan {
  const next = withSchool(plan, "window", way === "cover" ? "shut-out" : "key");
  if (way === "cover") return next;
  const curtain = way === "white-curtain" ? ("white" as const) : null;
  const openings = Object.fromEntries(
    Object.entries(next.brief.room.openings ?? {}).map(([id, opening]) => [
      id,
      opening.kind === "window" && opening.curtain !== "dark" ? { ...opening, curtain } : opening,
    ]),
  );
  const room = { ...next.brief.room, openings };
  return { ...next, brief: { ...next.brief, room } };
}

/** The plan with other noisy hours. */
export const withQuiet = (plan: Plan, quiet: NonNullable<Plan["brief"]["quiet"]>): Plan => ({
  ...plan,
  brief: { ...plan.brief, quiet },
});

/** The same corner read in the other units; the mains that were assumed do not change with them. */
export function withUnits(plan: Plan, units: "metric" | "imperial"): Plan {
  const mains = plan.brief.room.mains ?? {};
  const imperial = plan.brief.units === "imperial";
  const pinned = {
    voltage_v: mains.voltage_v ?? (imperial ? 120 : 230),
    frequency_hz: mains.frequency_hz ?? (imperial ? 60 : 50),
    breaker_a: mains.breaker_a ?? (imperial ? 15 : 16),
  };
  return { ...plan, brief: { ...plan.brief, units, room: { ...plan.brief.room, mains: pinned } } };
}
