// What is drawn again: only what a new judgement has changed.
import { expect, test } from "vitest";

import type { Judged } from "../api/client";
import { Shown } from "./judging";

const judged = (azimuth: number, quarter_turns = 1): Judged =>
  ({
    assessment: {
      readings: [
        { id: "a", value: azimuth },
        { id: "b", value: 2 },
      ],
      findings: [],
    },
    drawing: { quarter_turns },
    steps: [{ step: "room" }],
  }) as unknown as Judged;

test("what has not changed stays the same object, so that it is not drawn again", () => {
  const shown = new Shown({ wanted: null, room: { sheet: { width: 400, height: 300 }, frameWidth: 300 } });
  const first = shown.share(judged(40));
  const next = shown.share(judged(41));
  expect(next).not.toBe(first);
  expect(next.assessment.readings[1]).toBe(first.assessment.readings[1]);
  expect(next.steps).toBe(first.steps);
  expect(shown.share(judged(41))).toBe(next);
  expect(shown.newest).toBe(next);
  // A plan does not turn under the hand.
  expect(shown.drawn(true)).toMatchObject({ quarter_turns: 1, fixes: false });
  expect(shown.drawn(false)).not.toHaveProperty("quarter_turns");
});
