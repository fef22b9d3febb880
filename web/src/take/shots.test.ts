import { expect, test } from "vitest";

import type { Plan } from "../api/client";
import type { Run } from "./log";
import { planned, sentMarks, withGroup } from "./marks";
import { asPurpose, inOrder, moved, newId, newShot, withoutShot, withShot, type Shot } from "./shots";

const shot = (what: string, place: number): Shot => ({ ...newShot("", "medium"), what, place });
const run = (...names: string[]): Run =>
  ({ shots: names.map((id, place) => ({ id, shot: shot(id, place) })) }) as unknown as Run;
const PLAN = { brief: { run: { file_pattern: "{shot}" } } } as unknown as Plan;
const order = (plan: Plan) => {
  const shots = Object.entries(plan.brief.run?.shots ?? {});
  return shots.sort(([, a], [, b]) => a.place - b.place).map(([id]) => id);
};

test("shots are added, moved, put into another order and taken away; the rest of the run sheet stays", () => {
  const three = run("a", "b", "c");
  expect(order(withShot(PLAN, three, "d", shot("d", 0)))).toEqual(["a", "b", "c", "d"]);
  expect(withShot(PLAN, three, "b", shot("other", 0)).brief.run?.shots?.b?.what).toBe("other");
  expect(order(moved(PLAN, three, "c", -1))).toEqual(["a", "c", "b"]);
  expect(moved(PLAN, three, "a", -1)).toBe(PLAN);
  expect(order(inOrder(PLAN, three, ["c", "a", "b"]))).toEqual(["c", "a", "b"]);
  expect(order(withoutShot(PLAN, three, "b"))).toEqual(["a", "c"]);
  expect(withoutShot(PLAN, run("a"), "a").brief.run).toEqual({ file_pattern: "{shot}" });
  expect(asPurpose(withShot(PLAN, three, "d", shot("d", 0))).brief.run).toEqual({ file_pattern: "{shot}" });
  expect(newId(run("shot-1", "shot-2"))).toBe("shot-3");
});

test("marks begin where the plan has them, come and go by groups, and are sent as they lie", () => {
  const of = {
    aspect: 16 / 9,
    crown: [0.5, 0.1],
    eyes: [0.5, 0.3],
    chin: [0.5, 0.45],
    shoulders: [
      [0.3, 0.6],
      [1.2, 0.6],
    ],
    keyed: true,
  };
  const begin = planned(of);
  // What the plan has outside the picture begins at its edge.
  expect(begin.shoulder).toEqual([1, 0.6]);
  const more = withGroup(withGroup(begin, "edge", true), "screen", true);
  const sent = sentMarks(more);
  expect(sent.edges).toEqual([
    [
      [0.1, 0.2],
      [0.1, 0.8],
    ],
  ]);
  expect([sent.crown, sent.screen?.length, sent.grey]).toEqual([[0.5, 0.1], 2, null]);
  expect(sentMarks(withGroup(more, "edge", false)).edges).toEqual([]);
});
