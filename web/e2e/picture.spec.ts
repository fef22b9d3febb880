// The photograph: coarse at once, then finer; what lies over it; what a click tells; the line drawing where it is wanted.
import { expect, test, type Page } from "@playwright/test";

import { changedPlan, open } from "./help";
import { broken } from "./looks";

// A small window: a photograph takes its time by its size.
test.use({ storageState: { cookies: [], origins: [] }, viewport: { width: 1024, height: 640 } });
test.describe.configure({ mode: "serial" });

const photo = (page: Page) => page.locator("[data-photo]").first();
/** The coarse picture is there, and a finer one has followed. */
const finer = (page: Page) => expect(photo(page)).toHaveAttribute("data-photo", /^([248]|finished)$/);

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
  await finer(page);
  const before = await brightness(page);
  expect(before).toBeGreaterThan(20);
  expect(await broken(page, "while it gets finer")).toEqual([]);
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
  await finer(page);
  const show = page.getByRole("button", { name: "Show", exact: true });
  await show.click();
  await page.getByRole("radio", { name: "Stops, from the face" }).click();
  await page.keyboard.press("Escape");
  await expect(photo(page).getByText(/^[+−±]\d\.\d$/)).not.toHaveCount(0);
  expect(await broken(page, "with stops")).toEqual([]);
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
  await expect.poll(address).toMatch(/^data:image\/png/);
  const whole = await address();
  await page.getByRole("button", { name: "Closer to the eyes" }).click();
  await expect.poll(address).not.toBe(whole);
  const save = page.getByRole("button", { name: "Save both as PNG" });
  await expect(save).toBeEnabled();
  const download = page.waitForEvent("download", { timeout: 120_000 });
  await save.click();
  expect((await download).suggestedFilename()).toMatch(/\.png$/);
});

/** A still that has come. */
const still = (page: Page, name: RegExp) =>
  expect(page.getByRole("img", { name })).toHaveAttribute("src", /^data:image\/png/);

test("a finding is seen as it is and as it would be", async ({ page }) => {
  const id = await changedPlan(
    page,
    "Low key",
    (plan: { layout: { lights: Record<string, { position_m: number[] }> } }) => {
      const key = plan.layout.lights.key?.position_m;
      if (key) key[2] = 1.25;
    },
  );
  await page.goto(`/corners/${id}/light`);
  const finding = page.locator("[data-next], [data-finding]").filter({ hasText: "a little low" });
  await finding.getByText("Why?").first().click();
  await still(page, /^The picture: As it is/);
  await still(page, /^The picture: With the move/);
});

test("a school is seen before it is chosen", async ({ page }) => {
  const id = await open(page, "Schools seen", "/schools");
  const revision = async () =>
    ((await (await page.request.get(`/api/v1/corners/${id}`)).json()) as { revision: number }).revision;
  const before = await revision();
  await page
    .getByRole("listitem")
    .filter({ hasText: "Camera height" })
    .getByRole("button", { name: "See it" })
    .first()
    .click();
  const dialog = page.getByRole("dialog");
  await expect(dialog.getByText("Nothing is changed by looking.")).toBeVisible();
  await still(page, /^The picture: As it is/);
  await dialog.getByRole("button", { name: "Close", exact: true }).click();
  await expect(dialog).toHaveCount(0);
  expect(await revision()).toBe(before);
});

test("the eyes come close, and the picture is saved with its settings", async ({ page }) => {
  await open(page, "Close", "/shot");
  await finer(page);
  const show = page.getByRole("button", { name: "Show", exact: true });
  await show.click();
  await page.getByRole("button", { name: "The eyes, close up" }).click();
  const dialog = page.getByRole("dialog", { name: "The eyes, close up" });
  await expect(dialog.getByRole("img")).toHaveAttribute("src", /^data:image\/png/);
  await page.keyboard.press("Escape");
  await show.click();
  const download = page.waitForEvent("download", { timeout: 120_000 });
  await page.getByRole("button", { name: "Save as PNG" }).click();
  expect((await download).suggestedFilename()).toBe("close-picture.png");
});
