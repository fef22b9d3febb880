// The shot as a workplace: chart, lenses, guides, two pictures; comparing, trying out, schools and the shelf.
import { expect, test, type Page } from "@playwright/test";

import { changedPlan, open, reading, saved, section, settled } from "./help";

const dot = (page: Page) => page.locator("[data-grip=chart-camera]");
const distance = (page: Page) => reading(page, "shot.camera.distance_m");

test("the camera is dragged along the chart, and by keys", async ({ page }) => {
  const id = await open(page, "Charted", "/shot");
  await expect(dot(page)).toBeVisible();
  const before = await distance(page);
  const box = await dot(page).boundingBox();
  if (!box) throw new Error("no dot");
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x - 40, y + 8, { steps: 6 });
  // While the button is still down.
  await expect.poll(() => distance(page)).not.toBe(before);
  await page.mouse.up();
  await saved(page, id, 2);
  const after = Number(await distance(page));
  expect(after).toBeLessThan(Number(before));
  // Left and right keep the wanted frame.
  await dot(page).focus();
  await page.keyboard.press("ArrowLeft");
  await saved(page, id, 3);
  await expect.poll(async () => Number(await distance(page))).toBeLessThan(after);
  // Ten quick presses are ten steps of two centimetres.
  const here = Number(await distance(page));
  for (let press = 0; press < 10; press += 1) await page.keyboard.press("ArrowRight");
  await expect.poll(async () => Math.abs(Number(await distance(page)) - here - 0.2)).toBeLessThan(0.015);
  // Broken off, it stands where it stood.
  const held = await distance(page);
  const again = await dot(page).boundingBox();
  if (!again) throw new Error("no dot");
  await page.mouse.move(again.x + again.width / 2, again.y + again.height / 2);
  await page.mouse.down();
  await page.mouse.move(again.x - 60, again.y + 20, { steps: 4 });
  await page.keyboard.press("Escape");
  await page.mouse.up();
  await expect.poll(() => distance(page)).toBe(held);
});

test("a focal length is taken from the table, and on the plan", async ({ page }) => {
  const id = await open(page, "Lenses", "/shot/choices");
  const table = section(page, "This frame at each focal length");
  await table.getByRole("button", { name: /^35\smm, as 5/ }).click();
  await saved(page, id, 2);
  await expect(table.getByText(/✓ 35\smm/)).toBeVisible();
  await expect(page.getByText(/^35 mm · f/)).toBeVisible();
  // The edge of the picture on the plan zooms.
  await page.locator("[data-grip=plan-camera-place]").focus();
  const edge = page.locator("[data-grip=plan-camera-zoom]");
  await edge.press("Shift+ArrowUp");
  await saved(page, id, 3);
  await expect(page.getByText(/^35 mm · f/)).toBeHidden();
});

test("guides are switched on and stay on; two focal lengths stand side by side", async ({ page }) => {
  await open(page, "Guides", "/shot");
  const picture = page.getByRole("img", { name: "The picture as the lens sees it" });
  const cut = picture.locator(".ink-vertical-cut").first();
  await expect(cut).toHaveCSS("display", "none");
  await page.getByRole("button", { name: "Show", exact: true }).click();
  await page.getByRole("button", { name: "9:16" }).click();
  await expect(cut).toHaveCSS("display", "inline");
  await page.reload();
  await expect(cut).toHaveCSS("display", "inline");
  await page.getByRole("button", { name: "Show", exact: true }).click();
  await expect(page.getByRole("button", { name: /9:16/ })).toHaveAttribute("aria-pressed", "true");
  await page.keyboard.press("Escape");
  await page.getByRole("tab", { name: "Choices" }).click();
  const two = section(page, "Two focal lengths side by side");
  await expect(two.getByRole("img")).toHaveCount(2);
  await two.getByLabel("Left").selectOption({ index: 2 });
  await expect(two.getByRole("img").first()).toHaveAccessibleName(/: (18|20) mm/);
});

test("what is recorded is told, and what ends too soon stands in the way", async ({ page }) => {
  await open(page, "Session", "/shelf");
  const add = page.getByRole("region", { name: "Add to the shelf" });
  await add.getByLabel("Add a thing of this kind").selectOption("card");
  await add.getByRole("button", { name: "Add it" }).click();
  await expect(page.getByRole("region", { name: "Cards" })).toBeVisible();
  await page.getByRole("link", { name: /^Shot/ }).click();
  await page.getByRole("tab", { name: "By hand" }).click();
  const session = page.getByLabel(/^Length of a session/);
  await session.fill("400");
  await session.press("Enter");
  await expect(page.getByText(/^The card holds \d+ of the 400 minutes planned\.$/)).toBeVisible();
  await session.fill("");
  await session.press("Enter");
  await expect(page.getByText(/^The card holds/)).toBeHidden();
});

test("layouts are compared and a part of one is taken", async ({ page }) => {
  const id = await open(page, "Compared", "/you");
  await expect(page.getByText(/^2\. /)).toBeVisible();
  await section(page, "Layouts found, best first").getByRole("link", { name: "Compare" }).click();
  await expect(page).toHaveURL(new RegExp(`/corners/${id}/compare`));
  await expect(page.getByRole("heading", { name: "What differs" })).toBeVisible();
  await page.getByRole("button", { name: "Use its microphone" }).click();
  await saved(page, id, 2);
  // The first save against now: the microphone is what differs.
  await page.getByRole("combobox", { name: "Right" }).selectOption({ label: await label(page, "Save 1,") });
  await expect(page.getByRole("row", { name: /^Mouth to microphone/ })).toBeVisible();
  await page.getByRole("button", { name: "Use all of it" }).click();
  await saved(page, id, 3);
});

/** The full label of an option that begins so. */
async function label(page: Page, start: string): Promise<string> {
  const options = page.getByRole("combobox", { name: "Right" }).locator("option");
  await expect(options.filter({ hasText: start })).toHaveCount(1);
  return (await options.filter({ hasText: start }).innerText()).trim();
}

test("schools tell what they would change here, and are chosen", async ({ page }) => {
  const id = await open(page, "Schooled", "/schools");
  const lens = page.getByRole("listitem").filter({ hasText: "Lens and distance" }).first();
  await expect(lens.getByText(/further than the shot needs/)).toBeVisible();
  const wide = lens.getByRole("listitem").filter({ hasText: "Wide lens, near" });
  await wide.getByRole("button", { name: "Choose" }).click();
  await saved(page, id, 2);
  await expect(wide.getByText("✓ chosen")).toBeVisible();
});

test("the room tells its depths, and a wall is done up", async ({ page }) => {
  const id = await open(page, "Grounded", "/room");
  await expect(
    page.getByRole("region", { name: "Depth, each way you can face" }).getByText("2.90 m").first(),
  ).toBeVisible();
  await expect(section(page, "Effect of the distance behind you").getByText(/now$/)).toBeVisible();
  await page.getByRole("tab", { name: "By hand" }).click();
  await page.getByLabel("Right wall", { exact: true }).selectOption("dressed");
  await saved(page, id, 2);
});

test("the two pictures follow the person whom they show", async ({ page }) => {
  const id = await open(page, "Not stale", "/shot/choices");
  const pictures = section(page, "Two focal lengths side by side").getByRole("img");
  await expect(pictures).toHaveCount(2);
  const drawn = () => pictures.first().innerHTML();
  const before = await drawn();
  await page.goto(`/corners/${id}/you/by-hand`);
  const stature = page.getByLabel("Stature");
  await stature.fill("1.95 m");
  await stature.press("Enter");
  await saved(page, id, 2);
  await page.getByRole("link", { name: /^Shot/ }).click();
  await page.getByRole("tab", { name: "Choices" }).click();
  await expect(pictures).toHaveCount(2);
  await expect.poll(drawn).not.toBe(before);
});

test("second angles find a place, show what they cover, and go", async ({ page }) => {
  const id = await open(page, "Angles", "/shot/choices");
  await page.getByRole("button", { name: "Add a view of the bench from above" }).click();
  await saved(page, id, 2);
  await expect(page.getByRole("img", { name: "What the overhead sees" })).toBeVisible();
  await expect(page.getByText(/Overhead, 16 mm, covers \d\.\d\d m/)).toBeVisible();
  await expect(page.locator("[data-grip=plan-overhead-place]")).toBeVisible();
  await page.getByRole("button", { name: "Remove overhead" }).click();
  await saved(page, id, 3);
  await expect(page.getByRole("img", { name: "What the overhead sees" })).toBeHidden();
});

test("the chart fits a phone, and so do comparing and the shelf", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const id = await changedPlan(page, "On a phone", () => undefined);
  for (const view of ["shot", "room", "compare", "schools", "shelf"]) {
    await settled(page, `/corners/${id}/${view}`);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth);
    expect(wide, view).toBeLessThanOrEqual(390);
  }
  await page.goto(`/corners/${id}/shot`);
  await dot(page).scrollIntoViewIfNeeded();
  const box = await dot(page).boundingBox();
  // A finger finds it.
  expect(Math.min(box?.width ?? 0, box?.height ?? 0)).toBeGreaterThanOrEqual(24);
});
