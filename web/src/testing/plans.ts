// Plans and a server of their own for the tests of the page.
import { readFileSync } from "node:fs";

import { Refused, type Corner, type Plan } from "../api/client";

export const PLAN = JSON.parse(readFileSync("../docs/examples/box-room.fogon.json", "utf8")) as Plan;

export const named = (name: string, plan: Plan = PLAN): Plan => ({ ...plan, name });

export const refused = (status: number, title = "refused"): Refused =>
  new Refused({ type: "problem:test", status, title }, status);

/** A server that keeps one corner as the real one does: revisions, keys, refusals; its wire can be cut either way. */
export class FakeServer {
  revision = 1;
  plan: Plan = named("first");
  /** How the wire is: whole, cut before a request arrives, or cut before its answer does. */
  wire: "whole" | "no-request" | "no-answer" = "whole";
  refuses: number | null = null;
  saves: { key: string; revision: number; name: string }[] = [];

  corner = (): Promise<Corner> =>
    this.wire === "whole" ? Promise.resolve(this.kept()) : Promise.reject(new TypeError("unreachable"));

  save = (revision: number, file: Plan, key: string): Promise<Corner> => {
    if (this.wire === "no-request") return Promise.reject(new TypeError("unreachable"));
    if (this.refuses !== null) return Promise.reject(refused(this.refuses));
    const before = this.saves.find((one) => one.key === key);
    if (!before) {
      if (revision !== this.revision) return Promise.reject(refused(412));
      this.revision += 1;
      this.plan = file;
      this.saves.push({ key, revision: this.revision, name: file.name });
    }
    if (this.wire === "no-answer") return Promise.reject(new TypeError("unreachable"));
    return Promise.resolve(this.kept(before?.revision));
  };

  /** Another window saves. */
  elsewhere(name: string): void {
    this.revision += 1;
    this.plan = named(name);
  }

  kept(revision = this.revision): Corner {
    const { name, brief, layout } = this.plan;
    return {
      id: 1,
      revision,
      updated_ms: 0,
      name,
      brief,
      layout,
      can_undo: true,
      can_redo: false,
    };
  }
}

/** A storage that lives in memory. */
export function memory(): Storage {
  const all = new Map<string, string>();
  return {
    get length() {
      return all.size;
    },
    key: (index) => [...all.keys()][index] ?? null,
    getItem: (name) => all.get(name) ?? null,
    setItem: (name, text) => void all.set(name, text),
    removeItem: (name) => void all.delete(name),
    clear: () => all.clear(),
  };
}

/** Timers that run when the test says so. */
export class Clock {
  #tasks: (() => void)[] = [];

  later = (_: number, task: () => void) => {
    this.#tasks.push(task);
    return () => {
      this.#tasks = this.#tasks.filter((one) => one !== task);
    };
  };

  /** Runs what waits, and lets all that follows from it settle. */
  async pass(): Promise<void> {
    const due = this.#tasks;
    this.#tasks = [];
    for (const task of due) task();
    await settle();
  }
}

export const settle = (): Promise<void> => new Promise((done) => setTimeout(done, 0));
