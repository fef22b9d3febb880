import { expect, test } from "vitest";

import type { Plan } from "../api/client";
import { withNoise } from "./Noises";
import { gainsDb, type Take } from "../hearing/player";
import { sizeOf, withoutTreatment } from "./hanging";

const take = (gainDb: number, loudnessLufs: number): Take => ({
  buffer: {} as AudioBuffer,
  gainDb,
  loudnessLufs,
});

test("takes are equally loud, or as loud against each other as they were recorded", () => {
  const near = take(4, -23);
  const far = take(16, -25);
  // The far one reached only -25 LUFS: the near one comes down to it.
  expect(gainsDb([near, far], "matched")).toEqual([-2, 0]);
  expect(gainsDb([near, far], "recorded")).toEqual([0, -12]);
});

test("an area is hung no wider than two metres, whole", () => {
  for (const area of [1, 2.88, 4, 6]) {
    const [width, height] = sizeOf(area);
    expect(width * height).toBeCloseTo(area, 1);
    expect(Math.min(width, height)).toBeLessThanOrEqual(2);
  }
});

test("what is taken down leaves the shelf only if it was put there to be hung", () => {
  const one = (gear: string) => ({ gear, on: "wall-0", position_m: [1, 0, 1] });
  const plan = {
    brief: {
      gear: { rug: { kind: "treatment", state: "wanted" }, wool: { kind: "treatment", state: "owned" } },
    },
    layout: { treatment: { a: one("rug"), b: one("wool") } },
  } as unknown as Plan;
  const bare = withoutTreatment(withoutTreatment(plan, "a"), "b");
  expect(bare.layout.treatment).toEqual({});
  expect(Object.keys(bare.brief.gear ?? {})).toEqual(["wool"]);
});

test("a noise keeps what is told of it and loses what is not", () => {
  const plan = { brief: { room: { noises: {} } } } as unknown as Plan;
  const fan = withNoise(plan, "fan", { kind: "fan", level_1m_dba: 50 });
  expect(fan.brief.room.noises).toEqual({ fan: { kind: "fan", level_1m_dba: 50 } });
  expect(withNoise(fan, "fan", { level_1m_dba: null }).brief.room.noises).toEqual({ fan: { kind: "fan" } });
  expect(withNoise(fan, "fan", null).brief.room.noises).toEqual({});
});
