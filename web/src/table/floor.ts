// The floor's outline in words.
import type { Schemas } from "../api/client";

export type Floor = Schemas["Room"]["floor_m"];

export const LETTERS = "abcdefghijkl";
const SIDES = ["back", "right", "front", "left"];

/** Corners of a rectangle may be measured so far off, m. */
const SQUARE_M = 0.02;

/** How far a room reaches along the back wall, away from it, and up, m. */
export function reachOf(room: Schemas["Room"]): [number, number, number] {
  const along = (axis: number) => Math.max(...room.floor_m.map((corner) => corner[axis] ?? 0));
  return [along(0), along(1), room.height_m];
}

export function isRectangle(floor: Floor): boolean {
  const [width = 0, depth = 0] = floor[2] ?? [];
  const square = [
    [0, 0],
    [width, 0],
    [width, depth],
    [0, depth],
  ];
  return (
    floor.length === 4 &&
    floor.every((p, i) => p.every((v, axis) => Math.abs(v - (square[i]?.[axis] ?? 0)) < SQUARE_M))
  );
}

/** The walls by name: of a rectangle by their sides, else by the letters of their corners. */
export function wallNames(corners: number, rectangle: boolean): [string, string][] {
  return Array.from({ length: corners }, (_, wall) => [
    String(wall),
    (rectangle ? SIDES[wall] : undefined) ?? `${LETTERS[wall] ?? ""}–${LETTERS[(wall + 1) % corners] ?? ""}`,
  ]);
}

/** A wall as it is spoken of: "back wall", or "wall a–b". */
export function wallName(floor: Floor, wall: number): string {
  const rectangle = isRectangle(floor);
  const name = wallNames(floor.length, rectangle)[wall]?.[1] ?? "";
  return rectangle ? `${name} wall` : `wall ${name}`;
}
