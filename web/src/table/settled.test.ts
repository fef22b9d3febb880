import { expect, test, vi } from "vitest";

import type { Plan } from "../api/client";
import { goneWith, setAside, settled } from "./settled";

const plan = (measured: Record<string, number> | undefined, seat = 1): Plan =>
  ({ brief: { measured, room: {} }, layout: { seat } }) as unknown as Plan;

const RT = "sound.room.rt_mid_s";
const LUX = "light.face.illuminance_lx";

test("what a person takes out is no news; what a change takes out is", () => {
  expect(goneWith(plan({ [RT]: 0.9 }), plan({}))).toEqual([]);
  expect(goneWith(plan({ [RT]: 0.9 }), plan(undefined, 2))).toEqual([RT]);
  expect(goneWith(plan({ [RT]: 0.9, [LUX]: 500 }), plan({ [LUX]: 500 }, 2))).toEqual([RT]);
  expect(goneWith(plan(undefined), plan({ [RT]: 0.9 }))).toEqual([]);
  // Measured again is not taken out.
  expect(goneWith(plan({ [RT]: 0.9 }), plan({ [RT]: 0.5 }, 2))).toEqual([]);
});

test("a plan without measured values asks nobody", async () => {
  const ask = vi.fn();
  const after = plan(undefined, 2);
  expect(await settled(plan(undefined), after, ask)).toEqual({ plan: after, dropped: [] });
  expect(await settled(plan({ [RT]: 0.9 }), after, ask)).toEqual({ plan: after, dropped: [RT] });
  expect(ask).not.toHaveBeenCalled();
});

test("what the server sets aside goes, and is told with what went before", async () => {
  const ask = vi.fn().mockResolvedValue({ measured: {}, dropped: [LUX] });
  const { plan: left, dropped } = await settled(
    plan({ [RT]: 0.9, [LUX]: 500 }),
    plan({ [LUX]: 500 }, 2),
    ask,
  );
  expect(dropped).toEqual([RT, LUX]);
  expect(left.brief.measured).toEqual({});
  expect(left.layout).toEqual({ seat: 2 });
});

test("how the room rang stays known when other things hang, and goes with the room", async () => {
  const clap = { rt_mid_s: 0.9 };
  const ask = vi.fn().mockResolvedValueOnce({ measured: {}, clap, dropped: [] });
  const hung = await settled(plan({ [RT]: 0.9 }), plan({ [RT]: 0.9 }, 2), ask);
  expect(hung.dropped).toEqual([]);
  expect(hung.plan.brief.clap).toEqual(clap);
  // A fix comes with it.
  expect(goneWith(plan({ [RT]: 0.9 }), hung.plan)).toEqual([]);
  ask.mockResolvedValueOnce({ measured: {}, clap: null, dropped: [] });
  const other = await settled(hung.plan, hung.plan, ask);
  expect(other.plan.brief).not.toHaveProperty("clap");
});

test("one and several are said as people say them", () => {
  expect(setAside([RT])).toMatch(/^A value that you measured .*Measure it again\.$/);
  expect(setAside([RT, LUX])).toMatch(/^2 values that you measured .*Measure them again\.$/);
});
