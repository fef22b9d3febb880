import { expect, test } from "vitest";

import type { Gear } from "../api/client";
import { limits } from "../api/limits";
import { FIGURES, KINDS, told } from "./figures";

test("every figure that can be typed has its limits", () => {
  for (const { type, figures } of Object.values(FIGURES))
    for (const { field } of figures)
      expect(Object.keys(limits), `${type}.${field}`).toContain(`${type}.${field}`);
  expect(new Set(KINDS.map(([kind]) => kind)).size).toBe(KINDS.length);
});

test("things are told by the figure that matters", () => {
  const told_of = (gear: object) => told(gear as Gear);
  expect(told_of({ kind: "lens", focal_min_mm: 16, focal_max_mm: 50 })).toBe("16 to 50 mm");
  expect(told_of({ kind: "lens", focal_min_mm: 35, focal_max_mm: 35 })).toBe("35 mm");
  expect(told_of({ kind: "card", capacity_gb: 128 })).toBe("128 GB");
  expect(told_of({ kind: "backdrop", width_m: 1.8 })).toBe("1.80 m wide");
  expect(told_of({ kind: "cable" })).toBe("");
});
