// The first run: few answers, each default a sound one, and the full answers they stand for.
import { describe, expect, it } from "vitest";

import { briefOf } from "../brief/draft";
import { ANSWERS, DEFAULTS, draftFrom, NEEDED, PAGES, questionOf } from "./questions";

const needed = { width: "3.4", depth: "2.9", stature: "1.72" };
const brief = (answers: Record<string, string>, standing = false) =>
  briefOf(draftFrom({ ...needed, ...answers }, standing));

describe("the first run", () => {
  it("asks fifteen answers at most, on eight pages at most, and needs three", () => {
    expect(ANSWERS).toBeLessThanOrEqual(15);
    expect(PAGES.length).toBeLessThanOrEqual(8);
    const without = Object.keys(briefOf(draftFrom({}, false)).problems).map(questionOf);
    expect(without.sort()).toEqual([...NEEDED].sort());
    for (const { id, options } of PAGES.flatMap((p) => p.questions)) {
      if (NEEDED.includes(id)) expect(DEFAULTS[id]).toBe("");
      // A default is one of the choices.
      else if (options) expect(options.map(([key]) => key)).toContain(DEFAULTS[id]);
    }
  });

  it("makes a sound brief of every single choice", () => {
    for (const { id, options } of PAGES.flatMap((p) => p.questions))
      for (const [choice] of options ?? []) {
        const { problems, brief: made } = brief({ [id]: choice });
        expect(problems, `${id} ${choice}`).toEqual({});
        expect(
          Object.values(made.gear ?? {}).every((g) => g.figures_assumed),
          `${id} ${choice}`,
        ).toBe(true);
      }
  });

  it("says what the answers say, and no more", () => {
    const { brief: made } = brief({
      where: "standing",
      door: "none",
      window: "2",
      key: "none",
      fill: "lamp",
      back: "no",
      microphone: "desk",
    });
    expect(made.person).toMatchObject({ posture: "standing", seat_at: null, seat_height_m: null });
    expect(made.room.furniture).toEqual({});
    expect(Object.entries(made.room.openings ?? {}).map(([id, o]) => [id, o.wall])).toEqual([["window", 2]]);
    const kinds = Object.values(made.gear ?? {}).map((g) => g.kind);
    expect(kinds.filter((k) => k === "light")).toHaveLength(1);
    // One lamp, one stand; no boom, for nothing hangs; a tripod for the camera.
    expect(Object.keys(made.gear ?? {}).filter((id) => id.includes("stand"))).toEqual(["light-stand-1"]);
    expect(Object.keys(made.gear ?? {})).toContain("tripod-1");
    expect(made.today).toBeUndefined();
  });

  it("tells how the corner stands by the second door, and what of it is missing", () => {
    const { problems } = brief({}, true);
    expect(Object.keys(problems)).toEqual(
      expect.arrayContaining(["todayX", "todayY", "todayLensX", "todayLensY", "todayLensZ"]),
    );
    const { brief: made, problems: none } = brief(
      {
        todayX: "1.7",
        todayY: "0.9",
        todayLensX: "1.7",
        todayLensY: "2.4",
        todayLensZ: "1.2",
        todayFocal: "35",
        todayF: "2.8",
      },
      true,
    );
    expect(none).toEqual({});
    // The lens lies straight towards the front wall: the camera looks back, the person forward.
    expect(made.today?.camera).toMatchObject({ bearing_deg: 180, focus_distance_m: 1.5 });
    expect(made.today?.seat).toMatchObject({ bearing_deg: 0 });
    expect(made.today?.lights).toBeUndefined();
  });
});
