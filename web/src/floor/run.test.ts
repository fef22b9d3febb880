// A run by the stop watch.
import { expect, test } from "vitest";

import { BEGUN, runOf, withRun } from "./run";
import type { Step, Tick } from "./ticks";

const step = (id: string, timed: NonNullable<Step["timed"]>): Step => ({
  id,
  work: "put-up",
  title: id,
  measures: [],
  notes: [],
  timed,
});

const STEPS = [step("a", "carry"), step("b", "carry"), step("c", "level")];

function ticked(...at: [string, number][]): Map<string, Tick> {
  return new Map(at.map(([name, at_ms]) => [name, { step: name, done: true, at_ms }]));
}

test("times are those between ticks, in the order in which they were made", () => {
  expect(runOf(STEPS, new Map())).toBeNull();
  const run = runOf(STEPS, ticked([BEGUN, 1000], ["c", 21_000], ["a", 11_000]));
  expect(run?.took.map(({ step: { id }, seconds }) => [id, seconds])).toEqual([
    ["a", 10],
    ["c", 10],
  ]);
  expect(run?.isWhole).toBe(false);
  // What was ticked before the run was begun is no part of it.
  const later = runOf(STEPS, ticked(["a", 500], [BEGUN, 1000], ["b", 5000], ["c", 6000]));
  expect(later?.took).toHaveLength(2);
  expect(runOf(STEPS, ticked([BEGUN, 0], ["a", 1], ["b", 2], ["c", 3]))?.isWhole).toBe(true);
});

test("a run counts as the mean of its kind, and half where there was one", () => {
  const run = runOf(STEPS, ticked([BEGUN, 0], ["a", 20_000], ["b", 50_000], ["c", 90_000]));
  if (!run) throw new Error("there is a run");
  expect(withRun({}, run)).toEqual({ carry: 25, level: 40 });
  expect(withRun({ carry: 35, plug: 9 }, run)).toEqual({ carry: 30, level: 40, plug: 9 });
});
