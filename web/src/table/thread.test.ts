// The order of the work: what belongs to which step, what each step says of itself.
import { readFileSync } from "node:fs";
import { describe, expect, it } from "vitest";

import type { Finding, Handle, Judged, Plan, Reading } from "../api/client";
import { withLock, withUnits } from "./edits";
import { heldBy } from "./parts";
import { dayWords, groupsOf, knots, stepOf } from "./thread";

const PLAN = JSON.parse(
  readFileSync(new URL("../../../docs/examples/box-room.fogon.json", import.meta.url), "utf8"),
) as Plan;

/** Names of the demo's things and of some that are called like others, with where the layout holds them. */
const HANDLES = [
  ["seat", "/seat"],
  ["camera", "/camera"],
  ["key", "/lights/key"],
  ["light_camera", "/lights/camera"],
  ["microphone", "/microphone"],
  ["desk", "/furniture/desk"],
  ["furniture_key", "/furniture/key"],
  ["side", "/angles/side"],
  ["wool", "/treatment/wool"],
].map(([id, pointer]) => ({ id, pointer }) as Handle);

const finding = (id: string, severity: Finding["severity"]) => ({ id, severity }) as Finding;
const reading = (id: string, value: number) => ({ id, value }) as Reading;

function judged(findings: Finding[], readings: Reading[], ready = false): Judged {
  return {
    assessment: { findings, readings, verdict: { ready } },
    handles: HANDLES.map((handle, index) => ({ ...handle, letter: ["S", "C", "K"][index] ?? "" })),
  } as unknown as Judged;
}

describe("the thread", () => {
  it("gives every finding and reading its step", () => {
    for (const [id, step] of [
      ["legal.exit.person", "you"],
      ["legal.picture.key", "light"],
      ["legal.support.camera", "shot"],
      ["legal.sight.microphone", "sound"],
      ["legal.collision.desk", "room"],
      ["legal.mains.mains", "room"],
      ["light.face.ratio", "light"],
      ["shot.seat.gaze_deg", "you"],
      ["shot.focus.front_tolerance_m", "shot"],
      ["room.key.sandbag_kg", "light"],
      ["room.mains.load_fraction", "room"],
      ["room.microphone.sandbag_kg", "sound"],
      ["sound.room.rt_mid_s", "sound"],
      ["person.eye.height_m", "you"],
      ["daylight.window.azimuth_deg", "day"],
      ["microphone.missing", "sound"],
      ["microphone.xlr-input.missing", "sound"],
      ["camera.card.missing", "shot"],
      ["key.lamp-battery.missing", "light"],
      ["light.key.missing", "light"],
      ["shot.screen.missing", "shot"],
      ["support.camera.missing", "shot"],
      ["plan", "room"],
      ["legal.support.light_camera", "light"],
      ["legal.collision.furniture_key", "room"],
      ["room.side.payload_times", "shot"],
      ["legal.collision.wool", "sound"],
      ["room.floor.in_use_m2", "room"],
    ] as const)
      expect(stepOf(id, HANDLES), id).toBe(step);
  });

  it("says of windows what is done about them", () => {
    const brief = (schools: object, windows: number) =>
      ({
        schools,
        room: {
          openings: Object.fromEntries(
            Array.from({ length: windows }, (_, i) => [`w${i}`, { kind: "window" }]),
          ),
        },
      }) as unknown as Plan["brief"];
    expect(dayWords(brief({}, 0))).toBe("no window");
    expect(dayWords(brief({}, 1))).toBe("1 window, shut out");
    expect(dayWords(brief({ window: "key" }, 1))).toBe("1 window, let in");
    expect(dayWords(brief({ lights: "window-only" }, 2))).toBe("2 windows, let in");
  });

  it("says the worst of each step and the number that tells most", () => {
    const findings = [finding("light.face.ratio", "consider"), finding("legal.picture.key", "stop")];
    const readings = [
      reading("light.key.azimuth_deg", 40.2),
      reading("light.face.ratio", 3.1),
      reading("shot.camera.distance_m", 1.42),
      reading("sound.microphone.distance_m", 0.41),
    ];
    const all = Object.fromEntries(
      knots(PLAN.brief, PLAN.layout, judged(findings, readings)).map((k) => [k.step, k]),
    );
    expect(Object.keys(all)).toEqual(["room", "you", "shot", "light", "day", "sound", "money", "card"]);
    expect([all.light?.state, all.light?.headline]).toEqual(["stop", "40°, 3.1 : 1"]);
    expect(all.shot?.headline).toMatch(/^\d+ mm at 1\.42 m$/);
    expect([all.sound?.state, all.sound?.headline]).toEqual(["good", "0.41 m"]);
    expect([all.card?.state, all.card?.headline]).toEqual(["open", "3 marks"]);
    const ready = knots(PLAN.brief, PLAN.layout, judged([], [], true));
    expect(ready.find((k) => k.step === "card")?.state).toBe("good");
  });
});

describe("changes that no rule resists", () => {
  it("lock a thing wherever its place is kept, and hold it against other layouts", () => {
    const other = structuredClone(PLAN.layout);
    other.seat.position_m = [1, 1];
    other.lights = {};
    expect(heldBy(PLAN, other)).toBeNull();
    const handle = (id: string) =>
      ({ pointer: id, position_m: [1, 2, 0], bearing_deg: 90 }) as unknown as Handle;
    expect(heldBy(withLock(PLAN, handle("/lights/key"), true), other)).toBe("the key");
    expect(heldBy(withLock(PLAN, handle("/seat"), true), other)).toBe("the seat");
    const shelf = withLock(PLAN, handle("/furniture/shelf"), true);
    expect(shelf.layout.furniture?.shelf).toEqual({ position_m: [1, 2, 0], bearing_deg: 90, locked: true });
    expect(heldBy(shelf, other)).toBe("the shelf");
    expect(heldBy(withLock(shelf, handle("/furniture/shelf"), false), other)).toBeNull();
  });

  it("change the units to read in and not the mains that were assumed", () => {
    const { room, units } = withUnits(PLAN, "imperial").brief;
    expect([units, room.mains?.voltage_v, room.mains?.frequency_hz]).toEqual(["imperial", 230, 50]);
  });
});

describe("readings in groups", () => {
  const of = (id: string, band = false) => ({ id, band: band ? [0, 1, 2, 3] : null }) as unknown as Reading;

  it("puts those with a band first, and names what is left", () => {
    const groups = groupsOf("shot", [
      of("shot.frame.edge_lean_deg"),
      of("shot.frame.headroom_fraction", true),
      of("shot.overhead.covers_width_m"),
      of("room.camera.sandbag_kg"),
      of("shot.screen.gaze_deg"),
    ]);
    expect(groups.map(([name, own]) => [name, own.map((r) => r.id.split(".").pop())])).toEqual([
      ["Frame", ["headroom_fraction", "edge_lean_deg"]],
      ["Seeing yourself", ["gaze_deg"]],
      ["What second angles show", ["covers_width_m"]],
      ["Stands", ["sandbag_kg"]],
    ]);
  });

  it("parts the light into key, face, what is behind, and stands", () => {
    const groups = groupsOf("light", [
      of("light.face.cct_k"),
      of("light.face.ratio", true),
      of("light.key.azimuth_deg", true),
      of("light.background.stops"),
      of("light.desk-lamp.highlight_stops"),
      of("room.key.payload_times"),
    ]);
    expect(groups.map(([name, own]) => [name, own.map((r) => r.id.split(".").pop())])).toEqual([
      ["Key", ["azimuth_deg"]],
      ["Face", ["ratio", "cct_k"]],
      ["Behind", ["stops"]],
      ["Other lights", ["highlight_stops"]],
      ["Stands", ["payload_times"]],
    ]);
  });

  it("leaves the other steps in one", () => {
    expect(groupsOf("sound", [of("sound.room.rt_mid_s")])).toEqual([["", [of("sound.room.rt_mid_s")]]]);
  });
});
