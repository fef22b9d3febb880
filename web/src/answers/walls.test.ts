// Floors that are no rectangles: told as a walk, read back as the same room.
import { readFileSync } from "node:fs";

import { describe, expect, it } from "vitest";

import type { Brief } from "../api/client";
import { isRectangle, wallName, wallNames } from "../table/floor";
import { firstLegs, legsOf, legsRead, roomiest } from "./walls";

const alcove = (JSON.parse(readFileSync("../docs/examples/alcove.brief.json", "utf8")) as { brief: Brief })
  .brief;

describe("a walk round the room", () => {
  it("goes round a floor as it was measured, with its turns", () => {
    const legs = legsOf(alcove.room.floor_m, "metric");
    expect(legs.map((leg) => [leg.length, leg.turn])).toEqual([
      ["4.2 m", "left"],
      ["2.6 m", "left"],
      ["1.5 m", "right"],
      ["1.2 m", "left"],
      ["2.7 m", "left"],
      ["3.8 m", "left"],
    ]);
    // A corner cut off at 45 degrees keeps its angle.
    const cut = legsOf(
      [
        [0, 0],
        [3, 0],
        [3, 2],
        [2, 3],
        [0, 3],
      ],
      "metric",
    );
    expect(cut.map((leg) => leg.degrees)).toEqual(["", "45", "45", "", ""]);
  });

  it("is asked about once every wall can be read, in either tape", () => {
    const legs = firstLegs("imperial");
    expect(legsRead(legs, "imperial")?.reduce((sum, leg) => sum + leg.turn_deg, 0)).toBe(360);
    const with_ = (length: string) => legs.map((leg, i) => (i === 2 ? { ...leg, length } : leg));
    expect(legsRead(with_("1.5 m"), "imperial")?.[2]?.length_m).toBe(1.5);
    expect(legsRead(with_("far"), "imperial")).toBeNull();
    expect(legsRead(with_("90 m"), "imperial")).toBeNull();
    expect(legsRead(legs.slice(0, 2), "imperial")).toBeNull();
    const odd = legs.map((leg, i) => (i === 0 ? { ...leg, turn: "other" as const, degrees: "" } : leg));
    expect(legsRead(odd, "imperial")).toBeNull();
  });

  it("has its roomiest place in its wider part", () => {
    const [x, y] = roomiest(alcove.room.floor_m);
    expect([x, y]).toEqual([expect.closeTo(1.4, 0), expect.closeTo(1.6, 0)]);
    const square = roomiest([
      [0, 0],
      [3, 0],
      [3, 2],
      [0, 2],
    ]);
    expect(square).toEqual([1.5, 1]);
  });

  it("names walls by their side in a rectangle, else by their corners", () => {
    expect(wallNames(4, true).map(([, name]) => name)).toEqual(["back", "right", "front", "left"]);
    expect(wallNames(6, false)[5]).toEqual(["5", "f–a"]);
    expect(isRectangle(alcove.room.floor_m)).toBe(false);
    expect(wallName(alcove.room.floor_m, 4)).toBe("wall e–f");
  });
});
