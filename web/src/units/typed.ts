// Texts as lengths and numbers: what cannot be read is said in words, with what is accepted. Leniently read, it counts as 0, for
// a sketch of what is typed so far.
import { z } from "zod";

import { limits } from "../api/limits";
import { formatLength, parseLength, type UnitSystem } from "./length";

export type Range = readonly [number, number];

// Schemas are read, not compiled: the page lets no text run as script.
z.config({ jitless: true });

/** Least and greatest that the server accepts for a field. */
export const within = (name: keyof typeof limits): Range => limits[name];
/** A side of a room, and a place in it, m. */
export const SIDE: Range = [0.5, 50];
export const PLACE: Range = [0, 50];

/** Finer than any tape, m. */
const DIGITS = 4;

export interface Reading {
  units: UnitSystem;
  /** What cannot be read counts as 0. */
  lenient: boolean;
}

type Said = { value: number } | { problem: string };

function readLength(text: string, [least, most]: Range, units: UnitSystem): Said {
  const words = `${formatLength(least, units)} to ${formatLength(most, units)}`;
  if (text === "") return { problem: `Give a length, ${words}.` };
  const metres = parseLength(text, units);
  if (metres === null) return { problem: `“${text}” is not a length. Type 3.40 m, 340 cm or 11' 2".` };
  if (metres < least || metres > most) return { problem: `${text} is not accepted: give ${words}.` };
  return { value: Number(metres.toFixed(DIGITS)) };
}

function readNumber(text: string, [least, most]: Range): Said {
  const typed = text.replace(",", ".");
  const value = Number(typed);
  if (typed === "" || !Number.isFinite(value))
    return { problem: `Give a number, ${String(least)} to ${String(most)}.` };
  if (value < least || value > most)
    return { problem: `${typed} is not accepted: give ${String(least)} to ${String(most)}.` };
  return { value };
}

/** What texts of a form stand for. */
export function readers({ units, lenient }: Reading) {
  const text = z.string().transform((typed) => typed.trim());
  const read = (how: (typed: string) => Said) =>
    text.transform((typed, context) => {
      const said = how(typed);
      if ("value" in said) return said.value;
      if (!lenient) context.addIssue({ code: "custom", message: said.problem });
      return 0;
    });
  const optional = (how: (typed: string) => Said) =>
    text.transform((typed, context) => {
      if (typed === "") return null;
      const said = how(typed);
      if ("value" in said) return said.value;
      if (!lenient) context.addIssue({ code: "custom", message: said.problem });
      return null;
    });
  return {
    text,
    length: (range: Range) => read((typed) => readLength(typed, range, units)),
    optionalLength: (range: Range) => optional((typed) => readLength(typed, range, units)),
    number: (range: Range) => read((typed) => readNumber(typed, range)),
    optionalNumber: (range: Range) => optional((typed) => readNumber(typed, range)),
  };
}
