// What was not typed anew is kept to the last digit, wherever it lies.
import { describe, expect, it } from "vitest";

import type { Brief } from "../api/client";
import { keepExact } from "./exact";

const brief = (room: object, gear: object = {}, rest: object = {}) =>
  ({ room, gear, person: {}, purpose: "talk-to-lens", ...rest }) as unknown as Brief;

describe("a form that shows lengths rounded", () => {
  const before = brief({
    floor_m: [
      [0, 0],
      [3.4036, 0],
      [3.4036, 2.8956],
    ],
    height_m: 2.4384,
  });
  // As the form reads its own texts back.
  const untouched = brief({
    floor_m: [
      [0, 0],
      [3.4, 0],
      [3.4, 2.9],
    ],
    height_m: 2.44,
  });

  it("writes nothing back that was not typed", () => {
    expect(keepExact(structuredClone(untouched), untouched, before)).toEqual(before);
  });

  it("takes what was typed and nothing beside it", () => {
    const typed = structuredClone(untouched);
    typed.room.height_m = 2.5;
    expect(keepExact(typed, untouched, before).room).toEqual({ ...before.room, height_m: 2.5 });
    const wider = structuredClone(untouched);
    wider.room.floor_m = [
      [0, 0],
      [4, 0],
      [4, 2.9],
    ] as typeof wider.room.floor_m;
    // Each corner by itself: the depth stays exact.
    expect(keepExact(wider, untouched, before).room.floor_m).toEqual([
      [0, 0],
      [4, 0],
      [4, 2.8956],
    ]);
  });

  it("takes another count of corners whole", () => {
    const typed = structuredClone(untouched);
    typed.room.floor_m = [
      [0, 0],
      [3, 0],
      [3, 2],
      [0, 2],
    ] as typeof typed.room.floor_m;
    expect(keepExact(typed, untouched, before).room.floor_m).toEqual(typed.room.floor_m);
  });

  it("keeps fields that it does not show, and drops what was taken out", () => {
    const rich = brief({ ...before.room, openings: { door: { wall: 1, note: "sticks" } } });
    const shown = brief({ ...untouched.room, openings: { door: { wall: 1 } } });
    expect(keepExact(structuredClone(shown), shown, rich).room).toEqual(rich.room);
    const without = brief({ ...untouched.room, openings: {} });
    expect(keepExact(without, shown, rich).room.openings).toEqual({});
  });
});

describe("figures that were assumed", () => {
  const lamp = (figures: object) => ({ lamp: { kind: "light", label: "Lamp", ...figures } });
  const before = brief({}, lamp({ power_w: 60.4, figures_assumed: true }));
  const untouched = brief({}, lamp({ power_w: 60, figures_assumed: true }));

  it("stay assumed while nothing of that thing is typed", () => {
    const kept = keepExact(structuredClone(untouched), untouched, before);
    expect(kept.gear).toEqual(before.gear);
  });

  it("are known once one of them is", () => {
    const typed = brief({}, lamp({ power_w: 80, figures_assumed: true }));
    expect(keepExact(typed, untouched, before).gear?.lamp).toMatchObject({
      power_w: 80,
      figures_assumed: false,
    });
  });

  it("of other things stay as they were", () => {
    const two = (watts: number) =>
      brief(
        {},
        {
          ...lamp({ power_w: watts, figures_assumed: true }),
          board: { kind: "reflector", figures_assumed: true },
        },
      );
    const kept = keepExact(two(80), two(60), two(60.4));
    expect(kept.gear?.board).toEqual({ kind: "reflector", figures_assumed: true });
  });
});
