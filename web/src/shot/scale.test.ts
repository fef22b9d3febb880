import { expect, test } from "vitest";

import { focalFor, focalTicks, scaleOf, ticks } from "./scale";

const scale = scaleOf({ left: 100, top: 20, right: 500, bottom: 220 }, [0.5, 2.5], [10, 80]);

test("the chart's scale leads there and back", () => {
  for (const [distance, focal] of [
    [0.5, 10],
    [1.37, 23.4],
    [2.5, 80],
  ] as const) {
    expect(scale.distance(scale.x(distance))).toBeCloseTo(distance, 9);
    expect(scale.focal(scale.y(focal))).toBeCloseTo(focal, 9);
  }
  expect([scale.x(0.5), scale.x(2.5), scale.y(80), scale.y(10)]).toEqual([100, 500, 20, 220]);
  // Octaves are equally high: 10 to 20 is a third of 10 to 80.
  expect(scale.y(20)).toBeCloseTo(220 - 200 / 3, 9);
});

test("a curve is the thin lens: 50 mm frames 0.567 m from 1.45 m on 20.25 mm", () => {
  expect(focalFor(1.45, 0.567, 20.25)).toBeCloseTo(50, 9);
});

test("axes have round numbers, and focal lengths keep apart", () => {
  expect(ticks(0.3, 2.6, 6).map((t) => Number(t.toFixed(2)))).toEqual([0.5, 1, 1.5, 2, 2.5]);
  const labels = focalTicks([10, 80], scale, 30);
  const gaps = labels.slice(1).map((f, i) => scale.y(labels[i] ?? f) - scale.y(f));
  expect(Math.min(...gaps)).toBeGreaterThanOrEqual(30);
});
