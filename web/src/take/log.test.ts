import { expect, test } from "vitest";

import {
  fileOf,
  holds,
  leftMin,
  missingWords,
  nextNumber,
  nextShot,
  numbered,
  recordedMin,
  sessionsOf,
  statesOf,
  type Entry,
  type Run,
} from "./log";

const entry = (uid: string, at_ms: number, what: Entry["what"], session = "s1"): Entry => ({
  uid,
  session,
  at_ms,
  by: "desk",
  what,
});
const session = (uid: string, begun_ms: number, more: object = {}): Entry =>
  entry(uid, begun_ms, { kind: "session", begun_ms, revision: 3, ...more }, uid);
const take = (uid: string, number: number, begun_ms: number, more: object = {}): Entry =>
  entry(uid, begun_ms, {
    kind: "take",
    number,
    shot: "talk",
    what: "You",
    begun_ms,
    seconds: 60,
    verdict: "open",
    ...more,
  });

const shot = (id: string, takes: number, kind = "take") => ({
  id,
  shot: { what: `Shot ${id}`, takes, kind },
});
const RUN = {
  shots: [shot("talk", 2), shot("insert", 1), shot("test", 1, "test")],
  best: { shots: ["insert", "talk", "test"] },
} as unknown as Run;

const of = (...entries: Entry[]) => {
  const [first] = sessionsOf(entries);
  if (!first) throw new Error("there is a session");
  return first;
};

test("sessions come the last first, without what was taken back", () => {
  const all = sessionsOf([
    session("s1", 100),
    session("s2", 200),
    take("a", 1, 110),
    { ...take("b", 2, 120), gone: true },
  ]);
  expect(all.map(({ uid }) => uid)).toEqual(["s2", "s1"]);
  expect(all[1]?.takes.length).toBe(1);
});

test("numbers are counted on; where two devices gave the same one the later has a letter", () => {
  const own = of(session("s1", 100), take("b", 2, 130), take("a", 1, 110), take("c", 2, 140));
  expect(numbered(own).map(({ number }) => number)).toEqual(["1", "2", "2b"]);
  expect(nextNumber(own)).toBe(3);
  expect(nextNumber(of(session("s1", 100)))).toBe(1);
});

test("a shot is done with its takes and one that is kept, or by a tick; what is missing stays in sight", () => {
  const takes = [take("a", 1, 110), take("b", 2, 120)];
  const open = statesOf(RUN, of(session("s1", 100), ...takes));
  expect(open.map(({ isDone }) => isDone)).toEqual([false, false, false]);
  expect(missingWords(open)).toBe("Still missing: Shot talk; Shot insert; Shot test.");
  const kept = statesOf(
    RUN,
    of(
      session("s1", 100),
      ...takes.slice(0, 1),
      take("b", 2, 120, { verdict: "keep" }),
      take("c", 3, 130, { shot: "test" }),
      entry("tick", 140, { kind: "shot", shot: "insert", done: true }),
    ),
  );
  expect(kept.map(({ isDone }) => isDone)).toEqual([true, true, true]);
  expect(missingWords(kept)).toBe("");
  // Of the best order the first that is open.
  expect(nextShot(RUN, open)?.shot.id).toBe("insert");
  // A tick taken back holds against takes.
  const untickedShots = statesOf(
    RUN,
    of(
      session("s1", 100),
      take("b", 2, 120, { verdict: "keep" }),
      take("a", 1, 110),
      entry("tick", 140, { kind: "shot", shot: "talk", done: false }),
    ),
  );
  expect(untickedShots[0]?.isDone).toBe(false);
});

test("card and battery are reckoned down, from what the camera told last", () => {
  const own = of(
    session("s1", 100),
    take("a", 1, 110),
    take("b", 2, 120, { card_left_min: 30 }),
    take("c", 3, 130),
  );
  expect(recordedMin(own)).toBe(3);
  expect(leftMin(52, own, "card_left_min")).toBe(29);
  expect(leftMin(90, own, "battery_left_min")).toBe(87);
  expect(leftMin(null, own, "battery_left_min")).toBeNull();
});

test("files are named with two digits, and words are found wherever they stand", () => {
  expect(fileOf("{date}-talk-{take}", "2026-11-29", 3)).toBe("2026-11-29-talk-03");
  const own = of(
    session("s1", 100, { learnt: ["Drink first"], settings: ["ISO: 200"] }),
    take("a", 1, 110, { note: "hands" }),
  );
  expect([holds(own, "iso HANDS"), holds(own, "drink"), holds(own, "violin"), holds(own, " ")]).toEqual([
    true,
    true,
    false,
    true,
  ]);
});
