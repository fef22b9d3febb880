// What can be taken hold of, and where.
import type { Handle, Move } from "../api/client";

export type Vector = [number, number, number];
export type Grip = NonNullable<Move["grip"]>;

export const sum = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** The point of a thing that a grip holds. */
export function placeOf(handle: Handle, grip: Grip): Vector {
  const [x = 0, y = 0, z = 0] = handle.position_m;
  if (grip === "zoom" && handle.edge_m) return handle.edge_m as Vector;
  if (grip === "aim" && handle.aim_m) return handle.aim_m as Vector;
  if (grip === "foot" && handle.foot_m) return [handle.foot_m[0] ?? x, handle.foot_m[1] ?? y, 0];
  return [x, y, z];
}
