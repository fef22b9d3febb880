// The path of a first corner, piece by piece: from *New corner* to a logged session, by any hand.
import { expect, type Locator, type Page } from "@playwright/test";

import type { Hand } from "./hand";

/** Who comes, where they film and with what, in the words that the first run shows. */
export interface Told {
  name: string;
  units?: "Feet and inches";
  room: [width: string, depth: string, height: string];
  door: string;
  window: string;
  furnishing: string;
  stature: string;
  where: string;
  purpose: string;
  camera: string;
  lamps?: Record<string, number>;
  microphones?: Record<string, number>;
  budget: string;
}

/** What can be told to nobody. */
const NONSENSE = /NaN|undefined|Infinity|\[object|null\b/;

/** What no view may do: tell nonsense, scroll sideways. */
export async function looksRight(page: Page, what: string): Promise<void> {
  expect(await page.locator("body").innerText(), what).not.toMatch(NONSENSE);
  const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(over, `${what} scrolls sideways`).toBeLessThanOrEqual(0);
}

const button = (page: Page, name: string) => page.getByRole("button", { name, exact: true });

async function counts(page: Page, hand: Hand, kinds: Record<string, number> = {}): Promise<void> {
  await hand.press(button(page, "None of these"));
  for (const [kind, many] of Object.entries(kinds))
    for (let i = 0; i < many; i += 1) await hand.press(button(page, `One more: ${kind}`));
}

/** The first run, from the list of corners to a corner laid out; its id. */
export async function firstRun(page: Page, hand: Hand, told: Told): Promise<number> {
  const next = (title: string) => hand.press(button(page, `Next: ${title}`));
  await page.goto("/");
  await hand.press(page.getByRole("link", { name: "New corner" }).first());
  if (told.units) await hand.press(page.getByRole("radio", { name: told.units }));
  const [width, depth, height] = told.room;
  await hand.fill(page.getByLabel("Width, along the back wall"), width);
  await hand.fill(page.getByLabel("Depth, back to front"), depth);
  await hand.fill(page.getByLabel("Ceiling height"), height);
  await hand.pick(page.getByLabel("Door"), told.door);
  await hand.pick(page.getByLabel("Largest window"), told.window);
  await hand.pick(page.getByLabel("What is in the room"), told.furnishing);
  await next("You");
  await hand.fill(page.getByLabel("Your height"), told.stature);
  await hand.pick(page.getByLabel("Where you talk"), told.where);
  await next("Shot");
  await hand.pick(page.getByLabel("What it is for"), told.purpose);
  await hand.press(page.getByRole("radio", { name: told.camera, exact: true }));
  await next("Light");
  await counts(page, hand, told.lamps);
  await next("Sound");
  await counts(page, hand, told.microphones);
  await next("Money");
  await hand.fill(page.getByLabel("Budget"), told.budget);
  await looksRight(page, "the first run");
  await hand.press(button(page, "Lay out the corner"));
  await expect(page.getByRole("img", { name: "The picture as the lens sees it" })).toBeVisible();
  return Number(/corners\/(\d+)/.exec(page.url())?.[1]);
}

/** The marks on the floor, one after the other; how many there are. */
export async function marks(page: Page, hand: Hand): Promise<number> {
  const many = Number(/of (\d+)/.exec(await page.getByText(/^\d+ of \d+$/).innerText())?.[1]);
  for (let mark = 0; mark < many; mark += 1) await hand.press(button(page, "Done ✓"));
  return many;
}

/** A test take with the voice that ships, as this corner records it; false where nothing records. */
export async function testTake(page: Page, hand: Hand, id: number): Promise<boolean> {
  const plan: unknown = await (await page.request.get(`/api/v1/corners/${String(id)}/file`)).json();
  const heard = await page.request.post("/api/v1/hear", { data: { plan } });
  if (heard.status() !== 200) return false;
  const recording = { name: "test.wav", mimeType: "audio/wav", buffer: await heard.body() };
  await hand.give(button(page, "Pick a recording"), recording);
  await hand.press(button(page, "Keep it in the logbook"));
  await expect(page.getByText("✓ In the logbook")).toBeVisible();
  return true;
}

/** One session with one take, and what was learnt. */
export async function session(page: Page, hand: Hand): Promise<void> {
  const [begin, start] = [button(page, "Begin a session"), button(page, "Start")] as [Locator, Locator];
  await expect(begin.or(start)).toBeVisible();
  if (await begin.isVisible()) await hand.press(begin);
  await hand.press(start);
  await hand.press(button(page, "Stop"));
  await hand.press(button(page, "Keep"));
  await hand.press(button(page, "Next"));
  await hand.press(button(page, "End the session"));
  await hand.fill(page.getByLabel(/What did you learn/), "It works");
  await hand.press(button(page, "End it"));
  await expect(page.getByText("It works")).toBeVisible();
}
