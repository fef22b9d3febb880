// Doors and windows: usual ones to begin with, read and written back as typed, what is not shown kept.
import { describe, expect, it } from "vitest";

import type { Schemas } from "../api/client";
import { MOST_OPENINGS, newOpening, openingsOf, openingsTyped, type OpeningDraft } from "./openings";
import { Reader } from "./reader";

const read = (openings: OpeningDraft[], known: Record<string, Schemas["Opening"]> = {}, units = "metric") => {
  const reader = new Reader({ units });
  return { made: openingsOf(openings, reader, known), problems: reader.problems };
};

describe("a new opening", () => {
  it("is a sound one in either system, in a wall that has none", () => {
    for (const units of ["metric", "imperial"] as const) {
      const all: OpeningDraft[] = [];
      for (let i = 0; i < 4; i += 1) all.push(newOpening(i % 2 === 0 ? "door" : "window", all, units));
      expect(new Set(all.map((one) => one.wall)).size).toBe(4);
      expect(new Set(all.map((one) => one.id)).size).toBe(4);
      const { made, problems } = read(all, {}, units);
      expect(problems).toEqual({});
      expect(Object.values(made).every((one) => one.width_m > 0.5 && one.width_m < 1.5)).toBe(true);
      // A fifth has to share a wall.
      expect(["0", "1", "2", "3"]).toContain(newOpening("door", all, units).wall);
    }
    expect(MOST_OPENINGS).toBeGreaterThan(8);
  });
});

describe("openings of a room", () => {
  const room = {
    openings: {
      door: { kind: "door", wall: 1, from_m: 0.1, width_m: 0.78, height_m: 2, swing: "out", note: "sticks" },
      bay: {
        kind: "window",
        wall: 3,
        from_m: 0.85,
        width_m: 1.2,
        sill_m: 0.9,
        height_m: 1.2,
        glazing: "double",
      },
    },
  } as unknown as Schemas["Room"];

  it("come back as they were, with what the form does not show", () => {
    const typed = openingsTyped(room, "metric");
    const { made, problems } = read(typed, room.openings);
    expect(problems).toEqual({});
    expect(made).toEqual(room.openings);
  });

  it("are another thing when their kind is another", () => {
    const typed = openingsTyped(room, "metric").map((one) =>
      one.id === "bay" ? { ...one, kind: "door" as const } : one,
    );
    const { made } = read(typed, room.openings);
    expect(made.bay).toEqual({ kind: "door", wall: 3, from_m: 0.85, width_m: 1.2, swing: "in-left" });
  });

  it("say at their own field what cannot be read", () => {
    const [door, bay] = openingsTyped(room, "metric");
    if (!door || !bay) throw new Error("two openings");
    const { problems } = read([
      { ...door, width: "wide" },
      { ...bay, from: "99 m", sill: "" },
    ]);
    expect(Object.keys(problems).sort()).toEqual(["openings.0.width", "openings.1.from", "openings.1.sill"]);
    expect(problems["openings.0.width"]).toContain("is no length");
    expect(problems["openings.1.from"]).toContain("is not accepted: give 0.00 m to");
    expect(problems["openings.1.sill"]).toContain("Give a length");
  });
});
