import { expect, test } from "vitest";

import type { Plan } from "../api/client";
import { freeId, inUse, withGear, withoutGear } from "../shelf/gear";
import { wallName, withSurface } from "../room/surfaces";
import { partsThatDiffer, withPart } from "./parts";

const plan = (change: object = {}, schools: object = {}): Plan =>
  ({
    format: "fogon.plan",
    version: 1,
    name: "One",
    brief: { schools, gear: { body: { kind: "camera", label: "Body" } }, room: { surfaces: {} } },
    layout: { seat: 1, camera: { body: "body" }, lights: { key: 1 }, microphone: 1, ...change },
  }) as unknown as Plan;

test("a part of another layout is taken, the rest stays", () => {
  const other = plan({ lights: { key: 2 }, seat: 2 }, { lens: "near-and-wide" });
  expect(partsThatDiffer(plan(), other)).toEqual(["all", "place", "lights"]);
  const lit = withPart(plan(), other, "lights");
  expect(lit.layout.lights).toEqual({ key: 2 });
  expect(lit.layout.seat).toBe(1);
  expect(lit.brief.schools).toEqual({});
  // Whole, it brings the school it follows.
  const whole = withPart(plan(), other, "all");
  expect(whole.layout).toEqual(other.layout);
  expect(whole.brief.schools).toEqual({ lens: "near-and-wide" });
  // What the other has not, goes.
  const without = withPart(plan(), plan({ microphone: undefined }), "microphone");
  expect("microphone" in without.layout).toBe(false);
  expect(partsThatDiffer(plan(), plan())).toEqual([]);
});

test("things come on the shelf and go, and what the layout names stays", () => {
  const more = withGear(plan(), freeId(plan(), "body"), { kind: "camera", label: "Second" });
  expect(Object.keys(more.brief.gear ?? {})).toEqual(["body", "body-2"]);
  expect([inUse(more, "body"), inUse(more, "body-2")]).toEqual([true, false]);
  expect(Object.keys(withoutGear(more, "body-2").brief.gear ?? {})).toEqual(["body"]);
  const told = withGear(more, "body", { battery_wh: 16 });
  expect(told.brief.gear?.body).toMatchObject({ label: "Body", battery_wh: 16 });
  expect(withGear(told, "body", { battery_wh: null }).brief.gear?.body).not.toHaveProperty("battery_wh");
});

test("a wall is told and untold", () => {
  const dressed = withSurface(plan(), "wall-0", { look: "dressed" });
  expect(dressed.brief.room.surfaces).toEqual({ "wall-0": { look: "dressed" } });
  expect(withSurface(dressed, "wall-0", { look: "plain" }).brief.room.surfaces).toEqual({});
  expect([wallName(1, 4), wallName(5, 6)]).toEqual(["Right wall", "Wall f–a"]);
});
