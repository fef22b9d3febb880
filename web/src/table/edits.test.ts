import { expect, test } from "vitest";

import type { Plan } from "../api/client";
import { withLock, withPerson, withRecording, withoutAngle } from "./edits";
import { heldBy } from "./parts";
import type { Handle } from "../api/client";

const plan = (layout: object = {}): Plan =>
  ({
    format: "fogon.plan",
    version: 1,
    name: "One",
    brief: { person: { stature_m: 1.7, posture: "seated" }, room: {} },
    layout: { seat: { position_m: [1, 1], bearing_deg: 0 }, camera: {}, ...layout },
  }) as unknown as Plan;

test("what is told of the recording is kept, and what is no longer told is left out", () => {
  const told = withRecording(plan(), { session_min: 60, vertical_cut: true });
  expect(told.brief.recording).toEqual({ session_min: 60, vertical_cut: true });
  expect(withRecording(told, { session_min: null }).brief.recording).toEqual({ vertical_cut: true });
  expect(plan().brief.recording).toBeUndefined();
});

test("the person keeps what is not changed", () => {
  const striped = withPerson(plan(), { stripe_pitch_mm: 1.2 });
  expect(striped.brief.person).toMatchObject({ stature_m: 1.7, stripe_pitch_mm: 1.2 });
  expect(withPerson(striped, { stripe_pitch_mm: null }).brief.person).not.toHaveProperty("stripe_pitch_mm");
});

test("the last second angle leaves nothing behind", () => {
  const two = plan({ angles: { overhead: { body: "a" }, side: { body: "b" } } });
  const one = withoutAngle(two, "side");
  expect(Object.keys(one.layout.angles ?? {})).toEqual(["overhead"]);
  expect("angles" in withoutAngle(one, "overhead").layout).toBe(false);
});

test("screens, backdrops and angles are locked, and hold against another layout", () => {
  const own = plan({
    screen: { gear: "s", position_m: [1, 2, 1], support: { kind: "on" } },
    backdrop: { gear: "b", position_m: [1, 0], bearing_deg: 0, hung: "stands" },
    angles: { overhead: { body: "a", position_m: [1, 1, 2] } },
  });
  const handle = (pointer: string) => ({ pointer, position_m: [0, 0, 0] }) as unknown as Handle;
  expect(withLock(own, handle("/screen"), true).layout.screen?.locked).toBe(true);
  expect(withLock(own, handle("/angles/overhead"), true).layout.angles?.overhead?.locked).toBe(true);
  const locked = withLock(own, handle("/backdrop"), true);
  expect(locked.layout.backdrop?.locked).toBe(true);
  expect(heldBy(locked, { ...own.layout, backdrop: null })).toBe("the backdrop");
  expect(heldBy(own, { ...own.layout, backdrop: null })).toBeNull();
});
