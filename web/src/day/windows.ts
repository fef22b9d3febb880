// The windows of a room and what is done about them.
import type { Brief, Plan, Schemas } from "../api/client";

export const GLAZINGS = [
  ["", "double glazing assumed"],
  ["single", "single glazing"],
  ["double", "double glazing"],
  ["leaky", "does not close well"],
  ["tilted", "tilted open"],
] as const;

export const CURTAINS = [
  ["", "none"],
  ["white", "white, drawn: half the light"],
  ["dark", "dark, drawn: no light"],
] as const;

/** What stands in while a window is not measured whole. */
export const USUAL = { height_m: 1.2, sill_m: 0.9, reveal_m: 0.1 };

export const windowsOf = ({ brief }: Plan): [string, Schemas["Opening"]][] =>
  Object.entries(brief.room.openings ?? {}).filter(([, opening]) => opening.kind === "window");

/** Whether the windows count as lamps: where one is the key, or nothing else shines. */
export const windowsShine = ({ schools }: Brief): boolean =>
  schools?.window === "key" || schools?.lights === "window-only";

/** Bearing in the plan, degrees clockwise from away from the back wall, to which a wall looks. */
function outwards(floor: readonly (readonly number[])[], wall: number): number {
  const [ax = 0, ay = 0] = floor[wall] ?? [];
  const [bx = 0, by = 0] = floor[(wall + 1) % floor.length] ?? [];
  // The room lies to the left of its walls.
  return (Math.atan2(by - ay, -(bx - ax)) * 180) / Math.PI;
}

export const turn = (degrees: number) => ((degrees % 360) + 360) % 360;

/** The true bearing to which a wall looks where north has a bearing in the plan. */
export const bearingOfWall = (floor: readonly (readonly number[])[], wall: number, north: number): number =>
  Math.round(turn(outwards(floor, wall) - north) * 10) / 10;

/** The bearing of north in the plan where a wall looks to a true bearing. */
export const northFor = (floor: readonly (readonly number[])[], wall: number, bearing: number): number =>
  Math.round(turn(outwards(floor, wall) - bearing) * 10) / 10;
