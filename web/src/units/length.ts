// Lengths as people type and read them. Metres everywhere else.

export type UnitSystem = "metric" | "imperial";

export const INCH_M = 0.0254;
export const FOOT_M = 0.3048;
/** Kilograms in a pound, exact by the same agreement of 1959 as the inch. */
export const POUND_KG = 0.45359237;

const FRACTIONS: Record<string, number> = {
  "¼": 0.25,
  "½": 0.5,
  "¾": 0.75,
  "⅛": 0.125,
  "⅜": 0.375,
  "⅝": 0.625,
  "⅞": 0.875,
};

/** A number with optional fraction: `9`, `9.5`, `9,5`, `9 1/2`, `9½`, `1/2`. */
function amount(text: string): number | null {
  const trimmed = text.trim();
  const glyph = /^(\d+)?\s*([¼½¾⅛⅜⅝⅞])$/.exec(trimmed);
  if (glyph) return Number(glyph[1] ?? 0) + (FRACTIONS[glyph[2] ?? ""] ?? 0);
  const fraction = /^(?:(\d+)[\s-]+)?(\d+)\/(\d+)$/.exec(trimmed);
  if (fraction) {
    const whole = Number(fraction[1] ?? 0);
    const below = Number(fraction[3]);
    return below > 0 ? whole + Number(fraction[2]) / below : null;
  }
  return /^\d+(?:[.,]\d+)?$|^[.,]\d+$/.test(trimmed) ? Number(trimmed.replace(",", ".")) : null;
}

/**
 * Metres from what a person typed, whatever unit it names: `3.40`, `3,4 m`, `340 cm`, `11' 2"`, `11 ft 2 1/2 in`,
 * `38"`. A bare number is metres or feet by the unit system. Null where it is no length.
 */
export function parseLength(text: string, system: UnitSystem): number | null {
  const clean = text
    .trim()
    .toLowerCase()
    .replaceAll("′", "'")
    .replaceAll("’", "'")
    .replaceAll("″", '"')
    .replaceAll("”", '"')
    .replaceAll("''", '"');
  const sign = /^[-−]/.test(clean) ? -1 : 1;
  const body = clean.replace(/^[-−]\s*/, "");
  if (body === "") return null;
  const feet = /^(.+?)\s*(?:'|ft\.?|feet|foot)\s*(?:(.+?)\s*(?:"|in\.?|inch|inches)?)?$/.exec(body);
  if (feet) {
    const whole = amount(feet[1] ?? "");
    const inches = feet[2] === undefined ? 0 : amount(feet[2]);
    return whole === null || inches === null ? null : sign * (whole * 12 + inches) * INCH_M;
  }
  const unit = /^(.+?)\s*(mm|cm|m|"|in\.?|inch|inches|metres?|meters?)$/.exec(body);
  if (unit) {
    const value = amount(unit[1] ?? "");
    if (value === null) return null;
    const name = unit[2] ?? "m";
    const factor = name === "mm" ? 0.001 : name === "cm" ? 0.01 : name.startsWith("m") ? 1 : INCH_M;
    return sign * value * factor;
  }
  const bare = amount(body);
  return bare === null ? null : sign * bare * (system === "metric" ? 1 : 12 * INCH_M);
}

/** A typed length that reads the same in whatever units come next: a bare number gets the unit it was typed in. */
export const unitTold = (text: string, system: UnitSystem): string =>
  amount(text) === null ? text : `${text.trim()} ${system === "metric" ? "m" : "ft"}`;

/** A length as read: `1.42 m`, or `4' 8¼"` to the quarter inch. */
export function formatLength(metres: number, system: UnitSystem, digits = 2): string {
  if (system === "metric") return `${fixed(metres, digits)} m`;
  const quarters = Math.round((Math.abs(metres) / INCH_M) * 4);
  const sign = metres < 0 && quarters > 0 ? "−" : "";
  const [feet, inches, part] = [Math.floor(quarters / 48), Math.floor((quarters % 48) / 4), quarters % 4];
  const fraction = ["", "¼", "½", "¾"][part] ?? "";
  const small = inches === 0 && fraction !== "" ? fraction : `${inches}${fraction}`;
  return feet === 0 ? `${sign}${small}"` : `${sign}${feet}' ${small}"`;
}

/** A small length as people speak of it: `10 cm`, or inches. */
export const formatGap = (metres: number, system: UnitSystem): string =>
  system === "metric" ? `${fixed(metres * 100, 0)} cm` : formatLength(metres, system);

/** A length to put into a field: enough digits to come back as it was. */
export function editLength(metres: number, system: UnitSystem): string {
  if (system === "imperial") return formatLength(metres, system);
  return `${Number(metres.toFixed(3))} m`;
}

/** A number with fixed decimals and a true minus sign, never "-0". */
export function fixed(value: number, digits: number): string {
  const text = value.toFixed(digits);
  return Number(text) === 0 ? text.replace("-", "") : text.replace("-", "−");
}

/** The same with its sign, also where it is positive. */
export const signed = (value: number, digits: number): string =>
  (value > 0 ? "+" : "") + fixed(value, digits);
