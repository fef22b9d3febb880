// Readings as people read them.
import { describe, expect, it } from "vitest";

import type { Reading } from "../api/client";
import { goodRange, sentence, shown } from "./show";

describe("values", () => {
  it.each([
    [1.7249, "m", "metric", "1.72 m"],
    [1.7249, "m", "imperial", "5' 8\""],
    [0.0064, "m", "imperial", '¼"'],
    [989.4, "lx", "metric", "989 lx"],
    [39.99, "°", "metric", "40 °"],
    [0.014, "stops", "metric", "0.0 stops"],
    [-0.4, "stops", "metric", "−0.4 stops"],
    [-0.001, "stops", "metric", "0.0 stops"],
    [0.5, "s", "metric", "0.50 s"],
    [234.7, "", "metric", "235"],
    [0.133, "", "metric", "0.13"],
    [null, "m", "metric", "–"],
  ] as const)("%s %s in %s is %s", (value, unit, units, words) => {
    expect(sentence(value, unit, units)).toBe(words);
  });

  it("stand apart from their unit, so that the numeral can be large", () => {
    expect(shown(1.2, "m", "metric")).toEqual({ numeral: "1.20", unit: "m" });
    expect(shown(undefined, "dB", "metric")).toEqual({ numeral: "–", unit: "" });
  });
});

describe("the good range", () => {
  const reading = (band: (number | null)[] | null, unit = "m") => ({ band, unit }) as unknown as Reading;
  it.each([
    [[0.9, 1.3, 2.5, 4], "good from 1.30 m to 2.50 m"],
    [[0.5, 1, null, null], "good from 1.00 m"],
    [[null, null, 0.8, 1], "good up to 0.80 m"],
    [null, "for information"],
  ])("of %j is %s", (band, words) => {
    expect(goodRange(reading(band), "metric")).toBe(words);
  });
});
