// A page left with changes under way and opened again: nothing is lost, nothing is saved twice.
import { afterEach, beforeEach, expect, it, vi } from "vitest";

import { api, Refused, type Corner } from "../api/client";
import { leaveWith, opened } from "./leaving";

const corner = (revision: number) => ({ id: 7, revision }) as Corner;
const file = { format: "fogon.plan", name: "Left" };
const tab = new Map<string, string>();
const sent = vi.fn();

beforeEach(() => {
  tab.clear();
  vi.stubGlobal("fetch", sent.mockReset().mockResolvedValue(new Response()));
  vi.stubGlobal("sessionStorage", {
    getItem: (key: string) => tab.get(key) ?? null,
    setItem: (key: string, value: string) => void tab.set(key, value),
    removeItem: (key: string) => void tab.delete(key),
  });
  vi.spyOn(api, "corner").mockResolvedValue(corner(4));
});

afterEach(() => {
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

it("saves what did not arrive, once", async () => {
  const save = vi.spyOn(api, "save").mockResolvedValue(corner(4));
  leaveWith(7, 3, file);
  expect(sent).toHaveBeenCalledWith("/api/v1/corners/7", expect.objectContaining({ keepalive: true }));
  expect((await opened(7)).revision).toBe(4);
  expect(save).toHaveBeenCalledExactlyOnceWith(7, 3, file);
  await opened(7);
  await opened(8);
  expect(save).toHaveBeenCalledTimes(1);
});

it("shows what arrived by itself, and asks again where the server was away", async () => {
  const save = vi.spyOn(api, "save").mockRejectedValueOnce(new TypeError("no connection"));
  leaveWith(7, 3, file);
  await expect(opened(7)).rejects.toThrow("no connection");
  save.mockRejectedValueOnce(new Refused({ type: "about:blank", title: "Outdated", status: 412 }, 412));
  expect((await opened(7)).revision).toBe(4);
  expect(tab.size).toBe(0);
});

it("does without where the tab has no room", async () => {
  vi.stubGlobal("sessionStorage", {
    getItem: () => null,
    setItem: () => {
      throw new Error("full");
    },
  });
  leaveWith(7, 3, file);
  expect(sent).toHaveBeenCalledTimes(1);
  expect((await opened(7)).revision).toBe(4);
});
