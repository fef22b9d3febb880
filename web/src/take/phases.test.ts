import { expect, test } from "vitest";

import { beatAt } from "./metronome";
import { begunAt, phaseAt } from "./phases";

const COURSE = { countdown_s: 3, stillness_s: 4 };

test("a take is counted down, still, on, still, and over", () => {
  const at = (now_ms: number, stopped_ms: number | null = null) => {
    const { phase, seconds } = phaseAt(now_ms, { pressed_ms: 10_000, stopped_ms }, COURSE);
    return `${phase} ${String(seconds)}`;
  };
  expect(begunAt(10_000, COURSE)).toBe(13_000);
  expect([at(10_100), at(12_900), at(13_100), at(16_900), at(17_100), at(75_000)]).toEqual([
    "countdown 3",
    "countdown 1",
    "still-before 4",
    "still-before 1",
    "on 4",
    "on 62",
  ]);
  expect([at(60_500, 60_000), at(63_900, 60_000), at(64_100, 60_000)]).toEqual([
    "still-after 4",
    "still-after 1",
    "idle 0",
  ]);
  expect(phaseAt(5, { pressed_ms: null, stopped_ms: null }, COURSE).phase).toBe("idle");
});

test("beats come by the tempo, a bar is counted in, and it runs on", () => {
  const meter = { tempo: 90, beats: 3, countIn: 1 };
  const beats = [0, 1, 2, 3, 4, 300].map((index) => beatAt(index, meter));
  expect(beats.map(({ ofBar }) => ofBar)).toEqual([1, 2, 3, 1, 2, 1]);
  expect(beats.map(({ isCountIn }) => isCountIn)).toEqual([true, true, true, false, false, false]);
  expect(beats[3]?.at_s).toBeCloseTo(2, 9);
  expect(beats[5]?.at_s).toBeCloseTo(200, 9);
});
