// How readings are written for people.
import type { Reading, Schemas } from "../api/client";
import { fixed, FOOT_M, formatLength, INCH_M, POUND_KG, type UnitSystem } from "../units/length";
import { spent } from "../units/time";

/** Decimals that a unit deserves. */
function digitsOf(unit: string): number {
  if (unit === "K" || unit === "Hz" || unit === "lx" || unit === "°" || unit === "")
    return unit === "" ? 2 : 0;
  return unit === "s" ? 2 : 1;
}

/** Units that are told in others where lengths are feet and inches. */
const IN_IMPERIAL: Record<string, { times: number; unit: string; digits: number }> = {
  kg: { times: 1 / POUND_KG, unit: "lb", digits: 1 },
  "m²": { times: 1 / FOOT_M ** 2, unit: "sq ft", digits: 0 },
  "m³": { times: 1 / FOOT_M ** 3, unit: "cu ft", digits: 0 },
  "°C": { times: 1.8, unit: "°F", digits: 0 },
  mm: { times: 0.001 / INCH_M, unit: "in", digits: 2 },
};

/** Readings that are a part of a whole: told in percent. */
export const isPart = (of: string): boolean => of.endsWith("_fraction") || of === "shot.frame.eye_line_error";

/**
 * A value with its unit, apart, so that the numeral can stand large. `of` is the reading that it belongs to: lenses and
 * sensors are told in millimetres everywhere.
 */
export function shown(
  value: number | null | undefined,
  unit: string,
  units: UnitSystem,
  of = "",
): { numeral: string; unit: string } {
  if (value === null || value === undefined) return { numeral: "–", unit: "" };
  if (isPart(of)) return { numeral: fixed(100 * value, 0), unit: "%" };
  const other = units === "imperial" && !of.startsWith("shot.lens.") ? IN_IMPERIAL[unit] : undefined;
  if (other) return { numeral: fixed(value * other.times, other.digits), unit: other.unit };
  if (unit === "m") {
    if (units === "imperial") return { numeral: formatLength(value, units), unit: "" };
    return { numeral: fixed(value, 2), unit: "m" };
  }
  if (unit === "s" && value >= 60) return { numeral: spent(value), unit: "" };
  // What has no unit and is whole is a count.
  if (unit === "" && (Number.isInteger(value) || Math.abs(value) >= 100))
    return { numeral: fixed(value, 0), unit: "" };
  return { numeral: fixed(value, digitsOf(unit)), unit };
}

export function sentence(value: number | null | undefined, unit: string, units: UnitSystem, of = ""): string {
  const parts = shown(value, unit, units, of);
  return parts.unit === "" ? parts.numeral : `${parts.numeral} ${parts.unit}`;
}

/** A reading before and after, `Light at the face: 985 lx → 1407 lx`; null where both are written alike. */
export function changed(change: Schemas["Change"], units: UnitSystem): string | null {
  const [from, to] = [change.from, change.to].map((value) =>
    sentence(value, change.unit, units, change.reading),
  );
  return from === to ? null : `${change.label.replace(": ", ", ")}: ${from ?? ""} → ${to ?? ""}`;
}

/** An input of a working: figures of the camera stay in millimetres. */
export function inputWords(value: number, unit: string, units: UnitSystem, of: string): string {
  const ofCamera = unit === "mm" && of.startsWith("shot.");
  if (unit === "m" || (units === "imperial" && unit in IN_IMPERIAL && !ofCamera))
    return sentence(value, unit, units);
  return `${fixed(value, Math.abs(value) >= 100 ? 0 : 3)} ${unit}`.trim();
}

/** The good range of a band, in words. */
export function goodRange(reading: Reading, units: UnitSystem): string {
  const [, low, high] = reading.band ?? [];
  const text = (v: number | null | undefined) =>
    v === null || v === undefined ? null : sentence(v, reading.unit, units, reading.id);
  const [a, b] = [text(low), text(high)];
  if (a !== null && b !== null) return `good from ${a} to ${b}`;
  if (a !== null) return `good from ${a}`;
  return b !== null ? `good up to ${b}` : "for information";
}

export const STANDING_WORDS = { good: "good", fair: "fair", poor: "poor", plain: "" } as const;
export const STANDING_MARKS = { good: "✓", fair: "○", poor: "▲", plain: "" } as const;
