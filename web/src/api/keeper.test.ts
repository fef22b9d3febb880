import { expect, test } from "vitest";

import { joined, keepWaiting, Keeper, unsent, waitingIn } from "./keeper";

interface Tick {
  step: string;
  done: boolean;
  at_ms: number;
}

const tick = (step: string, done: boolean, at_ms: number): Tick => ({ step, done, at_ms });
const keyOf = (one: Tick) => one.step;

test("the later of two items holds, whoever made it", () => {
  const known = [tick("a", true, 10), tick("b", true, 20)];
  const all = joined(known, [tick("a", false, 11), tick("b", false, 19), tick("c", true, 1)], keyOf);
  expect([...all.values()].map((one) => one.done)).toEqual([false, true, true]);
});

test("what was touched while it was sent is sent again", () => {
  const sent = [tick("a", true, 10), tick("b", true, 20)];
  const waiting = [tick("a", false, 12), tick("b", true, 20)];
  expect(unsent(waiting, sent, keyOf)).toEqual([tick("a", false, 12)]);
});

/** A browser's storage in memory. */
function memory() {
  const kept = new Map<string, string>();
  const storage = {
    getItem: (name: string) => kept.get(name) ?? null,
    setItem: (name: string, text: string) => void kept.set(name, text),
    removeItem: (name: string) => void kept.delete(name),
  } as unknown as Storage;
  return { kept, storage };
}

test("what waits outlives the page, and a broken storage is an empty one", () => {
  const { kept, storage } = memory();
  keepWaiting(storage, "three", [tick("a", true, 1)]);
  expect(waitingIn(storage, "three")).toEqual([tick("a", true, 1)]);
  expect(waitingIn(storage, "four")).toEqual([]);
  kept.set("three", "{");
  expect(waitingIn(storage, "three")).toEqual([]);
  keepWaiting(storage, "three", []);
  expect(kept.size).toBe(0);
});

test("what is made without the network comes later, and none is lost between two devices", async () => {
  const server = new Map<string, Tick>();
  const device = () => {
    const wire = { isCut: false };
    const keeper = new Keeper<Tick>({
      name: "ticks",
      storage: memory().storage,
      keyOf,
      now_ms: () => (now += 1),
      send: (ticks) => {
        if (wire.isCut) return Promise.reject(new TypeError("no network"));
        const all = joined([...server.values()], ticks, keyOf);
        all.forEach((one, step) => server.set(step, one));
        return Promise.resolve({ items: [...server.values()], now_ms: now });
      },
    });
    const put = (step: string, done: boolean) => keeper.put((at_ms) => tick(step, done, at_ms));
    return { keeper, put, wire };
  };
  let now = 0;
  const [one, other] = [device(), device()];
  one.wire.isCut = true;
  for (const id of ["a", "b", "c"]) one.put(id, true);
  await one.keeper.sync();
  expect([one.keeper.view.waiting, one.keeper.view.isCut, server.size]).toEqual([3, true, 0]);
  other.put("d", true);
  other.put("b", false);
  await other.keeper.sync();
  await other.keeper.sync();
  one.wire.isCut = false;
  await one.keeper.sync();
  await other.keeper.sync();
  for (const { keeper } of [one, other]) {
    const done = Object.fromEntries([...keeper.view.items].map(([step, item]) => [step, item.done]));
    expect(done).toEqual({ a: true, b: false, c: true, d: true });
    expect([keeper.view.waiting, keeper.view.isCut]).toEqual([0, false]);
  }
});

test("items keep their order however slowly the server's clock is told", () => {
  let now = 1000;
  const keeper = new Keeper<Tick>({
    name: "ticks",
    storage: memory().storage,
    keyOf,
    now_ms: () => now,
    send: () => new Promise<never>(() => undefined),
  });
  keeper.heard({ items: [], now_ms: 5000 });
  keeper.put((at_ms) => tick("begun", true, at_ms));
  now += 10;
  // An answer that was three seconds on its way.
  keeper.heard({ items: [], now_ms: 2010 });
  keeper.put((at_ms) => tick("first", true, at_ms));
  keeper.put((at_ms) => tick("second", true, at_ms));
  const at = ["begun", "first", "second"].map((step) => keeper.view.items.get(step)?.at_ms ?? 0);
  expect(at).toEqual([5000, 5010, 5011]);
  // A clock that was set anew is taken as it is.
  keeper.heard({ items: [], now_ms: 200_000 });
  expect(keeper.now_ms()).toBe(200_000);
});
