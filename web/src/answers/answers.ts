// The answers behind a corner, as they are typed.
import type { Brief, Gear, Schemas } from "../api/client";
import type { Floor } from "../table/floor";
import { editLength, type UnitSystem } from "../units/length";
import { newOpening, type OpeningText } from "./openings";

export interface PieceText {
  id: string;
  kind: string;
  width: string;
  depth: string;
  height: string;
  x: string;
  y: string;
  foot: string;
  bearing: string;
  fixed: boolean;
}

/** One wall of a walk round the room. */
export interface LegText {
  length: string;
  /** The turn at its end. */
  turn: "left" | "right" | "other";
  /** Degrees to the left, for a turn that is not square. */
  degrees: string;
}

export interface SlopeText {
  id: string;
  wall: string;
  from: string;
  length: string;
  knee: string;
  run: string;
}

export interface BeamText {
  id: string;
  fromX: string;
  fromY: string;
  toX: string;
  toY: string;
  width: string;
  drop: string;
}

/** A place in the room. */
export interface PlaceText {
  x: string;
  y: string;
  z: string;
}

export interface Answers {
  name: string;
  units: UnitSystem;
  shape: "rectangle" | "walk";
  width: string;
  depth: string;
  height: string;
  furnishing: string;
  volts: string;
  hertz: string;
  breaker: string;
  legs: LegText[];
  /** The floor that the walk makes. */
  floor: Floor | null;
  slopes: SlopeText[];
  beams: BeamText[];
  openings: OpeningText[];
  furniture: PieceText[];
  stature: string;
  posture: Schemas["Posture"];
  seatHeight: string;
  eyeHeight: string;
  lean: string;
  seatAt: string;
  glasses: boolean;
  purpose: Schemas["Purpose"];
  schools: Record<string, string>;
  gear: Record<string, Gear>;
  today: boolean;
  seat: PlaceText;
  lens: PlaceText;
  key: PlaceText;
  microphone: PlaceText;
  focal: string;
  fNumber: string;
  iso: string;
  budget: string;
  currency: string;
}

export const NOWHERE: PlaceText = { x: "", y: "", z: "" };

/** Answers to begin with: what has no usual value is empty. */
export function newAnswers(units: UnitSystem = "metric"): Answers {
  const text = (metres: number) => editLength(metres, units);
  return {
    name: "",
    units,
    shape: "rectangle",
    width: "",
    depth: "",
    height: text(2.4),
    furnishing: "",
    volts: "",
    hertz: "",
    breaker: "",
    legs: [],
    floor: null,
    slopes: [],
    beams: [],
    openings: [newOpening("door", [], units), newOpening("window", [], units)],
    furniture: [
      {
        id: "desk",
        kind: "desk",
        width: text(1.2),
        depth: text(0.6),
        height: text(0.74),
        x: "",
        y: "",
        foot: text(0),
        bearing: "180",
        fixed: false,
      },
    ],
    stature: "",
    posture: "seated",
    seatHeight: "",
    eyeHeight: "",
    lean: "",
    seatAt: "desk",
    glasses: false,
    purpose: "talk-to-lens",
    schools: {},
    gear: {},
    today: false,
    seat: NOWHERE,
    lens: NOWHERE,
    key: NOWHERE,
    microphone: NOWHERE,
    focal: "",
    fNumber: "",
    iso: "800",
    budget: "0",
    // What the prices that ship are told in.
    currency: "EUR",
  };
}

/** Changing the brief of a corner, or making one. */
export interface Base {
  name: string;
  brief: Brief;
}
