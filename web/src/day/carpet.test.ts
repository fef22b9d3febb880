import { describe, expect, test } from "vitest";

import type { Schemas } from "../api/client";
import { LAYERS, onDay, pathOf } from "./carpet";

type Day = Schemas["YearDay"];

const day = (change: Partial<Day>): Day => ({
  date: "2026-11-28",
  up: [],
  golden: [],
  on_face: [],
  in_lens: [],
  behind: [],
  light: [],
  noisy: [],
  ...change,
});

describe("the year", () => {
  test("draws each stretch as a bar of its day", () => {
    const days = [
      day({ light: [{ from_min: 480, to_min: 720 }] }),
      day({ light: [] }),
      day({ light: [{ from_min: 0, to_min: 1440 }] }),
    ];
    // A minute a unit, a day two wide.
    const path = pathOf(
      days,
      ({ light }) => light,
      2,
      (minute) => minute,
    );
    expect(path).toBe("M0.0 480.0h2.00v240.0h-2.00zM4.0 0.0h2.00v1440.0h-2.00z");
  });

  test("tells a day in words", () => {
    expect(onDay(day({}))).toBe("28 November: no light that holds.");
    const told = onDay(
      day({
        light: [
          { from_min: 505, to_min: 730 },
          { from_min: 794, to_min: 1440 },
        ],
        on_face: [{ from_min: 944, to_min: 1055 }],
      }),
    );
    expect(told).toBe("28 November: light holds 08:25–12:10, 13:14–24:00; sun in your eyes 15:44–17:35.");
  });

  test("no two layers look alike without colour", () => {
    const marks = LAYERS.map(({ mark }) => mark.path ?? "none");
    expect(new Set(marks).size).toBe(LAYERS.length);
  });
});
