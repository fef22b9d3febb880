// Nothing typed is lost: refused, unreachable, in two windows, on leaving, only tried out.
import { expect, test, type Page } from "@playwright/test";

import { changedPlan, choose, grip, open, part, saved, step, stored, thing, withPanel } from "./help";

interface Told {
  revision: number;
  layout: { camera: { iso: number } };
}

const iso = (page: Page) => page.getByRole("textbox", { name: "ISO" });
const storedIso = (page: Page, id: number) => async () => (await stored<Told>(page, id)).layout.camera.iso;

async function type(page: Page, value: string): Promise<void> {
  await iso(page).fill(value);
  await iso(page).press("Enter");
}

test("the server gone is said; what is typed stays and is saved when it is back", async ({
  page,
  context,
}) => {
  const id = await open(page, "Offline", "/shot/by-hand");
  await expect(iso(page)).toBeVisible();
  await context.setOffline(true);
  await type(page, "200");
  await expect(page.getByRole("banner")).toContainText("cannot be reached");
  await expect(iso(page)).toHaveValue("200");
  await context.setOffline(false);
  await expect.poll(storedIso(page, id)).toBe(200);
  await page.reload();
  await expect(iso(page)).toHaveValue("200");
});

test("a thing's figure typed with the server gone is held, asked about on leaving, and set when it is back", async ({
  page,
}) => {
  const id = await open(page, "Held", "/light/by-hand");
  const key = thing(page, "Key");
  await key.getByRole("button", { name: /^Key/ }).click();
  const height = key.getByLabel("Height", { exact: true });
  await page.route("**/api/**", (route) => route.abort());
  await height.fill("1.83");
  await height.press("Enter");
  await expect(page.getByRole("banner")).toContainText("cannot be reached");
  const asked = page.waitForEvent("dialog");
  const leaving = page.close({ runBeforeUnload: true });
  const dialog = await asked;
  expect(dialog.type()).toBe("beforeunload");
  await dialog.dismiss();
  await leaving;
  await page.unroute("**/api/**");
  await expect(height).toHaveValue("1.83 m");
  await saved(page, id, 2);
});

test("an edit with the server gone outlives its page", async ({ page, context }) => {
  const id = await open(page, "Left offline", "/shot/by-hand");
  await expect(iso(page)).toBeVisible();
  await context.setOffline(true);
  await type(page, "320");
  await expect(page.getByRole("banner")).toContainText("cannot be reached");
  // What a page sends while it closes is no longer held back by the browser: nothing of this one arrives.
  await page.evaluate(() => {
    window.fetch = () => Promise.reject(new TypeError("no server"));
  });
  await page.close();
  await context.setOffline(false);
  // Another page of the same browser, later: what was left is sent first.
  const later = await context.newPage();
  expect((await stored<Told>(later, id)).layout.camera.iso).not.toBe(320);
  await later.goto(`/corners/${id}/shot/by-hand`);
  await expect(iso(later)).toHaveValue("320");
  await expect.poll(storedIso(later, id)).toBe(320);
});

for (const order of ["before", "after"] as const)
  test(`what a window could not save is taken over by the one opened ${order}, when it is closed`, async ({
    page,
    context,
  }) => {
    const id = await open(page, `Taken over, ${order}`, "/shot/by-hand");
    await expect(iso(page)).toBeVisible();
    const other = await context.newPage();
    const opened = async () => {
      await other.goto(`/corners/${String(id)}/shot/by-hand`);
      await expect(iso(other)).not.toHaveValue("320");
    };
    if (order === "before") await opened();
    await page.route("**/api/**", (route) => route.abort());
    await type(page, "320");
    await expect(page.getByRole("banner")).toContainText("cannot be reached");
    if (order === "after") await opened();
    await page.close();
    await expect(iso(other)).toHaveValue("320");
    await expect.poll(storedIso(other, id)).toBe(320);
  });

test("what was changed a moment before leaving is saved", async ({ page }) => {
  const id = await open(page, "Leaving", "/shot/by-hand");
  // Within the pause that makes fast changes one step: nothing is saved yet.
  await type(page, "320");
  await page.getByRole("link", { name: "Fogon, all corners" }).click();
  await expect(page.getByRole("heading", { name: "Your corners" })).toBeVisible();
  await expect.poll(storedIso(page, id)).toBe(320);
  // Typed and not even taken with Enter, and the window closed.
  await page.goto(`/corners/${id}/shot/by-hand`);
  await iso(page).fill("640");
  await page.goto("about:blank");
  await expect.poll(storedIso(page, id)).toBe(640);
});

test("a refused save says why; undo goes back to what is saved, and the next change is saved", async ({
  page,
}) => {
  const id = await open(page, "Refused", "/shot/by-hand");
  await type(page, "200");
  await saved(page, id, 2);
  await page.route(`**/api/v1/corners/${id}`, (route) =>
    route.request().method() === "PUT"
      ? route.fulfill({
          status: 422,
          contentType: "application/problem+json",
          json: { type: "problem:bad_input", status: 422, title: "The card is full." },
        })
      : route.continue(),
  );
  await type(page, "400");
  const alert = page.getByRole("alert");
  await expect(alert).toContainText("The card is full.");
  await expect(page.getByRole("banner")).toContainText("not saved");
  await alert.getByRole("button", { name: "Undo it" }).click();
  await expect(iso(page)).toHaveValue("200");
  await page.unroute(`**/api/v1/corners/${id}`);
  expect(await storedIso(page, id)()).toBe(200);
  await expect(alert).toHaveCount(0);
  await type(page, "800");
  await saved(page, id, 3);
});

for (const [answer, kept] of [
  ["Keep mine", 640],
  ["Take theirs", 200],
] as const)
  test(`two windows: ${answer.toLowerCase()}, after both were seen`, async ({ page, context }) => {
    const id = await open(page, `Two windows, ${answer}`, "/shot/by-hand");
    const other = await context.newPage();
    await other.goto(`/corners/${id}/shot/by-hand`);
    await expect(iso(other)).toBeVisible();
    // Nothing is told from window to window here: the second one does not know of the first.
    await other.route(`**/api/v1/corners/${id}`, (route) =>
      route.request().method() === "GET" ? route.abort() : route.continue(),
    );
    await type(page, "200");
    await saved(page, id, 2);
    await other.unroute(`**/api/v1/corners/${id}`);
    await type(other, "640");
    const alert = other.getByRole("alert");
    await expect(alert).toContainText("Another window saved this corner");
    await alert.getByRole("button", { name: "See both" }).click();
    const both = other.getByRole("dialog");
    await expect(both.getByRole("row", { name: /^Exposure of the face/ }).first()).toBeVisible();
    await both.getByRole("button", { name: answer }).click();
    await expect.poll(storedIso(other, id)).toBe(kept);
    await expect(iso(other)).toHaveValue(String(kept));
    await expect(alert).toHaveCount(0);
  });

test("what is only tried out is not saved; undo leaves it alone; it is saved when it is good", async ({
  page,
}) => {
  const id = await open(page, "Tried", "/shot/by-hand");
  const before = await iso(page).inputValue();
  await choose(page, "Try without saving");
  await expect(page.getByText("nothing is saved")).toBeVisible();
  await type(page, "500");
  await page.locator("body").press("Control+z");
  await expect(page.getByRole("button", { name: "Undo" })).toBeDisabled();
  await expect(iso(page)).toHaveValue("500");
  await page.getByRole("button", { name: "Go back to before" }).click();
  await expect(iso(page)).toHaveValue(before);
  expect((await stored(page, id)).revision).toBe(1);
  await choose(page, "Try without saving");
  await type(page, "640");
  await page.getByRole("button", { name: "Save it" }).click();
  await saved(page, id, 2);
  expect(await storedIso(page, id)()).toBe(640);
});

test("a file has what was typed last", async ({ page }) => {
  const id = await open(page, "Filed", "/shot/by-hand");
  await type(page, "250");
  const [file] = await Promise.all([page.waitForEvent("download"), choose(page, "Save as a file")]);
  const path = await file.path();
  const { readFileSync } = await import("node:fs");
  const plan = JSON.parse(readFileSync(path, "utf8")) as Told;
  expect(plan.layout.camera.iso).toBe(250);
  expect(await storedIso(page, id)()).toBe(250);
});

test("what hangs is locked and let go, and saved both times", async ({ page }) => {
  const id = await changedPlan(page, "Hung and locked", withPanel(true));
  await page.goto(`/corners/${id}/sound/by-hand`);
  const wool = page.getByRole("main").getByRole("group", { name: "Wool" });
  await wool.getByRole("button", { name: "Lock" }).click();
  await saved(page, id, 2);
  await expect(wool.getByRole("button", { name: "Unlock" })).toBeVisible();
  const strip = page.locator('.ink-treatment[data-thing="wool"]').first();
  const place = await strip.getAttribute("points");
  await grip(page, "plan-wool-place").press("Shift+ArrowUp");
  await expect(strip).toHaveAttribute("points", place ?? "");
  await wool.getByRole("button", { name: "Unlock" }).click();
  await saved(page, id, 3);
});

test("a change that finds no place saves nothing and leaves redo alone", async ({ page }) => {
  const id = await open(page, "No place", "/shot/by-hand");
  await type(page, "200");
  await saved(page, id, 2);
  await page.getByRole("button", { name: "Undo" }).click();
  await saved(page, id, 3);
  await page.route("**/api/v1/angle", (route) =>
    route.fulfill({
      status: 422,
      contentType: "application/problem+json",
      json: { type: "problem:bad_input", status: 422, title: "There is no place for it." },
    }),
  );
  await part(page, "Choices");
  await page
    .getByRole("button", { name: /^Add a view/ })
    .first()
    .click();
  await expect(page.getByText("There is no place for it.")).toBeVisible();
  await expect(page.getByRole("button", { name: "Redo" })).toBeEnabled();
  expect((await stored(page, id)).revision).toBe(3);
  await step(page, "Light").click();
  await expect(page.getByRole("button", { name: "Redo" })).toBeEnabled();
});
