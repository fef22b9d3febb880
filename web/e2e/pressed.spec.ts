// Anything is pressed, in any order, on every step: nothing breaks, what is seen is what is saved, and undo leads all the way back.
import { expect, test, type Page } from "@playwright/test";

import { open, step, stored } from "./help";
import { looksRight } from "./path";
import { dice } from "./random";

/** What is left alone: it leaves the corner, asks for a file or a printer, deletes, or works for longer than a press. */
const NOT =
  /^(fogon|Undo|Redo|Print|Save|Delete|Read a table|Choose a file|Pick a|Place everything anew|Lay out|Let a phone in|Lay it step|Play|Frame the shot|Go to|More|Compare|Time yourself|Tell where)/i;

/** What a change of the page has taken away is not waited for. */
const SOON = { timeout: 2000 };

/** Presses one of the things in the step that can be pressed; what it was called, or nothing where none was found. */
async function pressOne(
  page: Page,
  below: (most: number) => number,
  done: readonly string[],
): Promise<string | null> {
  const things = page
    .getByRole("main")
    .locator(
      "button:visible:not([disabled]), [role=tab]:visible, input[type=checkbox]:visible, summary:visible",
    );
  const many = await things.count();
  for (let attempt = 0; attempt < 12; attempt += 1) {
    const one = things.nth(below(many));
    const name = await one
      .evaluate((e) => (e.getAttribute("aria-label") ?? (e as HTMLElement).innerText).trim(), undefined, SOON)
      .catch(() => null);
    if (name === null || NOT.test(name)) continue;
    // What has not been pressed yet comes first.
    if (done.includes(name) && attempt < 8) continue;
    await one.scrollIntoViewIfNeeded(SOON).catch(() => undefined);
    const isDone = await one.click(SOON).then(
      () => true,
      () => false,
    );
    if (isDone) return name;
  }
  return null;
}

/** The plan as it lies in the file, without what a save adds. */
async function planOf(page: Page, id: number): Promise<unknown> {
  return (await page.request.get(`/api/v1/corners/${String(id)}/file`)).json();
}

const STEPS = ["Room", "You", "Shot", "Light", "Day", "Sound", "Money", "Card"];
const PRESSES = Number(process.env.FOGON_PRESSES ?? 16);

/** Walks, each by other dice: `FOGON_WALKS=10` for a long look. */
const WALKS = Number(process.env.FOGON_WALKS ?? 1);

for (let seed = 1; seed <= WALKS; seed += 1)
  test(`${String(PRESSES)} presses anywhere, walk ${String(seed)}`, async ({ page }) => {
    test.setTimeout(60_000 + 60_000 * PRESSES);
    const faults: string[] = [];
    page.on("pageerror", (fault) => faults.push(String(fault)));
    page.on("console", (said) => said.type() === "error" && faults.push(said.text()));
    const id = await open(page, `Pressed ${String(seed)}`, "/room");
    await expect(page.getByRole("img", { name: "Plan, from above" })).toBeVisible();
    const before = await planOf(page, id);
    const roll = dice(seed);
    const below = (most: number) => Math.floor(roll() * most);
    const done: string[] = [];
    const isChanged = async () => (await stored(page, id)).revision > 1;
    // Goes on, within bounds, until something of it has changed the plan: many presses only open or choose what is shown.
    for (let press = 0; press < PRESSES || (press < 4 * PRESSES && !(await isChanged())); press += 1) {
      if (press % 5 === 0) await step(page, STEPS[below(STEPS.length)] ?? "Room").click();
      const name = await pressOne(page, below, done);
      if (name !== null) done.push(name);
      // What opens over the page is looked at and closed.
      if (await page.locator("[role=dialog], [role=alertdialog]").first().isVisible())
        await page.keyboard.press("Escape");
      expect(faults, done.join(" > ")).toEqual([]);
      await expect(page.getByRole("navigation", { name: "Order of the work" })).toBeVisible();
    }
    await looksRight(page, done.join(" > "));
    expect(done.length).toBeGreaterThan(PRESSES / 2);
    await expect.poll(isChanged, done.join(" > ")).toBe(true);
    await expect(page.getByRole("banner").getByText("saved", { exact: true })).toBeVisible();
    // What is seen is what is saved.
    const verdict = () => page.getByRole("banner").getByRole("link", { name: /ready/i }).innerText();
    const seen = await verdict();
    await page.reload();
    await expect(page.getByRole("banner").getByRole("link", { name: /ready/i })).toBeVisible();
    expect(await verdict(), done.join(" > ")).toBe(seen);
    // All the way back.
    const undo = page.getByRole("button", { name: "Undo" });
    for (let back = 0; back < 12 * PRESSES; back += 1) {
      const { revision, can_undo } = await stored<{ revision: number; can_undo: boolean }>(page, id);
      if (!can_undo) break;
      await undo.click();
      await expect.poll(async () => (await stored(page, id)).revision).toBeGreaterThan(revision);
      await expect(page.getByRole("banner").getByText("saved", { exact: true })).toBeVisible();
    }
    await expect(undo).toBeDisabled();
    expect(await planOf(page, id), done.join(" > ")).toEqual(before);
  });
