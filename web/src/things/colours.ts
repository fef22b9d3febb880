// Gels, and colours that a lamp can be set to.
import type { Schemas } from "../api/client";

export const GELS = [
  ["", "none"],
  ["warm-quarter", "quarter orange"],
  ["warm-half", "half orange"],
  ["warm-full", "full orange"],
  ["cool-half", "half blue"],
  ["cool-full", "full blue"],
] as const;

/** Colours that a lamp may be set to instead of white, as CIE 1931 x and y: Fogon's own choice. */
export const COLOURS: readonly (readonly [string, string, number, number])[] = [
  ["red", "red", 0.64, 0.33],
  ["amber", "amber", 0.55, 0.42],
  ["green", "green", 0.3, 0.6],
  ["teal", "teal", 0.2, 0.35],
  ["blue", "blue", 0.17, 0.1],
  ["violet", "violet", 0.26, 0.12],
];

export const colourOf = (colour: Schemas["Light"]["colour"]): string =>
  colour ? (COLOURS.find(([, , x, y]) => x === colour.x && y === colour.y)?.[0] ?? "other") : "";
