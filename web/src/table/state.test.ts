// The store: what a change does to the plan on the table, to its version and to what is saved.
import { describe, expect, it } from "vitest";

import type { Judged } from "../api/client";
import { FakeServer, named, PLAN } from "../testing/plans";
import { begin, isUnsaved, reduce, seenPlan, type Event, type State } from "./state";

const start = (): State => begin(new FakeServer().kept());
const run = (...events: Event[]) => events.reduce(reduce, start());
const judged = {} as Judged;

describe("the table's state", () => {
  it("gives every other plan another version, and a change that changes nothing none", () => {
    const changed = run({ type: "changed", plan: named("second") });
    expect(changed.version).not.toBe(start().version);
    expect(isUnsaved(changed)).toBe(true);
    const same = reduce(changed, { type: "changed", plan: structuredClone(changed.plan ?? PLAN) });
    expect(same.version).toBe(changed.version);
    expect(same.plan).toBe(changed.plan);
  });

  it("takes an acknowledgement for the version that was sent, not for a newer one", () => {
    const first = run({ type: "changed", plan: named("second") });
    const newer = reduce(first, { type: "changed", plan: named("third") });
    const corner = new FakeServer().kept();
    expect(isUnsaved(reduce(newer, { type: "acknowledged", version: first.version, corner }))).toBe(true);
    expect(isUnsaved(reduce(newer, { type: "acknowledged", version: newer.version, corner }))).toBe(false);
  });

  it("puts nothing on the table while a hand moves, and nothing that comes after it let go", () => {
    const moving: Event = { type: "moving", plan: named("moved"), judged, notes: [] };
    const held = run({ type: "held", boxes: null }, moving);
    expect(seenPlan(held)?.name).toBe("moved");
    expect([held.plan?.name, isUnsaved(held)]).toEqual(["first", false]);
    const over = reduce(held, { type: "let-go" });
    expect(seenPlan(over)?.name).toBe("first");
    expect(reduce(over, moving)).toBe(over);
  });

  it("tries out on a branch: dropped, all is as before; kept, it has to be saved; another plan ends it", () => {
    const trial = run({ type: "trial-begun" }, { type: "changed", plan: named("tried") });
    expect(isUnsaved(trial)).toBe(false);
    const dropped = reduce(trial, { type: "trial-dropped" });
    expect([dropped.plan?.name, dropped.version, dropped.trial]).toEqual(["first", start().version, null]);
    expect(isUnsaved(reduce(trial, { type: "trial-kept" }))).toBe(true);
    const opened = reduce(trial, { type: "opened", corner: new FakeServer().kept() });
    expect([opened.trial, opened.plan?.name, isUnsaved(opened)]).toEqual([null, "first", false]);
    expect(reduce(opened, { type: "trial-dropped" })).toBe(opened);
  });
});
