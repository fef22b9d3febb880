// A hand on a thing: it follows, lets go, or is broken off; afterwards nothing listens any more.
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import { hold } from "./hold";

type Listener = (event: unknown) => void;
let listeners: Map<string, Set<Listener>>;

beforeEach(() => {
  listeners = new Map();
  vi.stubGlobal("window", {
    addEventListener: (kind: string, listener: Listener) => {
      const known = listeners.get(kind) ?? new Set();
      listeners.set(kind, known.add(listener));
    },
    removeEventListener: (kind: string, listener: Listener) => listeners.get(kind)?.delete(listener),
  });
});
afterEach(() => vi.unstubAllGlobals());

const send = (kind: string, event: object = {}) =>
  [...(listeners.get(kind) ?? [])].forEach((listener) => listener(event));
const listening = () => [...listeners.values()].reduce((sum, known) => sum + known.size, 0);

function held() {
  const told: string[] = [];
  hold({
    drag: (_, live) => {
      told.push(live ? "follows" : "lies");
      return true;
    },
    onBreak: () => told.push("broken off"),
    onEnd: (moved) => told.push(moved ? "over, moved" : "over"),
  });
  return told;
}

test("a thing follows the hand and lies where it is let go", () => {
  const told = held();
  send("pointermove");
  send("pointermove");
  send("pointerup");
  expect(told).toEqual(["follows", "follows", "lies", "over, moved"]);
  expect(listening()).toBe(0);
  send("pointermove");
  expect(told).toHaveLength(4);
});

test("a press without a move changes nothing", () => {
  const told = held();
  send("pointerup");
  expect(told).toEqual(["over"]);
  expect(listening()).toBe(0);
});

test.each([
  ["Escape", "keydown", { key: "Escape", stopPropagation: () => undefined }],
  ["a pointer that is taken away", "pointercancel", {}],
])("%s breaks it off", (_, kind, event) => {
  const told = held();
  send("keydown", { key: "Shift" });
  send("pointermove");
  send(kind, event);
  expect(told).toEqual(["follows", "broken off", "over, moved"]);
  expect(listening()).toBe(0);
});
