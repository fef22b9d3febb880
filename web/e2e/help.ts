// What the end-to-end tests share: the demo's plan, corners of their own, readings on the screen.
import { setTimeout } from "node:timers/promises";

import { expect, type Locator, type Page, type Request } from "@playwright/test";

export type Json = Record<string, never>;

/** The server closes what was idle for ten seconds, at times just as it is asked again: then it is asked once more. */
export const AGAIN = { maxRetries: 2 };

/** The demo corner's plan file, as the application hands it out. */
export async function demoPlan(page: Page): Promise<Json> {
  const corners = (await (await page.request.get("/api/v1/corners?name=Field%20botany", AGAIN)).json()) as {
    id: number;
    name: string;
  }[];
  const demo = corners.find((c) => c.name.startsWith("Field botany"));
  return (await (await page.request.get(`/api/v1/corners/${demo?.id}/file`, AGAIN)).json()) as Json;
}

/** Keeps a plan as a corner of its own; its id. */
export async function keep(page: Page, plan: unknown): Promise<number> {
  const answer = await page.request.post("/api/v1/corners", { data: plan, ...AGAIN });
  expect(answer.status(), await answer.text()).toBe(201);
  return ((await answer.json()) as { id: number }).id;
}

export async function changedPlan(page: Page, name: string, change: (plan: never) => void): Promise<number> {
  const plan = structuredClone(await demoPlan(page)) as unknown as { name: string };
  plan.name = name;
  change(plan as never);
  return keep(page, plan);
}

/** A corner of its own, opened at a place. */
export async function open(page: Page, name: string, path = ""): Promise<number> {
  const id = await changedPlan(page, name, () => undefined);
  await page.goto(`/corners/${id}${path}`);
  return id;
}

/** The corner as the server has it. */
export async function stored<T = { revision: number }>(page: Page, id: number): Promise<T> {
  return (await (await page.request.get(`/api/v1/corners/${id}`, AGAIN)).json()) as T;
}

/** The server has this revision of a corner, and the page says that all is saved. */
export async function saved(page: Page, id: number, revision: number): Promise<void> {
  await expect.poll(async () => (await stored(page, id)).revision).toBe(revision);
  await expect(page.getByRole("banner").getByText("saved", { exact: true })).toBeVisible();
}

/** Questions of a page that are not answered yet. */
const OPEN = new WeakMap<Page, Set<Request>>();

function unanswered(page: Page): Set<Request> {
  const known = OPEN.get(page);
  if (known) return known;
  const all = new Set<Request>();
  OPEN.set(page, all);
  page.on("request", (asked) => all.add(asked));
  page.on("requestfinished", (asked) => all.delete(asked));
  page.on("requestfailed", (asked) => all.delete(asked));
  return all;
}

/**
 * Goes to a view, by its address or, as a link does, from one to the other, and waits until it is whole: what is shown before its
 * numbers have come has other words, colours and names. A page is at rest for a moment between two requests too; that it still
 * waits for one is said in its status.
 */
export async function settled(page: Page, path: string): Promise<void> {
  const open = unanswered(page);
  if (await page.locator("main").isVisible())
    await page.evaluate((to) => {
      history.pushState(null, "", to);
      dispatchEvent(new PopStateEvent("popstate"));
    }, path);
  else await page.goto(path);
  await expect(page.locator("main")).toBeVisible();
  for (let quiet = 0; quiet < 5; quiet = open.size === 0 ? quiet + 1 : 0) await setTimeout(80);
  // The kit shows what waiting looks like.
  if (path !== "/kit") await expect(page.getByRole("status").filter({ hasText: /…$/ })).toHaveCount(0);
}

export const section = (page: Page, title: string) =>
  page.locator("section").filter({ has: page.getByRole("heading", { name: title, exact: true }) });

/** A step in the order of the work. */
export const step = (page: Page, name: string) =>
  page.getByRole("navigation", { name: "Order of the work" }).locator(`a[href$="/${name.toLowerCase()}"]`);

/** Opens a part of the step that is open. */
export async function part(page: Page, name: string): Promise<void> {
  await page.getByRole("tab", { name, exact: true }).click();
  await expect(page.getByRole("tab", { name, exact: true })).toHaveAttribute("aria-selected", "true");
}

/** An entry of the menu of a corner. */
export async function choose(page: Page, entry: string): Promise<void> {
  await page.getByRole("button", { name: "More", exact: true }).click();
  await page.getByRole("menuitem", { name: entry }).click();
}

export interface Hung {
  brief: { units: string; gear: Record<string, object>; today?: Record<string, unknown> };
  layout: Record<string, unknown> & { treatment?: object };
}

/** A wool panel owned, and hung on the right wall of the layout where that is asked for. */
export const withPanel = (hung: boolean) => (plan: Hung) => {
  plan.brief.gear.wool = {
    kind: "treatment",
    label: "Wool panel",
    material: "panel_50mm",
    width_m: 1.2,
    height_m: 0.6,
    thickness_m: 0.05,
  };
  if (hung) plan.layout.treatment = { wool: { gear: "wool", on: "wall-1", position_m: [3.4, 1.9, 1.4] } };
};

/** The numeral of a reading as it stands on the screen. */
export async function reading(page: Page, id: string): Promise<string> {
  return (await page.locator(`[data-reading="${id}"] .numeral`).first().innerText()).trim();
}

/** A thing in the list of a step. */
export const thing = (page: Page, name: string) =>
  page.getByRole("main").getByRole("group", { name, exact: true });

/** What held or drew the last move. */
export const notes = (page: Page) => page.getByRole("status", { name: "Last move" });

export const grip = (page: Page, name: string) => page.locator(`[data-grip="${name}"]`);

/** Middle of an element on the screen. */
export async function middle(of: Locator): Promise<[number, number]> {
  const box = await of.boundingBox();
  if (!box) throw new Error("not on the screen");
  return [box.x + box.width / 2, box.y + box.height / 2];
}

/** Takes hold and moves; the button stays down. */
export async function drag(
  page: Page,
  from: [number, number],
  by: [number, number],
  steps = 8,
): Promise<void> {
  await page.mouse.move(...from);
  await page.mouse.down();
  for (let i = 1; i <= steps; i += 1)
    await page.mouse.move(from[0] + (by[0] * i) / steps, from[1] + (by[1] * i) / steps);
}

/** Tabs on until something of this name has the focus. */
export async function reach(page: Page, name: RegExp): Promise<void> {
  for (let presses = 0; presses < 150; presses += 1) {
    const focused = await page.evaluate(() => {
      const e = document.activeElement as HTMLElement | null;
      if (e === document.body) return "";
      const label =
        e instanceof HTMLInputElement || e instanceof HTMLSelectElement ? e.labels?.[0]?.innerText : null;
      return e?.getAttribute("aria-label") ?? label ?? e?.innerText ?? "";
    });
    if (name.test(focused)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`${String(name)} is not reached`);
}

/** A WAV file (16 bits, one channel, 48 kHz) of so many samples. */
export function wav(samples: number, sample: (index: number) => number): Buffer {
  const file = Buffer.alloc(44 + 2 * samples);
  file.write("RIFF", 0);
  file.writeUInt32LE(36 + 2 * samples, 4);
  file.write("WAVEfmt ", 8);
  file.writeUInt32LE(16, 16);
  file.writeUInt16LE(1, 20);
  file.writeUInt16LE(1, 22);
  file.writeUInt32LE(48_000, 24);
  file.writeUInt32LE(96_000, 28);
  file.writeUInt16LE(2, 32);
  file.writeUInt16LE(16, 34);
  file.write("data", 36);
  file.writeUInt32LE(2 * samples, 40);
  for (let index = 0; index < samples; index += 1)
    file.writeInt16LE(Math.round(sample(index)), 44 + 2 * index);
  return file;
}
