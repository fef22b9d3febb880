// What the answers stand for: each text read, each problem in words beside its field.
import { z } from "zod";

import type { Gear, Schemas } from "../api/client";
import type { Floor } from "../table/floor";
import type { Answers, PlaceText } from "./answers";
import { openingRead } from "./openings";
import { PLACE, readers, SIDE, within, type Range } from "../units/typed";

/** A piece of furniture may be so large, m. */
const PIECE = [0.02, 10] as const;
const EYES = [0.5, 2.3] as const;
const LEG = [0.05, 50] as const;

/** Anything that is not typed as text goes through as it is. */
const as = <T>() => z.custom<T>(() => true);

/** What of the answers is asked for, by the answers themselves. */
type Asked = Pick<Answers, "units" | "shape" | "today" | "key" | "microphone">;

/** The schema of some answers; leniently it takes whatever can be read so far. */
export function answersSchema(asked: Asked, lenient = false) {
  const read = readers({ units: asked.units, lenient });
  const { text, length, optionalLength, number, optionalNumber } = read;
  const rectangle = asked.shape === "rectangle";
  /** What is not asked for is not read. */
  const unasked = z.string().transform(() => 0);
  const side = rectangle ? length(SIDE) : unasked;
  const place = (wanted: boolean, solid: boolean) => {
    const axis = wanted ? length(PLACE) : unasked;
    return z.object({ x: axis, y: axis, z: solid ? axis : unasked });
  };
  const given = ({ x, y, z: up }: PlaceText) => asked.today && [x, y, up].some((t) => t.trim() !== "");
  const now = (range: Range) => (asked.today ? number(range) : unasked);
  return z.object({
    name: text,
    units: z.enum(["metric", "imperial"]),
    shape: z.enum(["rectangle", "walk"]),
    width: side,
    depth: side,
    height: length(within("Room.height_m")),
    furnishing: text,
    volts: optionalNumber(within("Mains.voltage_v")),
    hertz: optionalNumber(within("Mains.frequency_hz")).refine(
      (hertz) => lenient || hertz === null || hertz === 50 || hertz === 60,
      { error: ({ input }) => `${String(input)} is not accepted: give 50 or 60.` },
    ),
    breaker: optionalNumber(within("Mains.breaker_a")),
    legs: z.array(z.object({ length: rectangle ? unasked : length(LEG), turn: z.string(), degrees: text })),
    floor: as<Floor | null>().refine((floor) => lenient || rectangle || floor !== null, {
      error: "The walk round the room does not close yet.",
    }),
    slopes: z.array(
      z.object({
        id: z.string(),
        wall: z.string(),
        from: optionalLength(within("Slope.from_m")),
        length: optionalLength(within("Slope.length_m")),
        knee: length(within("Slope.knee_m")),
        run: length(within("Slope.run_m")),
      }),
    ),
    beams: z.array(
      z.object({
        id: z.string(),
        fromX: length(PLACE),
        fromY: length(PLACE),
        toX: length(PLACE),
        toY: length(PLACE),
        width: length(within("Beam.width_m")),
        drop: length(within("Beam.drop_m")),
      }),
    ),
    openings: z.array(openingRead(read)),
    furniture: z.array(
      z
        .object({
          id: z.string(),
          kind: as<Schemas["FurnitureKind"]>(),
          width: length(PIECE),
          depth: length(PIECE),
          height: length(PIECE),
          x: optionalLength(PLACE),
          y: optionalLength(PLACE),
          foot: optionalLength(PLACE),
          bearing: z.string(),
          fixed: z.boolean(),
        })
        // A piece that goes where the seat goes need not be placed.
        .superRefine((piece, context) => {
          for (const axis of ["x", "y"] as const)
            if (!lenient && piece.fixed && piece[axis] === null)
              context.addIssue({ code: "custom", path: [axis], message: "Say where it stands." });
        }),
    ),
    stature: length(within("Person.stature_m")),
    posture: z.enum(["seated", "standing"]),
    seatHeight: optionalLength(within("Person.seat_height_m")),
    eyeHeight: optionalLength(EYES),
    lean: optionalLength(within("Person.lean_m")),
    seatAt: z.string(),
    glasses: z.boolean(),
    purpose: as<Schemas["Purpose"]>(),
    schools: as<Record<string, string>>(),
    gear: as<Record<string, Gear>>(),
    today: z.boolean(),
    seat: place(asked.today, false),
    lens: place(asked.today, true),
    key: place(given(asked.key), true),
    microphone: place(given(asked.microphone), true),
    focal: now(within("Camera.focal_length_mm")),
    fNumber: now(within("Camera.f_number")),
    iso: now(within("Camera.iso")),
    budget: number(within("Money.budget")),
    currency: text,
  });
}

/** Answers as they are read. */
export type Read = z.output<ReturnType<typeof answersSchema>>;
