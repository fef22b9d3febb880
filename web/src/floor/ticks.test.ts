import { expect, test } from "vitest";

import { joined } from "../api/keeper";
import { nextOpen, type Step, type Tick } from "./ticks";

test("the next step is the first that is not done, from here on and round again", () => {
  const steps = ["a", "b", "c"].map((id) => ({ id }) as Step);
  const done = (...ids: string[]) => {
    const ticks = ids.map((step): Tick => ({ step, done: true, at_ms: 1 }));
    return joined([], ticks, (tick) => tick.step);
  };
  expect(nextOpen(steps, done("b"), 1)).toBe(2);
  expect(nextOpen(steps, done("b", "c"), 1)).toBe(0);
  expect(nextOpen(steps, done("a", "b", "c"), 1)).toBe(1);
});
