// The windows of a room and what is done about them.
import type { Brief, Plan, Schemas } from "../api/client";

export const GLAZINGS = [
  ["", "double glazing assumed"],
  ["single", "single glazing"],
  ["double", "double glazing"],
  ["leaky", "does not close well"],
  ["tilted", "tilted open"],
] as const;

/** What stands in while a window is not measured whole. */
export const USUAL = { height_m: 1.2, sill_m: 0.9 };

export const windowsOf = ({ brief }: Plan): [string, Schemas["Opening"]][] =>
  Object.entries(brief.room.openings ?? {}).filter(([, opening]) => opening.kind === "window");

/** Whether the windows count as lamps: where one is the key, or nothing else shines. */
export const windowsShine = ({ schools }: Brief): boolean =>
  schools?.window === "key" || schools?.lights === "window-only";
