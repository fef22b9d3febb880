// The first run: few answers, and the brief that they stand for.
import { expect, test } from "vitest";

import { answersSchema } from "../answers/schema";
import { briefOf } from "../answers/toBrief";
import { answersOf, inUnits, newFirstRun, type FirstRun } from "./firstRun";
import { CAMERAS, LAMPS, MICROPHONES } from "./gear";
import { PAGES, PLACES_TO_TALK, PURPOSES } from "./pages";

const run = (more: Partial<FirstRun> = {}): FirstRun => ({
  ...newFirstRun(),
  width: "3.4",
  depth: "2.9",
  stature: "1.72",
  ...more,
});

function made(answers: FirstRun, standing = false) {
  const full = answersOf(answers, standing);
  const read = answersSchema(full).safeParse(full);
  const problems = (read.error?.issues ?? []).map((issue) => issue.path.join("."));
  return { problems, brief: read.success ? briefOf(read.data, null, null).brief : null };
}

test("asks fifteen answers at most, on eight pages at most, and needs three", () => {
  expect(PAGES.flatMap((page) => page.fields).length).toBeLessThanOrEqual(15);
  expect(PAGES.length).toBeLessThanOrEqual(8);
  expect(made(newFirstRun()).problems.sort()).toEqual(["depth", "stature", "width"]);
});

test("asks for the unit before any length", () => {
  expect(PAGES[0].fields[0]).toBe("units");
  const feet = inUnits(newFirstRun(), "imperial");
  expect(feet.height).toBe("8' 0\"");
  // A height that was answered stays as long as it was.
  expect(inUnits(run({ height: "2.55", answered: ["height"] }), "imperial").height).toBe("2.55 m");
});

test("makes a sound brief of every single choice", () => {
  const choices: Partial<FirstRun>[] = [
    ...CAMERAS.map(({ id }) => ({ camera: id })),
    { camera: "none" },
    ...LAMPS.map(({ id }) => ({ lamps: { [id]: 2 } })),
    ...MICROPHONES.map(({ id }) => ({ microphones: { [id]: 2 } })),
    { lamps: {}, microphones: {} },
    ...PURPOSES.map(([purpose]) => ({ purpose })),
    ...PLACES_TO_TALK.map(([where]) => ({ where })),
  ];
  for (const choice of choices) {
    const { problems, brief } = made(run(choice));
    expect(problems, JSON.stringify(choice)).toEqual([]);
    expect(Object.values(brief?.gear ?? {}).every((one) => one.figures_assumed)).toBe(true);
  }
});

test("takes as many of each as there are, with a stand for each that needs one", () => {
  const { brief } = made(run({ lamps: { softbox: 2 }, microphones: { lavalier: 1, shotgun: 1 } }));
  const gear = Object.values(brief?.gear ?? {});
  const count = (is: (one: (typeof gear)[number]) => boolean) => gear.filter(is).length;
  expect(count((one) => one.kind === "light")).toBe(2);
  expect(count((one) => one.kind === "microphone")).toBe(2);
  expect(Object.keys(brief?.gear ?? {}).filter((id) => id.startsWith("light-stand"))).toHaveLength(2);
});

test("takes a desk lamp to stand on the desk, and on a chair where there is none", () => {
  const stands = (where: string) =>
    Object.keys(made(run({ where, lamps: { bulb: 2 }, microphones: {} })).brief?.gear ?? {}).filter((id) =>
      /desk-foot|chair-back|light-stand/.test(id),
    );
  expect(stands("desk")).toEqual(["desk-foot-1", "desk-foot-2"]);
  expect(stands("chair")).toEqual(["chair-back-1", "chair-back-2"]);
});

test("lays out with a borrowed phone where there is no camera, and invents no tripod", () => {
  const { brief } = made(run({ camera: "none", lamps: {}, microphones: {} }));
  const gear = Object.values(brief?.gear ?? {});
  expect(gear.filter((one) => one.kind === "camera").map((one) => one.state)).toEqual([
    "borrowed",
    "borrowed",
  ]);
  expect(gear.some((one) => one.kind === "support")).toBe(false);
});

test("says what the answers say, and no more", () => {
  const { brief } = made(run({ where: "standing", door: "none", window: "2", lamps: {}, microphones: {} }));
  expect(brief?.person).toMatchObject({ posture: "standing", seat_at: null, seat_height_m: null });
  expect(brief?.room.furniture).toEqual({});
  expect(Object.entries(brief?.room.openings ?? {}).map(([id, o]) => [id, o.wall])).toEqual([["window", 2]]);
  expect(Object.values(brief?.gear ?? {}).some((one) => ["light", "microphone"].includes(one.kind))).toBe(
    false,
  );
  expect(brief?.today).toBeUndefined();
});

test("tells how the corner stands by the second door, and what of it is missing", () => {
  const { problems } = made(run(), true);
  expect(problems).toEqual(
    expect.arrayContaining(["seat.x", "seat.y", "lens.x", "lens.y", "lens.z", "focal"]),
  );
  const standing = run({
    seat: { x: "1.7", y: "0.9", z: "" },
    lens: { x: "1.7", y: "2.4", z: "1.2" },
    focal: "35",
    fNumber: "2.8",
  });
  const { brief, problems: none } = made(standing, true);
  expect(none).toEqual([]);
  // The lens lies straight towards the front wall: the camera looks back, the person forward.
  expect(brief?.today?.camera).toMatchObject({ bearing_deg: 180, focus_distance_m: 1.5 });
  expect(brief?.today?.seat).toMatchObject({ bearing_deg: 0 });
  expect(brief?.today?.lights).toBeUndefined();
});
