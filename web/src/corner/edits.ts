// Changes to a plan that no rule resists: settings, locks, measured values, schools.
import type { Handle, Plan, Schemas } from "../api/client";

type Light = Schemas["Light"];
type Camera = Schemas["Camera"];

const withLayout = (plan: Plan, layout: Partial<Plan["layout"]>): Plan => ({
  ...plan,
  layout: { ...plan.layout, ...layout },
});

/** Measured values of the light at the face no longer hold once a lamp is changed. */
function relit(plan: Plan): Plan {
  const measured = Object.entries(plan.brief.measured ?? {}).filter(([id]) => !id.startsWith("light.face."));
  return { ...plan, brief: { ...plan.brief, measured: Object.fromEntries(measured) } };
}

export function withLight(plan: Plan, id: string, change: Partial<Light>): Plan {
  const light = plan.layout.lights?.[id];
  if (!light) return plan;
  return relit(withLayout(plan, { lights: { ...plan.layout.lights, [id]: { ...light, ...change } } }));
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

export const withPerson = (plan: Plan, change: Given<Plan["brief"]["person"]>): Plan => ({
  ...plan,
  brief: { ...plan.brief, person: given(plan.brief.person, change) },
});

export function withoutLight(plan: Plan, id: string): Plan {
  const lights = { ...plan.layout.lights };
  Reflect.deleteProperty(lights, id);
  return relit(withLayout(plan, { lights }));
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

export function withLock(plan: Plan, handle: Handle, locked: boolean): Plan {
  const { layout } = plan;
  if (handle.id === "seat") return withLayout(plan, { seat: { ...layout.seat, locked } });
  if (handle.id === "camera") return withCamera(plan, { locked });
  const angle = layout.angles?.[handle.id];
  if (angle) return withLayout(plan, { angles: { ...layout.angles, [handle.id]: { ...angle, locked } } });
  if (handle.id === "backdrop" && layout.backdrop)
    return withLayout(plan, { backdrop: { ...layout.backdrop, locked } });
  if (handle.id === "screen" && layout.screen)
    return withLayout(plan, { screen: { ...layout.screen, locked } });
  if (handle.id === "microphone" && layout.microphone)
    return withLayout(plan, { microphone: { ...layout.microphone, locked } });
  const light = layout.lights?.[handle.id];
  if (light) return withLayout(plan, { lights: { ...layout.lights, [handle.id]: { ...light, locked } } });
  const at = { position_m: handle.position_m, bearing_deg: handle.bearing_deg ?? 0, locked };
  return withLayout(plan, { furniture: { ...layout.furniture, [handle.id]: at } });
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

/** The locked thing that another layout would move, in words; null if none. */
export function heldBy({ layout }: Plan, other: Plan["layout"]): string | null {
  type Entry = [string, Standing | null | undefined, Standing | null | undefined];
  const each = (
    now: Record<string, Standing> | undefined,
    then: Record<string, Standing> | undefined,
  ): Entry[] =>
    Object.entries(now ?? {}).map(([id, thing]) => [`the ${id.replaceAll("-", " ")}`, thing, then?.[id]]);
  const things: Entry[] = [
    ["the seat", layout.seat, other.seat],
    ["the camera", layout.camera, other.camera],
    ["the microphone", layout.microphone, other.microphone],
    ["the screen", layout.screen, other.screen],
    ["the backdrop", layout.backdrop, other.backdrop],
    ...each(layout.lights, other.lights),
    ...each(layout.furniture, other.furniture),
  ];
  return things.find(([, now, then]) => now?.locked && stance(now) !== stance(then))?.[0] ?? null;
}

/** What a lock holds of a thing: where and how it stands, not how it is set. */
interface Standing {
  locked?: boolean;
  position_m: number[];
  bearing_deg?: number;
  tilt_deg?: number;
  aim_m?: number[] | null;
  support?: { base_m?: number[] | null };
}

const stance = (thing: Standing | null | undefined): string =>
  JSON.stringify([
    thing?.position_m,
    thing?.bearing_deg,
    thing?.tilt_deg,
    thing?.aim_m ?? null,
    thing?.support?.base_m ?? null,
  ]);
