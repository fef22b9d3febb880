// What is not saved yet outlives its page, is looked after by one page at a time, and is never lost to a full or spoilt storage.
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { named } from "../testing/plans";
import { browserOutbox, type Entry } from "./outbox";

/** A browser's storage: shared by its pages; it may be full. */
class Drawer implements Storage {
  #kept = new Map<string, string>();
  full = false;

  get length(): number {
    return this.#kept.size;
  }
  key = (index: number) => [...this.#kept.keys()][index] ?? null;
  getItem = (name: string) => this.#kept.get(name) ?? null;
  setItem = (name: string, text: string) => {
    if (this.full) throw new DOMException("full", "QuotaExceededError");
    this.#kept.set(name, text);
  };
  removeItem = (name: string) => void this.#kept.delete(name);
  clear = () => this.#kept.clear();
}

type Work = () => unknown;

/** Locks that pages hold for as long as they live (W3C Web Locks, as far as they are used). */
class Locks {
  #waiting = new Map<string, Work[]>();
  #held = new Map<string, Work>();

  query = () => Promise.resolve({ held: [...this.#held.keys()].map((name) => ({ name })) });

  request = (name: string, ...rest: unknown[]): Promise<unknown> => {
    const work = rest.at(-1) as Work;
    const { signal } = (rest.length > 1 ? rest[0] : {}) as { signal?: AbortSignal };
    return new Promise((done, failed) => {
      const begin = () => {
        let release: Work = () => undefined;
        const gone = new Promise((resolve) => (release = () => resolve(undefined)));
        this.#held.set(name, release);
        void Promise.race([work(), gone]).then((value) => {
          this.#held.delete(name);
          this.#waiting.get(name)?.shift()?.();
          done(value);
        });
      };
      signal?.addEventListener("abort", () => failed(new DOMException("called off", "AbortError")));
      if (this.#held.has(name)) this.#waiting.set(name, [...(this.#waiting.get(name) ?? []), begin]);
      else begin();
    });
  };

  /** A page is closed: what it held is given back. */
  letGo = (name: string) => void this.#held.get(name)?.();
  names = () => [...this.#held.keys()];
}

const waiting = (name: string): Pick<Entry, "revision" | "sent" | "newest"> => ({
  revision: 3,
  sent: null,
  newest: named(name),
});

const names = (entries: Entry[]) => entries.map((entry) => entry.newest?.name ?? entry.sent?.file.name);

describe("the outbox", () => {
  let drawer: Drawer;
  let locks: Locks;
  beforeEach(() => {
    drawer = new Drawer();
    locks = new Locks();
    vi.stubGlobal("navigator", { locks });
    vi.useFakeTimers({ now: 1000, toFake: ["Date"] });
  });
  afterEach(() => {
    vi.unstubAllGlobals();
    vi.useRealTimers();
  });

  it("holds what is newest of a corner until it is saved", async () => {
    const outbox = browserOutbox(drawer);
    const box = outbox.open(7);
    expect(outbox.newest(7)).toBeNull();
    box.put({ ...waiting("typed"), sent: { key: "k", revision: 3, file: named("sent") } });
    expect(outbox.newest(7)?.name).toBe("typed");
    box.put({ ...waiting("typed"), newest: null, sent: { key: "k", revision: 3, file: named("sent") } });
    expect([outbox.newest(7)?.name, outbox.newest(70)]).toEqual(["sent", null]);
    expect(await outbox.left(7)).toEqual([]);
    box.empty();
    expect([outbox.newest(7), drawer.length]).toEqual([null, 0]);
  });

  it("leaves to the next what a closed table could not save, oldest first", async () => {
    const outbox = browserOutbox(drawer);
    for (const name of ["first", "second"]) {
      const box = outbox.open(7);
      box.put(waiting(name));
      expect(names(await outbox.left(7))).not.toContain(name);
      box.close();
      vi.setSystemTime(Date.now() + 5);
    }
    outbox.open(8).put(waiting("of another corner"));
    expect(names(await outbox.left(7))).toEqual(["first", "second"]);
    const [first] = await outbox.left(null);
    if (!first) throw new Error("nothing is left");
    outbox.rewrite({ ...first, newest: named("changed") });
    expect(names(await outbox.left(7))).toEqual(["changed", "second"]);
    outbox.drop(first);
    expect(names(await outbox.left(7))).toEqual(["second"]);
  });

  it("takes nothing from a page that lives, and is told when it has gone", async () => {
    const other = browserOutbox(drawer);
    const [page] = locks.names();
    other.open(7).put(waiting("of the other window"));
    const own = browserOutbox(drawer);
    const told = vi.fn();
    const calledOff = vi.fn();
    own.whenLeft(7, told);
    own.whenLeft(7, calledOff)();
    expect(await own.left(7)).toEqual([]);
    expect(own.newest(7)?.name).toBe("of the other window");
    locks.letGo(page ?? "");
    await vi.waitFor(() => expect(told).toHaveBeenCalledOnce());
    expect(names(await own.left(7))).toEqual(["of the other window"]);
    expect(calledOff).not.toHaveBeenCalled();
  });

  it("is told when another page drops what it asks about, and of nothing else", () => {
    const heard: ((event: unknown) => void)[] = [];
    vi.stubGlobal("addEventListener", (_: string, listener: (event: unknown) => void) =>
      heard.push(listener),
    );
    const told = vi.fn();
    browserOutbox(drawer).whenDropped(["asked about"], told);
    const changed = (key: string | null, newValue: string | null) =>
      heard.forEach((listener) => listener({ key, newValue }));
    changed("asked about", "rewritten");
    changed("another", null);
    expect(told).not.toHaveBeenCalled();
    changed("asked about", null);
    expect(told).toHaveBeenCalledOnce();
  });

  it("breaks neither on a full storage nor on what it cannot read", async () => {
    const outbox = browserOutbox(drawer);
    const box = outbox.open(7);
    drawer.setItem("fogon.outbox.7.someone.1", "{half");
    drawer.setItem("something else", "7");
    drawer.full = true;
    expect(() => box.put(waiting("typed"))).not.toThrow();
    expect([outbox.newest(7), await outbox.left(7)]).toEqual([null, []]);
    drawer.full = false;
    box.put(waiting("typed again"));
    expect(outbox.newest(7)?.name).toBe("typed again");
  });

  it("goes without locks: what is left is taken over early", async () => {
    vi.stubGlobal("navigator", {});
    browserOutbox(drawer).open(7).put(waiting("of another window"));
    expect(names(await browserOutbox(drawer).left(7))).toEqual(["of another window"]);
  });
});
