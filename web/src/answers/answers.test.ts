// The answers' texts and the brief behind them: what is typed is read, what is not shown is carried through.
import { readFileSync } from "node:fs";

import { describe, expect, it } from "vitest";

import type { Brief } from "../api/client";
import { newAnswers, type Answers } from "./answers";
import { answersOf } from "./fromBrief";
import { newOpening } from "./openings";
import { fieldFor } from "./refused";
import { answersSchema } from "./schema";
import { briefOf, briefSoFar } from "./toBrief";
import { inUnits } from "./units";
import { firstLegs } from "./walls";

interface File {
  name: string;
  brief: Brief;
}
const file = (name: string) =>
  JSON.parse(
    readFileSync(new URL(`../../../docs/examples/${name}.brief.json`, import.meta.url), "utf8"),
  ) as File;
const BOX = file("box-room");
const ALCOVE = file("alcove");

/** New answers with those that have no usual value. */
const answered = (more: Partial<Answers> = {}): Answers => ({
  ...newAnswers(more.units),
  width: "3.4",
  depth: "2.9",
  stature: "1.72",
  ...more,
});

/** What is said beside the fields, by their paths. */
function problems(answers: Answers): Record<string, string> {
  const read = answersSchema(answers).safeParse(answers);
  return Object.fromEntries((read.error?.issues ?? []).map((issue) => [issue.path.join("."), issue.message]));
}

function brief(answers: Answers, base: File | null = null): Brief {
  expect(problems(answers)).toEqual({});
  return briefOf(answersSchema(answers).parse(answers), base?.brief ?? null, base && answersOf(base)).brief;
}

describe("a new corner", () => {
  it("needs three answers and no more", () => {
    expect(Object.keys(problems(newAnswers())).sort()).toEqual(["depth", "stature", "width"]);
    expect(problems(answered())).toEqual({});
  });

  it("reads lengths in any unit, mixed", () => {
    const { room, person } = brief(
      answered({ width: "11' 2\"", depth: "290 cm", height: "8 ft", stature: "5' 8\"" }),
    );
    expect(room.floor_m[2]).toEqual([expect.closeTo(134 * 0.0254, 4), expect.closeTo(2.9, 9)]);
    expect(room.height_m).toBeCloseTo(96 * 0.0254, 4);
    expect(person.stature_m).toBeCloseTo(68 * 0.0254, 4);
  });

  it("leaves to the core what nobody answered", () => {
    const { room, person, measured, today } = brief(answered());
    expect(room.mains).toEqual({ voltage_v: null, frequency_hz: null, breaker_a: null });
    expect([person.seat_height_m, person.lean_m, measured, today]).toEqual([null, null, {}, undefined]);
    expect(brief(answered({ eyeHeight: "1.21" })).measured).toEqual({ "person.eye.height_m": 1.21 });
  });

  it.each([
    ["width", "", "Give a length, 0.50 m to 50.00 m."],
    ["width", "wide", "“wide” is not a length. Type 3.40 m, 340 cm or 11' 2\"."],
    ["depth", "-3", "-3 is not accepted: give 0.50 m to 50.00 m."],
    ["height", "90 m", "90 m is not accepted: give 1.80 m to 8.00 m."],
    ["hertz", "55", "55 is not accepted: give 50 or 60."],
    ["budget", "NaN", "Give a number, 0 to 10000000."],
  ])("says what %s = “%s” should be", (field, typed, words) => {
    expect(problems(answered({ [field]: typed }))[field]).toBe(words);
  });

  it("speaks of feet and inches to those who type them", () => {
    const said = problems(answered({ units: "imperial", width: "11", depth: "1' 1\"", stature: "68 in" }));
    expect(said).toEqual({ depth: "1' 1\" is not accepted: give 1' 7¾\" to 164' ½\"." });
  });

  it("is sketched from whatever can be read so far", () => {
    const half = briefSoFar({ ...newAnswers(), width: "3.4", depth: "x" });
    expect(half?.room.floor_m[2]).toEqual([3.4, 0]);
  });
});

describe("doors and windows", () => {
  it("are as many as the room has, and come back as typed", () => {
    const { openings } = answered();
    const sliding = { ...newOpening("door", openings, "metric"), swing: "sliding", width: "1.5" };
    const low = { ...newOpening("window", [...openings, sliding], "metric"), sill: "40 cm" };
    const made = brief(answered({ openings: [...openings, sliding, low] }));
    expect(made.room.openings?.["door-2"]).toMatchObject({ width_m: 1.5, swing: "sliding" });
    expect(made.room.openings?.["window-2"]).toMatchObject({ wall: 2, sill_m: 0.4 });
    const again = answersOf({ name: "", brief: made });
    const without = brief({ ...again, openings: again.openings.filter((one) => one.id !== "door") });
    expect(Object.keys(without.room.openings ?? {})).toEqual(["window", "door-2", "window-2"]);
  });

  it("say which of them cannot be read", () => {
    const { openings } = answered();
    const tall = { ...newOpening("window", openings, "metric"), height: "9 m" };
    expect(problems(answered({ openings: [...openings, tall] }))).toEqual({
      "openings.2.height": "9 m is not accepted: give 0.20 m to 8.00 m.",
    });
  });
});

describe("other units", () => {
  it("leave what was typed as long as it was, there and back", () => {
    const metres = answered({ height: "2.45" });
    const feet = inUnits(metres, "imperial");
    expect(feet.width).toBe("3.4 m");
    const sizes = ({ room, person }: Brief) => [room.floor_m[2], person.stature_m, room.height_m];
    expect(sizes(brief(feet))).toEqual(sizes(brief(metres)));
    expect(sizes(brief(inUnits(inUnits(feet, "metric"), "imperial")))).toEqual(sizes(brief(metres)));
    const typed = inUnits({ ...feet, width: "11" }, "metric");
    expect(typed.width).toBe("11 ft");
    expect(brief(typed).room.floor_m[2]?.[0]).toBeCloseTo(11 * 0.3048, 4);
  });

  it("bring their own beginnings where nothing was typed", () => {
    const feet = inUnits(newAnswers("metric"), "imperial");
    expect(feet).toEqual(newAnswers("imperial"));
    expect(inUnits(feet, "metric")).toEqual(newAnswers("metric"));
  });
});

describe("an existing corner", () => {
  it.each([BOX, ALCOVE])("comes through the form unchanged: $name", (one) => {
    const made = brief(answersOf(one), one);
    expect(made.gear).toEqual(one.brief.gear);
    expect(made.room).toEqual(one.brief.room);
    expect(made.money).toEqual(one.brief.money);
    expect(made.today?.lights).toEqual(one.brief.today?.lights);
    expect(made.today?.furniture).toEqual(one.brief.today?.furniture);
  });

  it("takes what is typed, beside what another window changed meanwhile", () => {
    const typed = { ...answersOf(BOX), height: "2.6 m" };
    const theirs = structuredClone(BOX.brief);
    theirs.person.stature_m = 1.9;
    const made = briefOf(answersSchema(typed).parse(typed), theirs, answersOf(BOX)).brief;
    expect([made.room.height_m, made.person.stature_m]).toEqual([2.6, 1.9]);
  });

  it("is not ready before its walk closes, and refusals find their field", () => {
    const open = { ...answersOf(ALCOVE), legs: firstLegs("metric"), floor: null };
    expect(problems(open).floor).toMatch(/does not close/);
    expect(fieldFor("brief.room.openings.door.wall", open)).toBe("openings.0.wall");
    const slope = Object.keys(ALCOVE.brief.room.slopes ?? {})[0] ?? "";
    expect(fieldFor(`brief.room.slopes.${slope}.knee_m`, open)).toBe("slopes.0.knee");
    expect(fieldFor("brief.room.floor_m", open)).toBe("floor");
    expect(fieldFor("brief.room.floor_m", answered())).toBe("width");
    expect(fieldFor("brief.moon", answered())).toBeNull();
  });
});
