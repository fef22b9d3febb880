import { expect, test } from "vitest";

import type { Gear, Plan } from "../api/client";
import { limits } from "../api/limits";
import { freeId } from "../units/ids";
import { brightness, FIGURES, KINDS, told } from "./figures";
import { changed, figuresSchema, textsOf } from "./figureTexts";
import { inUse, withFigures, withGear, withoutGear, type Shelf } from "./gear";

test("every figure that can be typed has its limits", () => {
  for (const { type, figures } of Object.values(FIGURES))
    for (const { field, type: own } of figures)
      expect(Object.keys(limits), field).toContain(`${own ?? type}.${field}`);
  expect(new Set(KINDS.map(([kind]) => kind)).size).toBe(KINDS.length);
});

test("things are told by the figure that matters", () => {
  const told_of = (gear: object) => told(gear as Gear, "metric");
  expect(told_of({ kind: "lens", focal_min_mm: 16, focal_max_mm: 50 })).toBe("16 to 50 mm");
  expect(told_of({ kind: "lens", focal_min_mm: 35, focal_max_mm: 35 })).toBe("35 mm");
  expect(told_of({ kind: "card", capacity_gb: 128 })).toBe("128 GB");
  expect(told_of({ kind: "backdrop", width_m: 1.8 })).toBe("1.80 m wide");
  expect(told_of({ kind: "cable" })).toBe("");
});

test("a lamp is told by the figure that is trusted most, and lamps are put in order by it", () => {
  const lamp = (figures: object) => ({ kind: "light", ...figures }) as Extract<Gear, { kind: "light" }>;
  const printed = lamp({ illuminance_at_1m_lx: 2600 });
  expect([told(printed, "metric"), brightness(printed)]).toEqual(["2600 lx at 1 m", 2600]);
  const measured = lamp({ illuminance_at_1m_lx: 2600, measured_lx: 500, measured_at_m: 2 });
  expect([told(measured, "metric"), brightness(measured)]).toEqual(["500 lx measured at 2.00 m", 2000]);
  const bare = lamp({ bare_at_1m_lx: 9000, modifier_efficiency: 0.4 });
  expect([told(bare, "metric"), brightness(bare)]).toEqual(["9000 lx at 1 m without modifier", 3600]);
  expect(told(lamp({ flux_lm: 800 }), "metric")).toBe("800 lm");
  expect(told(lamp({ power_w: 60 }), "metric")).toBe("60 W, its light assumed");
});

test("in feet and inches no figure of the shelf is metric but those of lenses", () => {
  const in_feet = (gear: object) => told(gear as Gear, "imperial");
  expect(in_feet({ kind: "support", payload_kg: 5, height_max_m: 2.4 })).toBe("carries 11.0 lb to 7' 10½\"");
  expect(in_feet({ kind: "backdrop", width_m: 1.8 })).toBe("5' 10¾\" wide");
  expect(in_feet({ kind: "treatment", width_m: 1.2, height_m: 0.6 })).toBe("3' 11¼\" × 1' 11½\"");
  expect(in_feet({ kind: "light", illuminance_at_1m_lx: 2600 })).toBe("2600 lx at 3' 3¼\"");
  expect(in_feet({ kind: "light", measured_lx: 500, measured_at_m: 2 })).toBe("500 lx measured at 6' 6¾\"");
  expect(in_feet({ kind: "lens", focal_min_mm: 35, focal_max_mm: 35 })).toBe("35 mm");
});

const SHELF = { body: { kind: "camera", label: "Body" } } as unknown as Shelf;

test("things come on the shelf and go, and what the layout names stays", () => {
  const more = withGear(SHELF, freeId("body", Object.keys(SHELF)), { kind: "camera", label: "Second" });
  expect(Object.keys(more)).toEqual(["body", "body-2"]);
  const plan = { brief: { gear: more }, layout: { camera: { body: "body" } } } as unknown as Plan;
  expect([inUse(plan, "body"), inUse(plan, "body-2")]).toEqual([true, false]);
  expect(Object.keys(withoutGear(more, "body-2"))).toEqual(["body"]);
  const told_of = withGear(more, "body", { battery_wh: 16 });
  expect(told_of.body).toMatchObject({ label: "Body", battery_wh: 16 });
  expect(withGear(told_of, "body", { battery_wh: null }).body).not.toHaveProperty("battery_wh");
});

test("figures that are typed are no longer assumed; those that read as they did are not typed", () => {
  const lamp = {
    kind: "light",
    label: "Lamp",
    width_m: 0.6504,
    height_m: 0.6,
    power_w: 60,
    figures_assumed: true,
  };
  const thing = lamp as unknown as Gear;
  const texts = textsOf(thing, "imperial");
  const read = (more: object) => figuresSchema("light", "imperial").parse({ ...texts, ...more });
  expect(changed(thing, read({}), "imperial")).toEqual({});
  const typed = changed(thing, read({ power_w: "80" }), "imperial");
  expect(typed).toEqual({ power_w: 80 });
  const shelf = withFigures({ lamp: thing }, "lamp", typed);
  expect(shelf.lamp).toEqual({ ...lamp, power_w: 80, figures_assumed: false });
  const problem = figuresSchema("light", "imperial").safeParse({ ...texts, power_w: "none" });
  expect(problem.error?.issues[0]?.path).toEqual(["power_w"]);
});
