// Corners at random, from seeds: rooms, names, lights, angles and treatment in any number, in either unit system. They need not be
// good corners; they only have to be read.
import type { Json } from "./help";

interface Loose {
  [key: string]: Loose | number | string | boolean | null | (number | string | number[])[];
}

/** Numbers from 0 to 1 by a seed (mulberry32). */
export function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = Math.imul(state ^ (state >>> 15), state | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

const WORDS =
  "A lamp with a long name and Unbreakable-and-endless-compound in the attic, half lit, beside the chair ".repeat(
    2,
  );

/** A corner by its seed, made of the demo's. */
export function anyCorner(demo: Json, seed: number): unknown {
  const roll = dice(seed);
  const between = (low: number, high: number) => low + roll() * (high - low);
  const count = (most: number) => Math.floor(roll() * (most + 1));
  const plan = structuredClone(demo) as unknown as { name: string; brief: Loose; layout: Loose };
  const { brief, layout } = plan;
  const words = (most: number) => {
    const from = Math.floor(roll() * 80);
    return WORDS.slice(from, from + Math.max(3, Math.floor(roll() * most))).trim() || "x";
  };
  plan.name = words(119);
  brief.units = roll() < 0.5 ? "metric" : "imperial";
  const [width, depth] = [between(2.4, 7), between(2.4, 7)];
  const room = brief.room as Loose;
  room.floor_m = [
    [0, 0],
    [width, 0],
    [width, depth],
    [0, depth],
  ] as never;
  room.furniture = {};
  room.openings = {};
  room.sockets = {};
  for (let index = 0; index < count(3); index++)
    room.sockets[`socket-${String(index)}`] = { position_m: [0, between(0, depth), 0.3] };
  Reflect.deleteProperty(brief, "today");
  Reflect.deleteProperty(brief, "measured");
  Reflect.deleteProperty(brief.person as Loose, "seat_at");
  layout.furniture = {};
  const at = (z: number): number[] => [between(0.1, width - 0.1), between(0.1, depth - 0.1), z];
  const [x = 1, y = 1] = at(0);
  (layout.seat as Loose).position_m = [x, y];
  const camera = layout.camera as Loose;
  camera.position_m = at(between(0.8, 1.6));
  camera.bearing_deg = between(0, 359);
  camera.nd_stops = roll() < 0.3 ? 1.5 : 0;
  for (const gear of Object.values(brief.gear as Record<string, Loose>))
    if (roll() < 0.3) gear.label = words(70);
  const lights = layout.lights as Record<string, Loose>;
  const [pattern] = Object.values(lights);
  layout.lights = {};
  const roles = ["key", "fill", "back", "background", "practical"];
  for (let index = 0; pattern && index < count(12); index++) {
    const light = structuredClone(pattern);
    light.role = roles[Math.floor(roll() * roles.length)] ?? "fill";
    light.position_m = at(between(0.5, 2.2));
    light.dim = between(0.1, 1);
    const support = light.support as Loose;
    Reflect.deleteProperty(support, "base_m");
    support.sandbag_kg = roll() < 0.5 ? 7 : 0;
    layout.lights[`lamp-${String(index)}`] = light;
  }
  layout.angles = {};
  for (let index = 0; index < count(3); index++)
    layout.angles[`side-${String(index)}`] = {
      body: camera.body ?? "",
      lens: camera.lens ?? "",
      position_m: at(1.3) as never,
      aim_m: [x, y, 1.2],
      focal_length_mm: camera.focal_length_mm ?? 35,
      support: { kind: "floor" },
    };
  (brief.gear as Loose).blanket = {
    kind: "treatment",
    label: words(60),
    material: "blanket_pleated",
    width_m: 1.4,
    height_m: 1.2,
    thickness_m: 0.03,
  };
  layout.treatment = {};
  for (let index = 0; index < count(5); index++)
    layout.treatment[`blanket-${String(index)}`] = {
      gear: "blanket",
      on: "wall-0",
      position_m: [between(0.7, width - 0.7), 0, 1.2],
    };
  if (roll() < 0.3) Reflect.deleteProperty(layout, "microphone");
  else if (layout.microphone) {
    const microphone = layout.microphone as Loose;
    microphone.position_m = at(1.4);
    Reflect.deleteProperty(microphone.support as Loose, "base_m");
  }
  return plan;
}
