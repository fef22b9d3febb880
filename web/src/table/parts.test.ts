import { expect, test } from "vitest";

import type { Plan } from "../api/client";
import { wallName } from "./floor";
import { heldBy, partsThatDiffer, withPart, withThing } from "./parts";
import { withSurface } from "./surfaces";

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

test("screen, backdrop, angles and what hangs are told apart and taken along", () => {
  const more = {
    screen: { gear: "s", position_m: [1, 2, 1] },
    backdrop: { gear: "b", position_m: [1, 0] },
    angles: { side: { body: "a", position_m: [1, 1, 2] } },
    treatment: { wool: { gear: "w", on: "wall-1", position_m: [4, 2, 1.4] } },
    furniture: { desk: { position_m: [1, 1, 0] } },
  };
  expect(partsThatDiffer(plan(), plan(more))).toEqual(["all", "place", "screen", "angles", "treatment"]);
  // Nothing hung and an empty list of hung things are the same.
  expect(partsThatDiffer(plan({ treatment: {}, angles: {} }), plan())).toEqual([]);
  for (const part of ["screen", "angles", "treatment"] as const) {
    const taken = withPart(plan(), plan(more), part);
    expect(taken.layout).toMatchObject({ [part]: more[part] });
    expect(partsThatDiffer(taken, plan())).toEqual(["all", part]);
    expect(withPart(taken, plan(), part).layout).toEqual(plan().layout);
  }
  expect(withPart(plan(), plan(more), "all").layout).toEqual(plan(more).layout);
});

test("a lock holds a thing wherever it lies in the layout", () => {
  const locked = { gear: "w", on: "wall-1", position_m: [4, 2, 1.4], locked: true };
  const own = plan({ treatment: { wool: locked }, lights: {}, seat: {}, camera: {}, microphone: {} });
  expect(heldBy(own, own.layout)).toBeNull();
  expect(heldBy(own, { ...own.layout, treatment: {} })).toBe("the wool");
  const slid = { ...locked, position_m: [4, 2.2, 1.4] };
  expect(heldBy(own, { ...own.layout, treatment: { wool: slid } })).toBe("the wool");
  // How it is set is not where it stands.
  const note = { ...locked, note: "dusty" };
  expect(heldBy(own, { ...own.layout, treatment: { wool: note } })).toBeNull();
});

test("things that are called alike are told apart", () => {
  const lamp = { gear: "l", position_m: [1, 1, 2], locked: true };
  const own = plan({
    lights: { key: lamp },
    furniture: { key: { position_m: [3, 3, 0] } },
    seat: {},
    camera: {},
    microphone: {},
  });
  expect(heldBy(own, own.layout)).toBeNull();
  const moved = { key: { ...lamp, position_m: [1.5, 1, 2] } };
  expect(heldBy(own, { ...own.layout, lights: moved } as unknown as Plan["layout"])).toBe("the key");
});

test("a thing is changed where its pointer leads, and nowhere else", () => {
  const own = plan({ lights: { key: { dim: 1 }, fill: { dim: 0.2 } } });
  const dimmed = withThing(own, "/lights/key", { dim: 0.5 });
  expect(dimmed.layout.lights).toEqual({ key: { dim: 0.5 }, fill: { dim: 0.2 } });
  expect(withThing(own, "/camera", { iso: 400 }).layout.camera).toEqual({ body: "body", iso: 400 });
  expect(withThing(own, "/piano/key", { dim: 0 })).toBe(own);
});

test("a wall is told and untold", () => {
  const dressed = withSurface(plan(), "wall-0", { look: "dressed" });
  expect(dressed.brief.room.surfaces).toEqual({ "wall-0": { look: "dressed" } });
  expect(withSurface(dressed, "wall-0", { look: "plain" }).brief.room.surfaces).toEqual({});
  const square = [
    [0, 0],
    [3, 0],
    [3, 2],
    [0, 2],
  ];
  expect(wallName(square, 1)).toBe("right wall");
});
