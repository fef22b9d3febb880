// The chart's own arithmetic: what it plots is what the core computes, and what is read off it comes back.
import { describe, expect, it } from "vitest";

import { focalFor, focalTicks, scaleOf } from "./scale";

const frame = { left: 100, top: 20, right: 500, bottom: 220 };
const scale = scaleOf(frame, [0.4, 3.2], [10, 160]);

describe("the chart", () => {
  it("puts distances evenly and focal lengths by octaves, there and back", () => {
    expect(scale.x(0.4)).toBeCloseTo(100);
    expect(scale.x(1.8)).toBeCloseTo(300);
    // Four octaves over 200 px.
    expect(scale.y(20)).toBeCloseTo(170);
    expect(scale.y(40)).toBeCloseTo(120);
    expect(scale.x.invert(scale.x(1.47))).toBeCloseTo(1.47);
    expect(scale.y.invert(scale.y(35))).toBeCloseTo(35);
  });

  it("frames as a thin lens does: 0.62 m high from 1.47 m on 15.6 mm asks for about 36 mm", () => {
    const focal = focalFor(1.47, 0.62, 15.6);
    expect(focal).toBeCloseTo((1470 * 15.6) / (620 + 15.6), 6);
    expect(focal).toBeGreaterThan(35.5);
    expect(focal).toBeLessThan(36.5);
  });

  it("labels focal lengths that have room", () => {
    const ticks = focalTicks([10, 160], scale, 20);
    expect(ticks[0]).toBe(10);
    ticks.slice(1).forEach((tick, i) => {
      expect(scale.y(ticks[i] ?? 0) - scale.y(tick)).toBeGreaterThanOrEqual(20);
    });
  });
});
