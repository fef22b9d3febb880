import { expect, it } from "vitest";

import { lineOfWork } from "./taken";

it("has one at work at a time, passes over who has gone, and goes on after a failure", async () => {
  const inTurn = lineOfWork();
  const here = new AbortController().signal;
  const gone = new AbortController();
  const begun: string[] = [];
  let end: () => void = () => undefined;
  const first = inTurn(here, () => {
    begun.push("first");
    return new Promise<void>((done) => (end = done));
  });
  const work = (name: string) => () => {
    begun.push(name);
    return Promise.resolve(name);
  };
  const left = inTurn(gone.signal, work("left"));
  const fails = inTurn(here, () => Promise.reject(new Error("no picture")));
  const after = inTurn(here, work("after"));
  await Promise.resolve();
  gone.abort();
  expect(begun).toEqual(["first"]);
  end();
  await first;
  await expect(left).rejects.toThrow();
  await expect(fails).rejects.toThrow("no picture");
  expect(await after).toBe("after");
  expect(begun).toEqual(["first", "after"]);
});
