// The answers behind a brief, as texts.
import type { Brief } from "../api/client";
import { isRectangle } from "../table/floor";
import { editLength, type UnitSystem } from "../units/length";
import { newAnswers, NOWHERE, type Answers, type Base, type PlaceText } from "./answers";
import { openingsTyped } from "./openings";
import { legsOf } from "./walls";

const plain = (value: number | null | undefined) =>
  value === null || value === undefined ? "" : String(value);

export function answersOf({ name, brief }: Base): Answers {
  const units: UnitSystem = brief.units ?? "metric";
  const text = (metres: number | null | undefined) =>
    metres === null || metres === undefined ? "" : editLength(metres, units);
  const { room, person } = brief;
  const rectangle = isRectangle(room.floor_m);
  const [width, depth] = room.floor_m[2] ?? [0, 0];
  return {
    ...newAnswers(units),
    name,
    shape: rectangle ? "rectangle" : "walk",
    width: rectangle ? text(width) : "",
    depth: rectangle ? text(depth) : "",
    height: text(room.height_m),
    furnishing: room.furnishing ?? "",
    volts: plain(room.mains?.voltage_v),
    hertz: plain(room.mains?.frequency_hz),
    breaker: plain(room.mains?.breaker_a),
    legs: rectangle ? [] : legsOf(room.floor_m, units),
    floor: rectangle ? null : room.floor_m,
    slopes: Object.entries(room.slopes ?? {}).map(([id, s]) => ({
      id,
      wall: String(s.wall),
      from: s.from_m ? text(s.from_m) : "",
      length: text(s.length_m),
      knee: text(s.knee_m),
      run: text(s.run_m),
    })),
    beams: Object.entries(room.beams ?? {}).map(([id, b]) => ({
      id,
      fromX: text(b.from_m[0]),
      fromY: text(b.from_m[1]),
      toX: text(b.to_m[0]),
      toY: text(b.to_m[1]),
      width: text(b.width_m),
      drop: text(b.drop_m),
    })),
    openings: openingsTyped(room, units),
    furniture: Object.entries(room.furniture ?? {}).map(([id, f]) => ({
      id,
      kind: f.kind,
      width: text(f.size_m[0]),
      depth: text(f.size_m[1]),
      height: text(f.size_m[2]),
      x: text(f.position_m[0]),
      y: text(f.position_m[1]),
      foot: text(f.position_m[2]),
      bearing: String(f.bearing_deg ?? 0),
      fixed: f.fixed ?? false,
    })),
    stature: text(person.stature_m),
    posture: person.posture,
    seatHeight: text(person.seat_height_m),
    eyeHeight: text(brief.measured?.["person.eye.height_m"]),
    lean: text(person.lean_m),
    seatAt: person.seat_at ?? "",
    glasses: person.glasses ?? false,
    purpose: brief.purpose,
    schools: Object.fromEntries(Object.entries(brief.schools ?? {}).filter(([, v]) => typeof v === "string")),
    gear: brief.gear ?? {},
    budget: plain(brief.money?.budget ?? 0),
    currency: brief.money?.currency ?? "",
    ...today(brief, text),
  };
}

function today(
  { today: stands }: Brief,
  text: (metres: number | null | undefined) => string,
): Pick<Answers, "today" | "seat" | "lens" | "key" | "microphone" | "focal" | "fNumber" | "iso"> {
  const place = (at: readonly number[] | undefined): PlaceText =>
    at ? { x: text(at[0]), y: text(at[1]), z: text(at[2]) } : NOWHERE;
  const key = Object.values(stands?.lights ?? {}).find((light) => light.role === "key");
  return {
    today: stands != null,
    seat: place(stands?.seat?.position_m),
    lens: place(stands?.camera?.position_m),
    key: place(key?.position_m),
    microphone: place(stands?.microphone?.position_m),
    focal: plain(stands?.camera?.focal_length_mm),
    fNumber: plain(stands?.camera?.f_number),
    iso: plain(stands?.camera?.iso ?? 800),
  };
}
