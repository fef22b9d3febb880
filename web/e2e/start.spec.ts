// The first run and the second door: from nothing to a layout, and from what stands to what is wrong with it.
import { expect, test, type Page } from "@playwright/test";

import { reach, reading } from "./help";

const PAGES = ["Room", "You", "Shot", "Light", "Day", "Sound", "Money"];

test.beforeEach(async ({ page }) => {
  await page.goto("/");
  await page.evaluate(() => localStorage.clear());
});

async function next(page: Page, title: string): Promise<void> {
  await page.getByRole("button", { name: `Next: ${title}` }).click();
  await expect(page.getByRole("heading", { name: title, level: 2 })).toBeFocused();
}

test("fifteen answers on seven pages, every default marked", async ({ page }) => {
  const began = Date.now();
  await page.goto("/new");
  let answers = 0;
  const give = async (label: string, value: string) => {
    const field = page.getByLabel(label, { exact: true });
    if ((await field.evaluate((e) => e.tagName)) === "SELECT") await field.selectOption(value);
    else await field.fill(value);
    answers += 1;
  };
  await give("Width, along the back wall", "3.2");
  await give("Depth, back to front", "3.6");
  await expect(page.getByText("Assumed: change it if it is otherwise.")).toHaveCount(2);
  await give("Ceiling height", "2.5");
  await give("Door", "0");
  await expect(page.getByText("Assumed: change it if it is otherwise.")).toHaveCount(0);
  await expect(
    page.getByRole("img", { name: "Room 3.20 m wide, 3.60 m deep, seen from above" }),
  ).toBeVisible();
  await next(page, "You");
  await give("Your height", "1.80");
  await give("Where you talk", "chair");
  await next(page, "Shot");
  await give("What it is for", "audition-tape");
  await give("Camera", "phone");
  await next(page, "Light");
  await give("Main light", "panel");
  await give("To open the shadows", "none");
  await give("A small light from behind", "no");
  await next(page, "Day");
  await give("Largest window", "none");
  await next(page, "Sound");
  await give("Microphone", "lavalier");
  await next(page, "Money");
  await give("To spend", "250");
  await page.getByRole("button", { name: "Lay out the corner" }).click();
  await expect(page.getByRole("img", { name: "Plan, from above" })).toBeVisible();
  expect(answers).toBeLessThanOrEqual(15);
  // Said, not asserted: docs/PERFORMANCE.md holds the figure.
  console.log(`The first run took ${((Date.now() - began) / 1000).toFixed(1)} s.`);
  const id = /corners\/(\d+)/.exec(page.url())?.[1];
  const corner = (await (await page.request.get(`/api/v1/corners/${id}`)).json()) as {
    brief: {
      person: object;
      purpose: string;
      money: object;
      gear: Record<string, { figures_assumed?: boolean }>;
    };
    layout: { lights: object } | null;
  };
  expect(corner.brief.purpose).toBe("audition-tape");
  expect(corner.brief.person).toMatchObject({ stature_m: 1.8, posture: "seated" });
  expect(corner.brief.money).toMatchObject({ budget: 250 });
  expect(Object.values(corner.brief.gear).every((g) => g.figures_assumed)).toBe(true);
  expect(Object.keys(corner.layout?.lights ?? {})).toEqual(["key"]);
  const answered = (await page.request.get("/api/v1/corners")).ok();
  expect(answered).toBe(true);
});

test("pages are skipped, left and come back to; what is wrong is named on its page", async ({ page }) => {
  await page.goto("/new");
  await page.getByRole("button", { name: /^3 Shot/ }).click();
  await page.getByLabel("Camera", { exact: true }).selectOption("phone");
  await page.reload();
  await expect(page.getByRole("heading", { name: "Shot", level: 2 })).toBeVisible();
  await expect(page.getByLabel("Camera", { exact: true })).toHaveValue("phone");
  await page.getByRole("button", { name: "Skip the rest" }).click();
  await expect(page.getByRole("heading", { name: "Room", level: 2 })).toBeFocused();
  await expect(page.getByText(/Give a length, 0.50 m to 50.00 m/).first()).toBeVisible();
  await page.getByLabel("Width, along the back wall").fill("3");
  await page.getByLabel("Depth, back to front").fill("wide");
  await expect(page.getByText("“wide” is no length.")).toBeVisible();
  await page.getByLabel("Depth, back to front").fill("3.4");
  await page.getByRole("button", { name: "Skip the rest" }).click();
  await expect(page.getByRole("heading", { name: "You", level: 2 })).toBeFocused();
  for (const title of PAGES)
    await expect(page.getByRole("button", { name: new RegExp(title) }).first()).toBeVisible();
  await page.getByLabel("Your height").fill("5' 7\"");
  await page.getByRole("button", { name: "Skip the rest" }).click();
  await expect(page.getByRole("img", { name: "Plan, from above" })).toBeVisible();
});

test("a set-up that stands is told what is wrong and what to move for nothing", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("link", { name: "What is wrong with mine?" }).click();
  await page.getByLabel("Width, along the back wall").fill("3.6");
  await page.getByLabel("Depth, back to front").fill("4");
  await page.getByRole("button", { name: /^2 You/ }).click();
  await page.getByLabel("Your height").fill("1.75");
  await page.getByLabel("Where you talk").selectOption("chair");
  await page.getByRole("button", { name: /^8 As it stands/ }).click();
  const group = (name: string) => page.getByRole("group", { name });
  const give = async (name: string, label: string, value: string) =>
    group(name).getByLabel(label, { exact: true }).fill(value);
  await give("Your eyes, where you talk", "From the left wall", "1.8");
  await give("Your eyes, where you talk", "From the back wall", "1.2");
  await give("The lens", "From the left wall", "1.8");
  await give("The lens", "From the back wall", "2.4");
  await give("The lens", "Height", "1.6");
  await give("The lens", "Focal length, mm", "20");
  await give("The lens", "f-number", "2.8");
  await give("The main light, middle of its face", "From the left wall", "1.8");
  await give("The main light, middle of its face", "From the back wall", "2.6");
  await give("The main light, middle of its face", "Height", "2.0");
  await give("The microphone", "From the left wall", "2.6");
  await give("The microphone", "From the back wall", "2.6");
  await give("The microphone", "Height", "1.2");
  await page.getByRole("button", { name: "Tell me what is wrong" }).click();
  await expect(page.getByText(/Not ready: \d+ things stand in the way/)).toBeVisible();
  // The plan begins as the corner stands, and is judged as such.
  await page.goto(`${page.url()}/sound`);
  const far = await reading(page, "sound.microphone.distance_m");
  expect(Number(far)).toBeGreaterThan(1.3);
  await page.getByRole("link", { name: /\bMoney\b/ }).click();
  const changes = page.getByRole("heading", { name: "Free moves, from how it stands today" });
  await expect(changes).toBeVisible();
  const done = page.getByRole("button", { name: "Done: it stands so now" });
  await done.click();
  await expect(page.getByText("kept, revision 2")).toBeVisible();
});

test("the first run, a move, an undo and the card by keyboard alone", async ({ page }) => {
  await page.goto("/new");
  await reach(page, /^Width/);
  await page.keyboard.type("3.4");
  await reach(page, /^Depth/);
  await page.keyboard.type("3.6");
  await page.keyboard.press("Enter");
  await reach(page, /^Your height/);
  await page.keyboard.type("1.7");
  for (const title of PAGES.slice(2)) {
    await reach(page, new RegExp(`^Next: ${title}`));
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { name: title, level: 2 })).toBeFocused();
    await page.keyboard.press("Tab");
  }
  await reach(page, /^Lay out the corner/);
  await page.keyboard.press("Enter");
  await expect(page.getByRole("img", { name: "Plan, from above" })).toBeVisible();
  await reach(page, /\bLight\b/);
  await page.keyboard.press("Enter");
  // All readings together: a move may leave one of them as it was.
  const shown = async () => (await page.locator(".readings").allInnerTexts()).join("\n");
  await expect(page.locator(".readings").first()).toBeVisible();
  const before = await shown();
  await reach(page, /^Key\. Arrow keys move it/);
  await page.keyboard.press("Shift+ArrowUp");
  await expect.poll(shown).not.toBe(before);
  await page.keyboard.press("Control+z");
  await expect.poll(shown).toBe(before);
  await page.keyboard.press("Shift+Tab");
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await reach(page, /\bCard\b/);
  await page.keyboard.press("Enter");
  await expect(page.frameLocator("iframe").getByText("1 S")).toBeVisible();
  await reach(page, /^Print$/);
});
