// How readings are written for people.
import type { Reading } from "../api/client";
import { fixed, formatLength, type UnitSystem } from "../units/length";

/** Decimals that a unit deserves. */
function digitsOf(unit: string): number {
  if (unit === "lx" || unit === "°" || unit === "") return unit === "" ? 2 : 0;
  return unit === "s" ? 2 : 1;
}

/** A value with its unit, apart, so that the numeral can stand large. */
export function shown(
  value: number | null | undefined,
  unit: string,
  units: UnitSystem,
): { numeral: string; unit: string } {
  if (value === null || value === undefined) return { numeral: "–", unit: "" };
  if (unit === "m") {
    if (units === "imperial") return { numeral: formatLength(value, units), unit: "" };
    return { numeral: fixed(value, 2), unit: "m" };
  }
  if (unit === "" && Math.abs(value) >= 100) return { numeral: fixed(value, 0), unit: "" };
  return { numeral: fixed(value, digitsOf(unit)), unit };
}

export function sentence(value: number | null | undefined, unit: string, units: UnitSystem): string {
  const parts = shown(value, unit, units);
  return parts.unit === "" ? parts.numeral : `${parts.numeral} ${parts.unit}`;
}

/** The good range of a band, in words. */
export function goodRange(reading: Reading, units: UnitSystem): string {
  const [, low, high] = reading.band ?? [];
  const text = (v: number | null | undefined) =>
    v === null || v === undefined ? null : sentence(v, reading.unit, units);
  const [a, b] = [text(low), text(high)];
  if (a !== null && b !== null) return `good from ${a} to ${b}`;
  if (a !== null) return `good from ${a}`;
  return b !== null ? `good up to ${b}` : "for information";
}

export const STANDING_WORDS = { good: "good", fair: "fair", poor: "poor", plain: "" } as const;
export const STANDING_MARKS = { good: "✓", fair: "○", poor: "▲", plain: "" } as const;
