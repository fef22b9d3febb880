import { describe, expect, it } from "vitest";

import { editLength, formatLength, INCH_M, parseLength } from "./length";

describe("lengths as people type them", () => {
  it("reads either system whatever the corner's own is", () => {
    const same: [string, number][] = [
      ["3.40", 3.4],
      ["3,4 m", 3.4],
      ["340 cm", 3.4],
      ["3400mm", 3.4],
      ["11' 2\"", 3.4036],
      ["11′2″", 3.4036],
      ["11 ft 2 in", 3.4036],
      ["11ft", 3.3528],
      ["9' 6 1/2\"", 2.9083],
      ["9' 6½\"", 2.9083],
      ['38"', 0.9652],
      ["½ in", 0.0127],
      ["9.5'", 2.8956],
    ];
    for (const [text, metres] of same) expect(parseLength(text, "metric"), text).toBeCloseTo(metres, 9);
    expect(parseLength("8", "imperial")).toBeCloseTo(2.4384, 9);
  });

  it("says no to what is no length", () => {
    for (const text of ["", "wide", "3.4.5", "3 m 2", "1/0 in", "NaN", "1e3", "'"]) {
      expect(parseLength(text, "metric"), text).toBeNull();
    }
  });

  // One tape, two systems: what is written in inches reads back within half a quarter inch.
  it("agrees with itself in both systems", () => {
    for (let mm = 0; mm <= 12_000; mm += 7) {
      const metres = mm / 1000;
      expect(parseLength(editLength(metres, "metric"), "imperial")).toBeCloseTo(metres, 9);
      const back = parseLength(formatLength(metres, "imperial"), "metric");
      expect(Math.abs((back ?? Infinity) - metres)).toBeLessThanOrEqual(0.0254 / 8 + 1e-9);
    }
  });
});

describe("whatever is written is read back", () => {
  it("in both systems, to the precision written", () => {
    for (let step = 0; step < 400; step += 1) {
      const metres = 0.01 + step * 0.0173;
      const metric = parseLength(formatLength(metres, "metric"), "imperial");
      expect(Math.abs((metric ?? 0) - metres)).toBeLessThanOrEqual(0.005 + 1e-9);
      const imperial = parseLength(formatLength(metres, "imperial"), "metric");
      expect(Math.abs((imperial ?? 0) - metres)).toBeLessThanOrEqual(0.125 * INCH_M + 1e-9);
      const edited = parseLength(editLength(metres, "metric"), "imperial");
      expect(Math.abs((edited ?? 0) - metres)).toBeLessThanOrEqual(0.0005 + 1e-9);
    }
  });

  it.each(["", " ", "m", "3.4.5", "3 4", "1/0", "ten", "3 m 4", "--3", "3'4'5", "∞", "1e3"])(
    "“%s” is no length",
    (text) => {
      expect(parseLength(text, "metric")).toBeNull();
    },
  );
});
