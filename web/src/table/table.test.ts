// The table as views use it: commands in order, relative to what is there in their turn; saved by itself.
import { describe, expect, it } from "vitest";

import { Unreached, type Judged, type Move, type Moved, type Plan } from "../api/client";
import { Clock, FakeServer, memory, named, refused, settle } from "../testing/plans";
import { withCamera } from "./edits";
import { browserOutbox } from "./outbox";
import { Table, type Outside } from "./table";

/** The camera's height is all that is moved here; the hand's answer says where it is. */
const heightOf = (plan: Plan) => plan.layout.camera.position_m[2] ?? 0;
const judgedOf = (plan: Plan): Judged =>
  ({
    handles: [{ id: "camera", position_m: plan.layout.camera.position_m, pointer: "/camera", letter: "C" }],
  }) as unknown as Judged;

function make(changes: Partial<Outside> = {}) {
  const server = new FakeServer();
  const clock = new Clock();
  const storage = memory();
  const judged = new Map<number, Judged>();
  const moves: Move[] = [];
  const table = new Table(server.kept(), {
    save: server.save,
    corner: server.corner,
    step: () => {
      server.elsewhere("stepped");
      return Promise.resolve(server.kept());
    },
    move: async (plan, by) => {
      await settle();
      moves.push(by);
      const next = withCamera(plan, { position_m: by.to_m as [number, number, number] });
      return { plan: next, judged: judgedOf(next), snaps: [], dropped: [] };
    },
    judge: (plan, version) => Promise.resolve(judged.get(version) ?? judgedOf(plan)),
    judged: (version, answer) => judged.set(version, answer),
    settle: () => Promise.resolve({ measured: {}, dropped: [] }),
    kept: () => undefined,
    box: browserOutbox(storage).open(1),
    key: () => Math.random().toString(),
    later: clock.later,
    waits: () => undefined,
    ...changes,
  });
  return { server, clock, storage, table, moves };
}

const height = (table: Table) => heightOf(table.view().plan ?? named("none"));

describe("the table", () => {
  it("adds up ten quick steps of one thing", async () => {
    const { table, moves } = make();
    const before = height(table);
    await Promise.all(Array.from({ length: 10 }, () => table.nudge("camera", "place", [0, 0, 0.01])));
    expect(height(table)).toBeCloseTo(before + 0.1, 9);
    // The first was under way; the others that waited were one.
    expect(moves.length).toBe(2);
  });

  it("sets the newest of the figures that wait, and what is done after them comes after them", async () => {
    const { table, moves } = make();
    const before = height(table);
    const set = (value: number) =>
      table.move("camera", "height", (now) => ({
        to_m: [now.position_m[0] ?? 0, now.position_m[1] ?? 0, value],
      }));
    const typed = [1.1, 1.2, 1.3].map(set);
    await Promise.all([...typed, table.nudge("camera", "place", [0, 0, -0.5])]);
    expect([height(table), moves.length]).toEqual([0.8, 3]);
    expect(before).not.toBe(0.8);
  });

  it("does what was typed once the server is reached again, the newest of a name, also after the page has gone", async () => {
    let reached = false;
    const waits: boolean[] = [];
    const { table, clock, server } = make({
      move: (plan, by) => {
        if (!reached) return Promise.reject(new Unreached());
        const next = withCamera(plan, { position_m: by.to_m as [number, number, number] });
        return Promise.resolve({ plan: next, judged: judgedOf(next), snaps: [], dropped: [] });
      },
      waits: (are) => void waits.push(are),
    });
    const before = height(table);
    const set = (value: number) => table.move("camera", "height", () => ({ to_m: [1, 1, value] }));
    const older = set(1.1);
    await settle();
    const newer = set(1.2);
    await settle();
    expect([height(table), table.view().waiting > 0, waits.includes(false)]).toEqual([before, true, false]);
    table.close();
    reached = true;
    await clock.pass();
    await Promise.all([older, newer]);
    await settle();
    expect([height(table), table.view().waiting, waits.at(-1)]).toEqual([1.2, 0, false]);
    expect(server.plan.layout.camera.position_m[2]).toBe(1.2);
  });

  it("does not do again what was refused", async () => {
    let asked = 0;
    const { table } = make({
      move: () => {
        asked += 1;
        return Promise.reject(refused(422));
      },
    });
    await expect(table.move("camera", "height", () => ({ to_m: [1, 1, 9] }))).rejects.toThrow();
    expect([asked, table.view().waiting]).toEqual([1, 0]);
  });

  it("keeps steps of two things apart", async () => {
    const { table, moves } = make();
    await Promise.all([
      table.nudge("camera", "place", [0, 0, 0.01]),
      table.nudge("key", "place", [0.01, 0, 0]),
      table.nudge("camera", "place", [0, 0, 0.02]),
    ]);
    // There is no key here: its step is nobody else's.
    expect(moves.map((by) => by.thing)).toEqual(["camera", "camera"]);
  });

  it("makes a change of the plan that is there in its turn", async () => {
    const { table } = make();
    const moved = table.nudge("camera", "place", [0, 0, 0.5]);
    const edited = table.edit((plan) => withCamera(plan, { iso: 400 }));
    const again = table.move("camera", "height", (handle) => ({
      to_m: [handle.position_m[0] ?? 0, handle.position_m[1] ?? 0, (handle.position_m[2] ?? 0) + 1],
    }));
    const before = height(table);
    await Promise.all([moved, edited, again]);
    expect([height(table), table.view().plan?.layout.camera.iso]).toEqual([before + 1.5, 400]);
  });

  it("saves nothing where a change fails or changes nothing, and says what failed", async () => {
    const { table, clock, server } = make();
    await expect(table.edit(() => Promise.reject(refused(422, "no room for it")))).rejects.toThrow("no room");
    await table.edit((plan) => structuredClone(plan));
    await clock.pass();
    expect([server.saves.length, table.view().saving.kind]).toEqual([0, "saved"]);
    expect(String(table.view().trouble)).toContain("no room");
  });

  it("takes a simple change at once, before anything is asked", () => {
    const { table, storage } = make();
    void table.edit((plan) => ({ ...plan, name: "typed" }));
    expect([table.view().plan?.name, storage.length]).toEqual(["typed", 1]);
  });

  it("undoes a change that could not be saved by going back to what is saved", async () => {
    const { table, clock, server } = make();
    server.refuses = 422;
    await table.edit(() => named("bad"));
    await clock.pass();
    expect(table.view().saving.kind).toBe("refused");
    server.refuses = null;
    await table.step("undo");
    expect([table.view().plan?.name, table.view().saving.kind, server.revision]).toEqual([
      "first",
      "saved",
      1,
    ]);
    expect(table.view().notes[0]?.words).toContain("could not be saved");
    await table.step("undo");
    expect(table.view().plan?.name).toBe("stepped");
  });

  it("tries out without saving, and another window's plan does not come between", async () => {
    const { table, clock, server, storage } = make();
    await table.beginTrial();
    await table.edit(() => named("tried"));
    await clock.pass();
    expect([server.saves.length, storage.length]).toEqual([0, 1]);
    server.elsewhere("theirs");
    table.seen(server.kept());
    expect(table.view().plan?.name).toBe("tried");
    await table.endTrial(false);
    // Back to before is back to what is saved by now.
    expect([table.view().plan?.name, table.view().trial, storage.length]).toEqual(["theirs", null, 0]);
    await table.beginTrial();
    await table.edit(() => named("tried"));
    await table.endTrial(false);
    expect(table.view().plan?.name).toBe("theirs");
  });

  it("ends what is tried out where a saved plan is taken instead", async () => {
    const { table, clock, server } = make();
    await table.beginTrial();
    await table.edit(() => named("tried"));
    server.elsewhere("theirs");
    // It turned out good, and another window was first: a question.
    await table.endTrial(true);
    await clock.pass();
    expect(table.view().saving.kind).toBe("conflict");
    await table.beginTrial();
    table.takeKept(server.kept());
    expect([table.view().plan?.name, table.view().trial, table.view().saving.kind]).toEqual([
      "theirs",
      null,
      "saved",
    ]);
  });

  it("shows what another window saved, unless something here waits", async () => {
    const { table, server, clock } = make();
    server.elsewhere("theirs");
    table.seen(server.kept());
    expect(table.view().plan?.name).toBe("theirs");
    await table.edit(() => named("mine"));
    server.elsewhere("theirs again");
    table.seen(server.kept());
    expect(table.view().plan?.name).toBe("mine");
    await clock.pass();
    expect(table.view().saving.kind).toBe("conflict");
    await table.keepMine();
    expect([server.plan.name, table.view().saving.kind]).toEqual(["mine", "saved"]);
  });

  it("drops from where the hand took hold, and puts all back when that fails", async () => {
    let fails = false;
    const { table } = make({
      move: (plan, by) => {
        if (fails) return Promise.reject(refused(422));
        const next = withCamera(plan, { position_m: by.to_m as [number, number, number] });
        return Promise.resolve({
          plan: next,
          judged: judgedOf(next),
          snaps: [],
          dropped: [],
        } as unknown as Moved);
      },
    });
    const from = table.view().plan ?? named("none");
    table.hold(null);
    await table.drag({ thing: "camera", to_m: [1, 1, 9] }, from);
    expect([heightOf(table.view().live?.plan ?? from), height(table)]).toEqual([9, heightOf(from)]);
    fails = true;
    await table.drop({ thing: "camera", to_m: [1, 1, 9] }, from);
    expect([table.view().live, table.view().holding, height(table)]).toEqual([null, false, heightOf(from)]);
  });
});
