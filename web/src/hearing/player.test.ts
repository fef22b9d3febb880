// Playing two takes as one: one playback at a time, and none that cannot be stopped.
import { beforeEach, expect, test, vi } from "vitest";

import { Player, type Take } from "./player";

let started = 0;
let stopped = 0;

const parameter = () => ({
  value: 0,
  cancelScheduledValues: () => undefined,
  setValueAtTime: () => undefined,
  linearRampToValueAtTime: () => undefined,
  setTargetAtTime: () => undefined,
});

class Context {
  state = "running";
  currentTime = 0;
  destination = {};
  createBufferSource = () => ({
    connect: (to: unknown) => to,
    disconnect: () => undefined,
    start: () => (started += 1),
    stop: () => (stopped += 1),
  });
  createGain = () => ({ gain: parameter(), connect: (to: unknown) => to, disconnect: () => undefined });
  close = () => Promise.resolve();
}

beforeEach(() => {
  [started, stopped] = [0, 0];
  vi.stubGlobal("AudioContext", Context);
});

const take = { buffer: { duration: 1 } as AudioBuffer, gainDb: 0, loudnessLufs: -23 } satisfies Take;

/** Takes whose decoding ends when the test says so. */
function decoding() {
  let done: (takes: Take[]) => void = () => undefined;
  const load = () => new Promise<Take[]>((resolve) => (done = resolve));
  return { load, end: () => done([take, take]) };
}

test("a second press while takes are decoded plays once", async () => {
  const player = new Player(() => undefined);
  const [first, second] = [decoding(), decoding()];
  const presses = [player.play(first.load, "a", "matched"), player.play(second.load, "a", "matched")];
  first.end();
  second.end();
  expect(await Promise.all(presses)).toEqual([false, true]);
  expect(started).toBe(2);
});

test("a page that is left while takes are decoded plays nothing", async () => {
  const player = new Player(() => undefined);
  const { load, end } = decoding();
  const press = player.play(load, "a", "matched");
  player.close();
  end();
  expect(await press).toBe(false);
  expect(started).toBe(0);
});

test("a press while something plays stops it first", async () => {
  const player = new Player(() => undefined);
  await player.play(() => Promise.resolve([take, take]), "a", "matched");
  await player.play(() => Promise.resolve([take, take]), "b", "recorded");
  expect([started, stopped]).toEqual([4, 2]);
});
