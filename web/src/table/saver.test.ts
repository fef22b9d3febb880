// The saver: whatever the wire and other windows do, nothing that was put in is lost without a question.
import { describe, expect, it } from "vitest";

import { Clock, FakeServer, memory, named, settle } from "../testing/plans";
import { browserOutbox } from "./outbox";
import { Saver } from "./saver";
import { sendLeft } from "./left";

function make() {
  const server = new FakeServer();
  const clock = new Clock();
  const storage = memory();
  const outbox = browserOutbox(storage);
  const acknowledged: number[] = [];
  let keys = 0;
  const saver = new Saver(1, {
    save: server.save,
    corner: server.corner,
    box: outbox.open(1),
    key: () => `key-${String((keys += 1))}`,
    later: clock.later,
    onState: () => undefined,
    onAcknowledged: (version) => acknowledged.push(version),
  });
  return { server, clock, storage, saver, acknowledged };
}

describe("saving", () => {
  it("saves changes that follow each other as one, and then has nothing left", async () => {
    const { server, clock, storage, saver, acknowledged } = make();
    saver.put(named("a"), 2);
    saver.put(named("b"), 3);
    expect(storage.length).toBe(1);
    await clock.pass();
    expect([server.plan.name, server.saves.length, acknowledged]).toEqual(["b", 1, [3]]);
    expect([saver.saving.kind, saver.unsaved, storage.length]).toEqual(["saved", null, 0]);
  });

  it("keeps trying while the server cannot be reached, with the newest", async () => {
    const { server, clock, storage, saver } = make();
    server.wire = "no-request";
    saver.put(named("a"), 2);
    await clock.pass();
    expect(saver.saving.kind).toBe("unreachable");
    saver.put(named("b"), 3);
    await clock.pass();
    expect([saver.saving.kind, storage.length]).toEqual(["unreachable", 1]);
    server.wire = "whole";
    await clock.pass();
    expect([saver.saving.kind, server.plan.name, storage.length]).toEqual(["saved", "b", 0]);
  });

  it("is not confused by an answer that was lost: what was saved is saved once, what follows follows", async () => {
    const { server, clock, saver } = make();
    server.wire = "no-answer";
    saver.put(named("a"), 2);
    await clock.pass();
    expect([server.plan.name, saver.saving.kind]).toEqual(["a", "unreachable"]);
    saver.put(named("b"), 3);
    server.wire = "whole";
    await clock.pass();
    expect([saver.saving.kind, server.saves.map((one) => one.name)]).toEqual(["saved", ["a", "b"]]);
  });

  it("asks when another window saved first; either answer is carried out whole", async () => {
    for (const keep of [true, false]) {
      const { server, clock, storage, saver } = make();
      server.elsewhere("theirs");
      saver.put(named("mine"), 2);
      await clock.pass();
      expect([saver.saving.kind, storage.length]).toEqual(["conflict", 1]);
      // What is typed while the question stands is not lost either.
      saver.put(named("mine, newer"), 3);
      if (keep) await saver.keepMine();
      else saver.reset(server.revision);
      expect(server.plan.name).toBe(keep ? "mine, newer" : "theirs");
      expect([saver.saving.kind, storage.length]).toEqual(["saved", 0]);
    }
  });

  it.each([422, 413])("keeps what is refused with %s until the next change mends it", async (status) => {
    const { server, clock, storage, saver } = make();
    server.refuses = status;
    saver.put(named("bad"), 2);
    await clock.pass();
    expect([saver.saving.kind, saver.unsaved?.name, storage.length]).toEqual(["refused", "bad", 1]);
    server.refuses = null;
    saver.put(named("good"), 3);
    await clock.pass();
    expect([saver.saving.kind, server.plan.name]).toEqual(["saved", "good"]);
  });

  it("takes a fault of the server for one that passes", async () => {
    const { server, clock, saver } = make();
    server.refuses = 500;
    saver.put(named("a"), 2);
    await clock.pass();
    expect(saver.saving.kind).toBe("unreachable");
    server.refuses = null;
    await clock.pass();
    expect([saver.saving.kind, server.plan.name]).toEqual(["saved", "a"]);
  });
});

describe("what a closed page left", () => {
  const leave = async (prepare: (made: ReturnType<typeof make>) => Promise<void>) => {
    const made = make();
    await prepare(made);
    made.saver.close();
    await settle();
    // Another page of the same browser, later.
    const outbox = browserOutbox(made.storage);
    let keys = 0;
    const send = () =>
      sendLeft(
        1,
        outbox,
        (_, ...rest) => made.server.save(...rest),
        () => `later-${String((keys += 1))}`,
      );
    return { ...made, send };
  };
  const unreachable = async ({ server, saver, clock }: ReturnType<typeof make>) => {
    server.wire = "no-request";
    saver.put(named("left"), 2);
    await clock.pass();
  };

  it("is sent when the corner is opened again", async () => {
    const { server, storage, send } = await leave(unreachable);
    await expect(send()).rejects.toBeInstanceOf(TypeError);
    expect(storage.length).toBe(1);
    server.wire = "whole";
    expect(await send()).toEqual([]);
    expect([server.plan.name, storage.length]).toEqual(["left", 0]);
  });

  it("is sent once, though it had arrived and its answer was lost", async () => {
    const { server, send } = await leave(async ({ server: s, saver, clock }) => {
      s.wire = "no-answer";
      saver.put(named("left"), 2);
      await clock.pass();
      saver.put(named("left, newer"), 3);
    });
    server.wire = "whole";
    expect(await send()).toEqual([]);
    expect(server.saves.map((one) => one.name)).toEqual(["left", "left, newer"]);
  });

  it.each([
    [412, "conflict"],
    [422, "refused"],
    [404, "gone"],
  ] as const)("is asked about where it meets %s", async (status, kind) => {
    const { server, storage, send } = await leave(unreachable);
    server.wire = "whole";
    if (status === 412) server.elsewhere("theirs");
    else server.refuses = status;
    const [left] = await send();
    expect([left?.why.kind, left?.plan.name, storage.length]).toEqual([kind, "left", 1]);
  });

  it("is asked about where it was only tried out", async () => {
    const { send } = await leave(({ saver }) => {
      saver.tryOut(named("tried"));
      return Promise.resolve();
    });
    expect((await send()).map((left) => [left.why.kind, left.plan.name])).toEqual([["trial", "tried"]]);
  });
});
