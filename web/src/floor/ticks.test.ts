import { expect, test } from "vitest";

import { Keeper } from "./keeper";
import { joined, keepWaiting, nextOpen, unsent, waitingIn, type Step, type Tick } from "./ticks";

const tick = (step: string, done: boolean, at_ms: number): Tick => ({ step, done, at_ms });

test("the later of two ticks holds, whoever made it", () => {
  const known = [tick("a", true, 10), tick("b", true, 20)];
  const all = joined(known, [tick("a", false, 11), tick("b", false, 19), tick("c", true, 1)]);
  expect([...all.values()].map((one) => one.done)).toEqual([false, true, true]);
});

test("what was touched while it was sent is sent again", () => {
  const sent = [tick("a", true, 10), tick("b", true, 20)];
  const waiting = [tick("a", false, 12), tick("b", true, 20)];
  expect(unsent(waiting, sent)).toEqual([tick("a", false, 12)]);
});

test("the next step is the first that is not done, from here on and round again", () => {
  const steps = ["a", "b", "c"].map((id) => ({ id }) as Step);
  const done = (...ids: string[]) =>
    joined(
      [],
      ids.map((id) => tick(id, true, 1)),
    );
  expect(nextOpen(steps, done("b"), 1)).toBe(2);
  expect(nextOpen(steps, done("b", "c"), 1)).toBe(0);
  expect(nextOpen(steps, done("a", "b", "c"), 1)).toBe(1);
});

test("what waits outlives the page, and a broken storage is an empty one", () => {
  const kept = new Map<string, string>();
  const storage = {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, text: string) => void kept.set(name, text),
    removeItem: (name: string) => void kept.delete(name),
  } as unknown as Storage;
  keepWaiting(storage, 3, [tick("a", true, 1)]);
  expect(waitingIn(storage, 3)).toEqual([tick("a", true, 1)]);
  expect(waitingIn(storage, 4)).toEqual([]);
  kept.set("fogon.ticks.3", "{");
  expect(waitingIn(storage, 3)).toEqual([]);
  keepWaiting(storage, 3, []);
  expect(kept.size).toBe(0);
});

test("ticks made without the network come later, and none is lost between two devices", async () => {
  const server = new Map<string, Tick>();
  const device = () => {
    const kept = new Map<string, string>();
    const wire = { isCut: false };
    const keeper = new Keeper({
      corner: 1,
      storage: {
        getItem: (name: string) => kept.get(name) ?? null,
        setItem: (name: string, text: string) => void kept.set(name, text),
        removeItem: (name: string) => void kept.delete(name),
      } as unknown as Storage,
      now_ms: () => (now += 1),
      send: (ticks) => {
        if (wire.isCut) return Promise.reject(new TypeError("no network"));
        const all = joined([...server.values()], ticks);
        all.forEach((one, step) => server.set(step, one));
        return Promise.resolve({ ticks: [...server.values()], now_ms: now });
      },
    });
    return { keeper, wire };
  };
  let now = 0;
  const [one, other] = [device(), device()];
  one.wire.isCut = true;
  for (const id of ["a", "b", "c"]) one.keeper.tick(id, true);
  await one.keeper.sync();
  expect([one.keeper.view.waiting, one.keeper.view.isCut, server.size]).toEqual([3, true, 0]);
  other.keeper.tick("d", true);
  other.keeper.tick("b", false);
  await other.keeper.sync();
  await other.keeper.sync();
  one.wire.isCut = false;
  await one.keeper.sync();
  await other.keeper.sync();
  for (const { keeper } of [one, other]) {
    expect([...keeper.view.ticks].map(([step, tick]) => [step, tick.done]).sort()).toEqual([
      ["a", true],
      ["b", false],
      ["c", true],
      ["d", true],
    ]);
    expect([keeper.view.waiting, keeper.view.isCut]).toEqual([0, false]);
  }
});

test("ticks keep their order however slowly the server's clock is told", () => {
  let now = 1000;
  const keeper = new Keeper({
    corner: 1,
    storage: {
      getItem: () => null,
      setItem: () => undefined,
      removeItem: () => undefined,
    } as unknown as Storage,
    now_ms: () => now,
    send: () => new Promise<never>(() => undefined),
  });
  keeper.heard({ ticks: [], now_ms: 5000 });
  keeper.tick("begun", true);
  now += 10;
  // An answer that was three seconds on its way.
  keeper.heard({ ticks: [], now_ms: 2010 });
  keeper.tick("first", true);
  keeper.tick("second", true);
  const at = ["begun", "first", "second"].map((step) => keeper.view.ticks.get(step)?.at_ms ?? 0);
  expect(at).toEqual([5000, 5010, 5011]);
  // A clock that was set anew is taken as it is.
  keeper.heard({ ticks: [], now_ms: 200_000 });
  expect(keeper.now_ms()).toBe(200_000);
});
