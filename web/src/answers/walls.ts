// The floor as it is told: a rectangle, or a walk round the walls with a tape; what hangs overhead.
import type { Schemas } from "../api/client";
import { LETTERS, type Floor } from "../table/floor";
import { editLength, parseLength, type UnitSystem } from "../units/length";
import type { LegText } from "./answers";

export const MOST_WALLS = LETTERS.length;

/** The place on a floor that is farthest from its walls, of a grid over it: where what need not be placed stands in. */
export function roomiest(floor: Floor): [number, number] {
  const side = (axis: number) => Math.max(0, ...floor.map((p) => p[axis] ?? 0));
  const [width, depth] = [side(0), side(1)];
  const edges = floor.map((p, i) => [p, floor[(i + 1) % floor.length] ?? p] as const);
  const clear = (x: number, y: number) => {
    let [off, inside] = [Infinity, false];
    for (const [[ax = 0, ay = 0], [bx = 0, by = 0]] of edges) {
      if (ay > y !== by > y && x < ax + ((bx - ax) * (y - ay)) / (by - ay)) inside = !inside;
      const [dx, dy] = [bx - ax, by - ay];
      const part = Math.min(
        1,
        Math.max(0, ((x - ax) * dx + (y - ay) * dy) / Math.max(dx * dx + dy * dy, 1e-9)),
      );
      off = Math.min(off, Math.hypot(x - ax - dx * part, y - ay - dy * part));
    }
    return inside ? off : -off;
  };
  let best: [number, number] = [width / 2, depth / 2];
  let most = clear(...best);
  const parts = Array.from({ length: 15 }, (_, i) => (i + 1) / 16);
  for (const [x, y] of parts.flatMap((i) => parts.map((j) => [width * i, depth * j] as const)))
    if (clear(x, y) > most + 1e-6) [best, most] = [[x, y], clear(x, y)];
  return best;
}

/** A floor as the walk that goes round it. */
export function legsOf(floor: Floor, system: UnitSystem): LegText[] {
  const at = (i: number) => floor[(i + floor.length) % floor.length] ?? [0, 0];
  const way = (i: number) => {
    const [[x0 = 0, y0 = 0], [x1 = 0, y1 = 0]] = [at(i), at(i + 1)];
    return [x1 - x0, y1 - y0] as const;
  };
  return floor.map((_, i) => {
    const [[ax, ay], [bx, by]] = [way(i), way(i + 1)];
    const turn = (Math.atan2(ax * by - ay * bx, ax * bx + ay * by) * 180) / Math.PI;
    const square = Math.abs(Math.abs(turn) - 90) < 0.05;
    return {
      length: editLength(Math.hypot(ax, ay), system),
      turn: square ? (turn > 0 ? "left" : "right") : "other",
      degrees: square ? "" : String(Number(turn.toFixed(2))),
    };
  });
}

const degreesOf = (leg: LegText): number =>
  leg.turn === "left" ? 90 : leg.turn === "right" ? -90 : Number(leg.degrees.trim().replace(",", ".") || "x");

/** The walk to ask about, once every length and turn can be read. */
export function legsRead(legs: LegText[], system: UnitSystem): Schemas["Leg"][] | null {
  const read = legs.map((leg) => ({ length_m: parseLength(leg.length, system), turn_deg: degreesOf(leg) }));
  const whole = read.every(
    (leg) =>
      leg.length_m !== null && leg.length_m >= 0.05 && leg.length_m <= 50 && Math.abs(leg.turn_deg) < 180,
  );
  return whole && legs.length >= 3 ? (read as Schemas["Leg"][]) : null;
}

/** A walk to begin with: round an L. */
export function firstLegs(system: UnitSystem): LegText[] {
  const leg = (metres: number, turn: "left" | "right"): LegText => ({
    length: editLength(metres, system),
    turn,
    degrees: "",
  });
  return [
    leg(4, "left"),
    leg(2, "left"),
    leg(1.5, "right"),
    leg(1.5, "left"),
    leg(2.5, "left"),
    leg(3.5, "left"),
  ];
}
