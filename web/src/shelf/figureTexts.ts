// Figures of gear as texts, and what texts stand for, by the limits of their kind.
import { z } from "zod";

import type { Gear } from "../api/client";
import { limits } from "../api/limits";
import { readers, type Range } from "../units/typed";
import { editLength, POUND_KG, type UnitSystem } from "../units/length";
import { FIGURES, type Figure, type Kind } from "./figures";

export type FigureTexts = Record<string, string>;

/** What a lamp may carry; how much light it lets out and how it warms it follow. */
export const MODIFIERS = [
  ["", "not given"],
  ["bare", "none, or its reflector"],
  ["softbox", "softbox, one layer"],
  ["double-softbox", "softbox, two layers"],
  ["grid-softbox", "softbox with a grid"],
  ["globe", "globe"],
  ["white-umbrella", "white umbrella"],
  ["silver-umbrella", "silver umbrella"],
  ["shoot-through-umbrella", "shoot-through umbrella"],
] as const;

const rangeOf = (kind: Kind, { field, type }: Figure): Range =>
  (limits as Record<string, Range>)[`${type ?? FIGURES[kind]?.type ?? ""}.${field}`] ?? [0, 1e9];

/** A figure in the unit that people read it in, over the unit that it is kept in. */
const factor = (unit: string, units: UnitSystem) => (unit === "kg" && units === "imperial" ? POUND_KG : 1);

export function textsOf(thing: Gear, units: UnitSystem): FigureTexts {
  const values = thing as unknown as Record<string, number | null | undefined>;
  const write = ({ field, unit, digits = 1 }: Figure) => {
    const value = values[field];
    if (value === null || value === undefined) return "";
    if (unit === "m") return editLength(value, units);
    return String(Number((value / factor(unit, units)).toFixed(digits)));
  };
  return Object.fromEntries(
    (FIGURES[thing.kind]?.figures ?? []).map((figure) => [figure.field, write(figure)]),
  );
}

export function figuresSchema(
  kind: Kind,
  units: UnitSystem,
): z.ZodType<Record<string, number | null>, FigureTexts> {
  const { length, optionalLength, number, optionalNumber } = readers({ units, lenient: false });
  const schema = (figure: Figure) => {
    const range = rangeOf(kind, figure);
    const optional = figure.without !== undefined;
    if (figure.unit === "m") return optional ? optionalLength(range) : length(range);
    const times = factor(figure.unit, units);
    const scaled: Range = [range[0] / times, range[1] / times];
    return optional ? optionalNumber(scaled) : number(scaled);
  };
  const shape = Object.fromEntries(
    (FIGURES[kind]?.figures ?? []).map((figure) => [figure.field, schema(figure)]),
  );
  return z.object(shape);
}

/** The figures that were typed anew: not those that read as they did. */
export function changed(
  thing: Gear,
  read: Record<string, number | null>,
  units: UnitSystem,
): Record<string, number | null> {
  const before = figuresSchema(thing.kind, units).safeParse(textsOf(thing, units));
  const figures = FIGURES[thing.kind]?.figures ?? [];
  return Object.fromEntries(
    figures.flatMap(({ field, unit }) => {
      const value = read[field] ?? null;
      if (before.success && before.data[field] === value) return [];
      return [[field, value === null ? null : value * factor(unit, units)]];
    }),
  );
}
