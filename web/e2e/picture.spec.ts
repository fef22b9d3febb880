// The photograph: coarse at once, then finer; what lies over it; what a click tells; the line drawing where it is wanted.
import { expect, test, type Page } from "@playwright/test";

import { open } from "./help";

test.use({ storageState: { cookies: [], origins: [] } });
test.describe.configure({ mode: "serial" });

const photo = (page: Page) => page.locator("[data-photo]").first();
const finished = (page: Page) =>
  expect(photo(page)).toHaveAttribute("data-photo", "finished", { timeout: 60_000 });

/** Mean of what stands on the canvas, 0 to 255. */
const brightness = (page: Page) =>
  page.locator("canvas").evaluate((canvas: HTMLCanvasElement) => {
    const { data } = canvas.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height) ?? { data: [] };
    let sum = 0;
    for (let at = 0; at < data.length; at += 4) sum += data[at] ?? 0;
    return (4 * sum) / data.length;
  });

test("the photograph gets finer, follows a dial, and tells what is at a place", async ({ page }) => {
  await open(page, "Photograph", "/light/by-hand");
  await finished(page);
  const before = await brightness(page);
  expect(before).toBeGreaterThan(20);
  const picture = page.getByRole("img", { name: "The picture as the lens sees it" });
  const box = await picture.boundingBox();
  if (!box) throw new Error("the picture is shown");
  await picture.click({ position: { x: box.width / 2, y: box.height * 0.36 } });
  const told = page.getByRole("status", { name: "What is there" });
  await expect(told).toContainText(/skin: [+−±]\d\.\d stops from the face/);
  await page.getByRole("button", { name: "Put away" }).click();
  await expect(told).toHaveCount(0);
  const key = page.getByRole("main").getByRole("group", { name: "Key", exact: true });
  await key.getByRole("button", { name: /^Key/ }).click();
  const dial = key.getByRole("textbox", { name: /^Dial/ });
  await dial.fill("10");
  await dial.press("Enter");
  await expect.poll(() => brightness(page)).toBeLessThan(0.8 * before);
});

test("stops and the line drawing are chosen, and stay chosen", async ({ page }) => {
  await open(page, "Overlays", "/light");
  await finished(page);
  const show = page.getByRole("button", { name: "Show", exact: true });
  await show.click();
  await page.getByRole("radio", { name: "Stops, from the face" }).click();
  await page.keyboard.press("Escape");
  await expect(photo(page).getByText(/^[+−±]\d\.\d$/)).not.toHaveCount(0);
  await show.click();
  await page.getByRole("radio", { name: "Line drawing" }).click();
  await page.keyboard.press("Escape");
  await expect(photo(page)).toHaveCount(0);
  await page.reload();
  const drawn = page.getByRole("img", { name: "The picture as the lens sees it" });
  await expect(drawn.locator(".ink-head").first()).toBeVisible();
  await expect(page.locator("canvas")).toHaveCount(0);
});

test("two pictures stand side by side, come closer to the eyes, and are saved as one", async ({ page }) => {
  await open(page, "Pair", "/compare");
  const left = page.getByRole("img", { name: /^The picture: As it is now/ });
  const address = () => left.getAttribute("src");
  await expect.poll(address, { timeout: 60_000 }).toMatch(/^data:image\/png/);
  const whole = await address();
  await page.getByRole("button", { name: "Closer to the eyes" }).click();
  await expect.poll(address, { timeout: 60_000 }).not.toBe(whole);
  const save = page.getByRole("button", { name: "Save both as PNG" });
  await expect(save).toBeEnabled({ timeout: 60_000 });
  const download = page.waitForEvent("download");
  await save.click();
  expect((await download).suggestedFilename()).toMatch(/\.png$/);
});
