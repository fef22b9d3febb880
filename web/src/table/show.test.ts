// Readings as people read them.
import { describe, expect, it } from "vitest";

import type { Reading } from "../api/client";
import { changed, goodRange, inputWords, sentence, shown } from "./show";

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
    [235.92, "s", "metric", "3 min 56 s"],
    [234.7, "", "metric", "235"],
    [0.133, "", "metric", "0.13"],
    [null, "m", "metric", "–"],
    [10, "kg", "imperial", "22.0 lb"],
    [7.2, "m²", "imperial", "78 sq ft"],
    [6, "°C", "imperial", "11 °F"],
    [3.1, "mm", "imperial", "0.12 in"],
    [5600, "K", "imperial", "5600 K"],
  ] as const)("%s %s in %s is %s", (value, unit, units, words) => {
    expect(sentence(value, unit, units)).toBe(words);
  });

  it("that are parts of a whole are told in percent", () => {
    expect(sentence(0.133, "", "metric", "shot.frame.headroom_fraction")).toBe("13 %");
    expect(sentence(-0.17, "", "metric", "shot.frame.eye_line_error")).toBe("−17 %");
    expect(sentence(0.92, "", "metric", "sound.microphone.speech_transmission_index")).toBe("0.92");
  });

  it("stand apart from their unit, so that the numeral can be large", () => {
    expect(shown(1.2, "m", "metric")).toEqual({ numeral: "1.20", unit: "m" });
    expect(shown(undefined, "dB", "metric")).toEqual({ numeral: "–", unit: "" });
  });
});

describe("feet and inches", () => {
  it("leave lenses and sensors in millimetres", () => {
    expect(sentence(35, "mm", "imperial", "shot.lens.equivalent_mm")).toBe("35.0 mm");
    expect(sentence(35, "mm", "imperial", "light.key.nose_shadow_mm")).toBe("1.38 in");
    expect(inputWords(23.5, "mm", "imperial", "shot.lens.equivalent_mm")).toBe("23.500 mm");
    expect(inputWords(10, "kg", "imperial", "room.key.sandbag_kg")).toBe("22.0 lb");
    expect(inputWords(10, "kg", "metric", "room.key.sandbag_kg")).toBe("10.000 kg");
    expect(inputWords(3.1, "m", "imperial", "shot.camera.distance_m")).toBe("10' 2\"");
  });
});

describe("a change", () => {
  const of = (from: number | null, to: number) =>
    changed({ reading: "room.key.sandbag_kg", label: "Sandbag needed: key", from, to, unit: "kg" }, "metric");
  it("is told where it can be seen", () => {
    expect(of(5.61, 6.6)).toBe("Sandbag needed, key: 5.6 kg → 6.6 kg");
    expect(of(null, 6.6)).toBe("Sandbag needed, key: – → 6.6 kg");
    expect(of(5.61, 5.62)).toBeNull();
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
