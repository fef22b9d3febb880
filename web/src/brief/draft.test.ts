// The form's texts and the brief behind them: what is typed is read, what is not shown is carried through.
import { readFileSync } from "node:fs";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import type { Brief, Gear } from "../api/client";
import {
  briefOf,
  draftKey,
  draftOf,
  fieldFor,
  forget,
  inUnits,
  newDraft,
  recall,
  remember,
  type Draft,
} from "./draft";
import { newOpening } from "./openings";

const FILE = JSON.parse(
  readFileSync(new URL("../../../docs/examples/box-room.brief.json", import.meta.url), "utf8"),
) as { name: string; brief: Brief };

/** A new draft with the answers that have no default. */
function answered(texts: Record<string, string> = {}): Draft {
  const draft = newDraft();
  Object.assign(draft.texts, { width: "3.4", depth: "2.9", stature: "1.72" }, texts);
  return draft;
}

const gear = (draft: Draft, id: string) => briefOf(draft).brief.gear?.[id];

describe("gear told by its kind alone", () => {
  it("has assumed figures until one of them is typed", () => {
    const draft = { ...answered(), figuresAssumed: true };
    const { name, brief } = briefOf(draft);
    expect(Object.values(brief.gear ?? {}).every((g) => g.figures_assumed)).toBe(true);
    const again = draftOf(name, brief);
    expect(gear(again, "key")?.figures_assumed).toBe(true);
    again.texts.keyLux = "1900";
    expect(gear(again, "key")?.figures_assumed).toBe(false);
    expect(gear(again, "camera")?.figures_assumed).toBe(true);
  });
});

describe("a new corner", () => {
  it("needs three answers and no more", () => {
    expect(Object.keys(briefOf(newDraft()).problems).sort()).toEqual(["depth", "stature", "width"]);
    expect(briefOf(answered()).problems).toEqual({});
  });

  it("reads lengths in any unit, mixed", () => {
    const { brief, problems } = briefOf(
      answered({ width: "11' 2\"", depth: "290 cm", height: "8 ft", stature: "5' 8\"" }),
    );
    expect(problems).toEqual({});
    const [width = 0, depth = 0] = brief.room.floor_m[2] ?? [];
    expect(width).toBeCloseTo(134 * 0.0254, 4);
    expect(depth).toBeCloseTo(2.9, 9);
    expect(brief.room.height_m).toBeCloseTo(96 * 0.0254, 4);
    expect(brief.person.stature_m).toBeCloseTo(68 * 0.0254, 4);
  });

  it("keeps the floor as an outline, counter-clockwise from the back-left corner", () => {
    expect(briefOf(answered()).brief.room.floor_m).toEqual([
      [0, 0],
      [3.4, 0],
      [3.4, 2.9],
      [0, 2.9],
    ]);
  });

  it("leaves to the core what nobody answered", () => {
    const { brief } = briefOf(answered());
    expect(brief.room.mains).toEqual({ voltage_v: null, frequency_hz: null, breaker_a: null });
    expect(brief.person.seat_height_m).toBeNull();
    expect(brief.person.lean_m).toBeNull();
    expect(brief.measured).toEqual({});
    expect(brief.today).toBeUndefined();
  });

  it("takes a measured eye height as measured", () => {
    expect(briefOf(answered({ eyeHeight: "1.21" })).brief.measured).toEqual({ "person.eye.height_m": 1.21 });
  });

  it.each([
    ["width", "", "Give a length, 0.50 m to 50.00 m."],
    ["width", "wide", "“wide” is no length. Type 3.40 m, 340 cm or 11' 2\"."],
    ["width", "0", "0 is not accepted: give 0.50 m to 50.00 m."],
    ["depth", "-3", "-3 is not accepted: give 0.50 m to 50.00 m."],
    ["height", "90 m", "90 m is not accepted: give 1.80 m to 8.00 m."],
    ["stature", "3 m", "3 m is not accepted: give 0.80 m to 2.30 m."],
    ["volts", "12", "12 is not accepted: give 90 to 260."],
    ["hertz", "55", "55 is not accepted: give 50 or 60."],
    ["budget", "NaN", "Give a number, 0 to 10000000."],
    ["keyLux", "1e999", "Give a number, 1 to 1000000."],
    ["isoMax", "", "Give a number, 25 to 409600."],
  ])("says what %s = “%s” should be", (field, typed, words) => {
    expect(briefOf(answered({ [field]: typed })).problems[field]).toBe(words);
  });

  it("speaks of feet and inches to those who type them", () => {
    const { problems } = briefOf(answered({ units: "imperial", width: "11", depth: "1' 1\"" }));
    expect(problems.width).toBeUndefined();
    expect(problems.depth).toBe("1' 1\" is not accepted: give 1' 7¾\" to 164' ½\".");
  });
});

describe("doors and windows", () => {
  it("are as many as the room has, and come back as typed", () => {
    const draft = answered();
    draft.openings.push({
      ...newOpening("door", draft.openings, "metric"),
      swing: "sliding",
      width: "1.5",
    });
    draft.openings.push({ ...newOpening("window", draft.openings, "metric"), sill: "40 cm" });
    const { name, brief, problems } = briefOf(draft);
    expect(problems).toEqual({});
    expect(Object.keys(brief.room.openings ?? {})).toEqual(["door", "window", "door-2", "window-2"]);
    expect(brief.room.openings?.["door-2"]).toEqual({
      kind: "door",
      wall: 0,
      from_m: 0.1,
      width_m: 1.5,
      swing: "sliding",
    });
    expect(brief.room.openings?.["window-2"]).toMatchObject({ wall: 2, sill_m: 0.4 });
    const again = draftOf(name, brief);
    again.openings = again.openings.filter((o) => o.id !== "door");
    expect(briefOf(again).brief.room.openings).toEqual({ ...brief.room.openings, door: undefined });
  });

  it("say which of them cannot be read", () => {
    const draft = answered();
    draft.openings.push({ ...newOpening("window", draft.openings, "metric"), height: "9 m" });
    expect(briefOf(draft).problems).toEqual({
      "openings.2.height": "9 m is not accepted: give 0.20 m to 8.00 m.",
    });
  });
});

describe("what is owned", () => {
  it("becomes gear with figures", () => {
    expect(gear(answered(), "key")).toMatchObject({
      kind: "light",
      shape: "octagon",
      width_m: 0.65,
      height_m: 0.65,
      illuminance_at_1m_lx: 2600,
      power_w: 60,
    });
    expect(gear(answered({ format: "full-frame" }), "camera")).toMatchObject({
      sensor_width_mm: 36,
      sensor_height_mm: 24,
    });
    expect(gear(answered({ fill: "none" }), "fill")).toBeUndefined();
    expect(gear(answered({ fill: "lamp", fillLux: "700" }), "fill")).toMatchObject({
      kind: "light",
      illuminance_at_1m_lx: 700,
    });
    expect(gear(answered({ key: "none" }), "key")).toBeUndefined();
    expect(gear(answered({ back: "no" }), "back")).toBeUndefined();
    expect(gear(answered({ microphone: "none" }), "microphone")).toBeUndefined();
    expect(gear(answered({ microphone: "lavalier" }), "microphone")).toMatchObject({
      mounting: "lavalier",
      pattern_a: 1,
    });
  });

  it("gives a phone its fixed aperture", () => {
    const phone = answered({
      format: "phone-large",
      focalMin: "6.8",
      focalMax: "6.8",
      fMin: "1.8",
      fMax: "1.8",
    });
    expect(gear(phone, "lens")).toMatchObject({ f_number_at_min: 1.8, f_number_limit: 1.8 });
    expect(gear(phone, "camera")).toMatchObject({ label: "Phone", iso_min: 50 });
  });

  it("counts stands by what they carry and whether they reach out", () => {
    const stands = (draft: Draft) =>
      Object.values(briefOf(draft).brief.gear ?? {}).filter((g: Gear) => g.kind === "support");
    expect(stands(answered()).length).toBe(5);
    const four = stands(answered({ lightStands: "1", boomStands: "0", tripods: "2", microphoneStands: "1" }));
    expect(four.length).toBe(4);
    expect(four.filter((g) => g.kind === "support" && (g.reach_m ?? 0) > 0.25).length).toBe(1);
    expect(briefOf(answered({ tripods: "9" })).problems.tripods).toBe("9 is not accepted: give 0 to 6.");
  });
});

describe("other units", () => {
  const sizes = (draft: Draft) => {
    const { brief, problems } = briefOf(draft);
    expect(problems).toEqual({});
    return { floor: brief.room.floor_m[2], stature: brief.person.stature_m, height: brief.room.height_m };
  };

  it("leave what was typed as long as it was", () => {
    const metres = answered({ height: "2.45" });
    const feet = inUnits(metres, "imperial");
    expect(feet.texts.width).toBe("3.4 m");
    expect(sizes(feet)).toEqual(sizes(metres));
    expect(briefOf(feet).brief.units).toBe("imperial");
    // And back again, as often as one likes.
    const again = inUnits(inUnits(inUnits(feet, "metric"), "imperial"), "metric");
    expect(sizes(again)).toEqual(sizes(metres));
    const typed = inUnits({ ...feet, texts: { ...feet.texts, width: "11" } }, "metric");
    expect(typed.texts.width).toBe("11 ft");
    expect(sizes(typed).floor?.[0]).toBeCloseTo(11 * 0.3048, 9);
  });

  it("bring their own beginnings where nothing was typed", () => {
    const feet = inUnits(newDraft("metric"), "imperial");
    expect(feet.texts.height).toBe(newDraft("imperial").texts.height);
    expect(inUnits(feet, "imperial")).toBe(feet);
    expect(inUnits(feet, "metric").texts).toEqual(newDraft("metric").texts);
    expect(inUnits(feet, "metric").furniture).toEqual(newDraft("metric").furniture);
  });
});

describe("an existing corner", () => {
  it("comes through the form unchanged", () => {
    const { name, brief, problems } = briefOf(draftOf(FILE.name, FILE.brief));
    expect(problems).toEqual({});
    expect(name).toBe(FILE.name);
    expect(brief.gear).toEqual(FILE.brief.gear);
    expect(brief.room.openings).toEqual(FILE.brief.room.openings);
    expect(brief.room.furniture).toEqual(FILE.brief.room.furniture);
    expect(brief.room.north_deg).toBe(FILE.brief.room.north_deg);
    expect(brief.person.stature_m).toBe(FILE.brief.person.stature_m);
    expect(brief.money).toEqual(FILE.brief.money);
    expect(brief.today?.seat?.position_m).toEqual(FILE.brief.today?.seat?.position_m);
    expect(brief.today?.lights).toEqual(FILE.brief.today?.lights);
    expect(brief.today?.furniture).toEqual(FILE.brief.today?.furniture);
  });

  it("keeps figures that the form does not show when others change", () => {
    const draft = draftOf(FILE.name, FILE.brief);
    draft.texts.keyLux = "3000";
    const octa = briefOf(draft).brief.gear?.octa;
    expect(octa).toMatchObject({
      illuminance_at_1m_lx: 3000,
      cct_min_k: 2800,
      cct_max_k: 6500,
      depth_m: 0.35,
    });
  });

  it("takes another kind of microphone for another microphone", () => {
    const draft = draftOf(FILE.name, FILE.brief);
    draft.texts.microphone = "lavalier";
    const worn = briefOf(draft).brief.gear?.["boom-microphone"];
    expect(worn).toMatchObject({ mounting: "lavalier", label: "Lavalier", pattern_a: 1 });
  });

  it("forgets today when it is told to", () => {
    const draft = draftOf(FILE.name, FILE.brief);
    draft.texts.today = "no";
    expect(briefOf(draft).brief.today).toBeUndefined();
  });

  it("keeps every part of how it stands today", () => {
    const more = {
      screen: { gear: "monitor", position_m: [1, 2, 1], support: { kind: "on" } },
      backdrop: { gear: "cloth", position_m: [1.7, 0.1], bearing_deg: 0, hung: "ceiling" },
      treatment: { panel: { gear: "panel", on: "wall-1", position_m: [3.4, 1.4, 1.4] } },
      angles: { side: { body: "camera", lens: "zoom", position_m: [0.6, 2, 1.2], aim_m: [1.7, 0.8, 1.2] } },
    };
    const today = { ...FILE.brief.today, ...more };
    const draft = draftOf(FILE.name, { ...FILE.brief, today } as unknown as Brief);
    expect(briefOf(draft).brief.today).toMatchObject(more);
    // Another place for the key leaves the rest.
    draft.texts.todayKeyX = "2.1";
    const moved = briefOf(draft).brief.today;
    expect(moved).toMatchObject(more);
    expect(moved?.lights?.key?.position_m).toEqual([2.1, 2.15, 1.75]);
  });

  it.each(["metric", "imperial"] as const)("opened and saved in %s rewrites no length", (units) => {
    // To the millimetre, as a tape reads it; a quarter inch is 6.35 mm.
    const odd = structuredClone(FILE.brief);
    odd.units = units;
    odd.room.height_m = 2.433;
    odd.person.stature_m = 1.717;
    odd.gear = Object.fromEntries(
      Object.entries(odd.gear ?? {}).map(([id, g]) => [id, { ...g, figures_assumed: true }]),
    );
    for (const piece of Object.values(odd.room.furniture ?? {}))
      piece.size_m = piece.size_m.map((v) => v + 0.003);
    const { brief, problems } = briefOf(draftOf(FILE.name, odd));
    expect(problems).toEqual({});
    expect(brief.room).toMatchObject({ height_m: 2.433, floor_m: odd.room.floor_m });
    expect(brief.room.furniture).toEqual(odd.room.furniture);
    expect(brief.room.openings).toEqual(odd.room.openings);
    expect(brief.person.stature_m).toBe(1.717);
    expect(brief.gear).toEqual(odd.gear);
    expect(Object.values(brief.gear ?? {}).every((g) => g.figures_assumed)).toBe(true);
    expect(brief.today?.camera?.position_m).toEqual(FILE.brief.today?.camera?.position_m);
  });

  it("reads back in feet and inches", () => {
    const draft = draftOf(FILE.name, { ...FILE.brief, units: "imperial" });
    expect(draft.texts.width).toBe("11' 1¾\"");
    const [width = 0] = briefOf(draft).brief.room.floor_m[2] ?? [];
    expect(Math.abs(width - 3.4)).toBeLessThan(0.004);
  });
});

describe("how it stands today", () => {
  const today = {
    today: "yes",
    todayX: "1.7",
    todayY: "0.8",
    todayLensX: "1.7",
    todayLensY: "2.3",
    todayLensZ: "1.2",
    todayFocal: "35",
    todayF: "4",
  };

  it("aims the camera at the person", () => {
    const { brief, problems } = briefOf(answered(today));
    expect(problems).toEqual({});
    expect(brief.today?.camera).toMatchObject({
      bearing_deg: 180,
      focus_distance_m: 1.5,
      position_m: [1.7, 2.3, 1.2],
    });
    expect(brief.today?.seat).toMatchObject({ bearing_deg: 0 });
    expect(brief.today?.lights).toBeUndefined();
    expect(brief.today?.microphone).toBeUndefined();
  });

  it("takes lamp and microphone where they are given", () => {
    const { brief } = briefOf(
      answered({
        ...today,
        todayKeyX: "1",
        todayKeyY: "2",
        todayKeyZ: "1.8",
        todayMicX: "1.7",
        todayMicY: "2.2",
        todayMicZ: "1.3",
      }),
    );
    expect(brief.today?.lights?.key).toMatchObject({ gear: "key", role: "key", position_m: [1, 2, 1.8] });
    expect(brief.today?.microphone).toMatchObject({ gear: "microphone", position_m: [1.7, 2.2, 1.3] });
  });

  it("asks for what is missing", () => {
    const { problems } = briefOf(answered({ ...today, todayLensZ: "", todayFocal: "long" }));
    expect(Object.keys(problems).sort()).toEqual(["todayFocal", "todayLensZ"]);
  });
});

describe("a refusal by the server", () => {
  it.each([
    ["brief.room.openings.door.width_m", "openings.0.width"],
    ["brief.room.openings.window.sill_m", "openings.1.sill"],
    ["brief.room.openings.hatch.sill_m", null],
    ["brief.room.furniture.desk.position_m[0]", "furniture.0.x"],
    ["brief.room.furniture.desk.size_m[2]", "furniture.0.height"],
    ["brief.room.furniture.shelf.position_m[1]", null],
    ["brief.room.floor_m", "width"],
    ["brief.room.height_m", "height"],
    ["brief.person.stature_m", "stature"],
    ["brief.gear.lens.focal_min_mm", "focalMin"],
    ["brief.name", null],
  ])("of %s stands beside %s", (path, field) => {
    expect(fieldFor(path, answered())).toBe(field);
  });
});

describe("answers left unfinished", () => {
  const kept = new Map<string, string>();
  beforeEach(() => {
    kept.clear();
    vi.stubGlobal("localStorage", {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
    });
  });
  afterEach(() => vi.unstubAllGlobals());

  it("are kept by corner and revision, and forgotten when done", () => {
    const key = draftKey({ id: 3, revision: 7 });
    expect(key).not.toBe(draftKey({ id: 3, revision: 8 }));
    expect(recall(key)).toBeNull();
    remember(key, answered({ name: "Half" }));
    expect(recall(key)?.texts.name).toBe("Half");
    expect(recall(draftKey(null))).toBeNull();
    forget(key);
    expect(recall(key)).toBeNull();
  });

  it("that cannot be read are dropped, not shown", () => {
    kept.set(draftKey(null), "{broken");
    expect(recall(draftKey(null))).toBeNull();
    expect(kept.size).toBe(0);
  });
});
