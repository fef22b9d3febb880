// Between a drawing's plane and the room.
import type { View } from "../api/client";
import type { Vector } from "../table/handles";

type Projection = NonNullable<View["projection"]>;

const dot = (a: readonly number[], b: readonly number[]) =>
  (a[0] ?? 0) * (b[0] ?? 0) + (a[1] ?? 0) * (b[1] ?? 0) + (a[2] ?? 0) * (b[2] ?? 0);

/** Where a point of the room is on the drawing. */
export function flat({ origin_m, right, down }: Projection, [x, y, z]: Vector): [number, number] {
  const off = [x - (origin_m[0] ?? 0), y - (origin_m[1] ?? 0), z - (origin_m[2] ?? 0)];
  return [dot(right, off), dot(down, off)];
}

/** The way in the room that a way on the drawing stands for. */
export function along({ right, down }: Projection, x: number, y: number): Vector {
  return [0, 1, 2].map((axis) => (right[axis] ?? 0) * x + (down[axis] ?? 0) * y) as Vector;
}

/** Where a rectangle's back and left wall are on a plan that is turned; nothing where the back wall is at the bottom. */
export function turnedWords({ down, right }: Projection): string | null {
  const side = (x: number, y: number) => {
    const [across, low] = [dot(right, [x, y, 0]), dot(down, [x, y, 0])];
    if (Math.abs(low) > Math.abs(across)) return low > 0 ? "at the bottom" : "at the top";
    return across > 0 ? "on the right" : "on the left";
  };
  const back = side(0, -1);
  return back === "at the bottom" ? null : `back wall ${back}, left wall ${side(-1, 0)}`;
}
