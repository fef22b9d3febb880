// The brief that answers make, over what an earlier brief says beside them.
import type { Brief, Schemas } from "../api/client";
import type { Answers } from "./answers";
import { keepExact } from "./exact";
import { openingsOf } from "./openings";
import { answersSchema, type Read } from "./schema";
import { todayOf } from "./today";
import { roomiest } from "./walls";

const NAMELESS = "My corner";

/** The brief of answers that can be read. `base` is the brief they are changes to: what was not typed anew stays as it has it,
 * to the last digit, although another window changed it meanwhile. */
export function briefOf(
  read: Read,
  base: Brief | null,
  opened: Answers | null,
): { name: string; brief: Brief } {
  const name = read.name || NAMELESS;
  const typed = briefRead(read, base);
  if (!base || !opened) return { name, brief: typed };
  const before = answersSchema(opened, true).safeParse(opened);
  if (!before.success) return { name, brief: typed };
  return { name, brief: keepExact(typed, briefRead(before.data, base), base) };
}

/** A brief of whatever can be read so far, for a sketch. */
export function briefSoFar(answers: Answers): Brief | null {
  const read = answersSchema(answers, true).safeParse(answers);
  return read.success ? briefRead(read.data, null) : null;
}

function floorOf(read: Read): Schemas["Room"]["floor_m"] {
  if (read.shape === "walk") return read.floor ?? [];
  const { width, depth } = read;
  return [
    [0, 0],
    [width, 0],
    [width, depth],
    [0, depth],
  ];
}

function roomOf(read: Read, base: Brief | null): Schemas["Room"] {
  const floor = floorOf(read);
  const middle = roomiest(floor);
  return {
    ...base?.room,
    furnishing: (read.furnishing || null) as Schemas["Furnishing"] | null,
    floor_m: floor,
    height_m: read.height,
    slopes: Object.fromEntries(
      read.slopes.map((slope) => [
        slope.id,
        {
          wall: Number(slope.wall),
          from_m: slope.from ?? 0,
          ...(slope.length === null ? {} : { length_m: slope.length }),
          knee_m: slope.knee,
          run_m: slope.run,
        },
      ]),
    ),
    beams: Object.fromEntries(
      read.beams.map((beam) => [
        beam.id,
        {
          from_m: [beam.fromX, beam.fromY] as [number, number],
          to_m: [beam.toX, beam.toY] as [number, number],
          width_m: beam.width,
          drop_m: beam.drop,
        },
      ]),
    ),
    openings: openingsOf(read.openings, base?.room.openings ?? {}),
    furniture: Object.fromEntries(
      read.furniture.map((piece) => [
        piece.id,
        {
          kind: piece.kind,
          // The roomiest place stands in for one that goes where it is needed.
          position_m: [piece.x ?? middle[0], piece.y ?? middle[1], piece.foot ?? 0] as [
            number,
            number,
            number,
          ],
          bearing_deg: Number(piece.bearing),
          size_m: [piece.width, piece.depth, piece.height] as [number, number, number],
          fixed: piece.fixed,
        },
      ]),
    ),
    mains: { voltage_v: read.volts, frequency_hz: read.hertz, breaker_a: read.breaker },
  };
}

const EYE_HEIGHT = "person.eye.height_m";

function briefRead(read: Read, base: Brief | null): Brief {
  const measured = { ...base?.measured };
  if (read.eyeHeight === null) Reflect.deleteProperty(measured, EYE_HEIGHT);
  else measured[EYE_HEIGHT] = read.eyeHeight;
  const room = roomOf(read, base);
  const seated = read.posture === "seated";
  const brief: Brief = {
    ...base,
    units: read.units,
    room,
    person: {
      ...base?.person,
      stature_m: read.stature,
      posture: read.posture,
      seat_height_m: seated ? read.seatHeight : null,
      seat_at: room.furniture?.[read.seatAt] ? read.seatAt : null,
      glasses: read.glasses,
      lean_m: read.lean,
    },
    purpose: read.purpose,
    schools: read.schools,
    gear: read.gear,
    money: { budget: read.budget, currency: read.currency.slice(0, 8) },
    measured,
  };
  if (read.today) brief.today = todayOf(read, brief, base?.today ?? null);
  else Reflect.deleteProperty(brief, "today");
  return brief;
}
