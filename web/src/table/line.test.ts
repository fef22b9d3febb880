// One question at a time: in order, none lost but those that only ask.
import { describe, expect, it } from "vitest";

import { Line } from "./line";

describe("the line", () => {
  it("runs in order, drops what only asks, and goes on after a failure", async () => {
    const line = new Line();
    const done: string[] = [];
    const add = (what: string, asks = false) =>
      line.add({
        what,
        asks,
        run: async (word) => {
          await Promise.resolve();
          if (word === "bad") throw new Error(word);
          done.push(word);
        },
      });
    const all = [add("first"), add("ask 1", true), add("ask 2", true), add("bad"), add("last")];
    const outcomes = await Promise.allSettled(all);
    expect(done).toEqual(["first", "last"]);
    expect(outcomes.map((one) => one.status)).toEqual([
      "fulfilled",
      "fulfilled",
      "fulfilled",
      "rejected",
      "fulfilled",
    ]);
    expect(line.isFree).toBe(true);
  });
});
