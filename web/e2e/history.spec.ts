// Every save stays: looked at beside how it is now, named, brought back; the bin, the rule and the archive around them.
import { readFileSync } from "node:fs";

import { expect, test, type Page } from "@playwright/test";

import { changedPlan, open, stored } from "./help";

/** Types another ISO; its own save. */
async function edit(page: Page, id: number, iso: number, revision: number): Promise<void> {
  await page.goto(`/corners/${String(id)}/shot/by-hand`);
  const box = page.getByRole("textbox", { name: /^ISO/ });
  await box.fill(String(iso));
  await box.press("Enter");
  await expect.poll(async () => (await stored(page, id)).revision).toBe(revision);
}

const saves = (page: Page) => page.getByRole("navigation", { name: "Saves" });

test("a save is looked at, named and brought back", async ({ page }) => {
  const id = await open(page, "With a history", "/shot/by-hand");
  const before = (await stored<{ layout: { camera: { iso: number } } }>(page, id)).layout.camera.iso;
  await edit(page, id, before + 111, 2);
  await edit(page, id, before + 222, 3);
  await page.getByRole("link", { name: "History", exact: true }).click();
  await expect(saves(page).getByRole("button")).toHaveCount(3);
  await expect(saves(page).getByText("As it is now")).toBeVisible();
  await saves(page).getByRole("button").last().click();
  const differs = page.getByRole("group", { name: /Readings that differ/ });
  await expect(differs.getByRole("columnheader", { name: "Then" })).toBeVisible();
  await expect(
    differs
      .getByRole("row")
      .filter({ hasText: /ISO|exposure/i })
      .first(),
  ).toBeVisible();
  await page.getByRole("button", { name: "Name it" }).click();
  await page.getByRole("textbox", { name: "Name of this save" }).fill("Before the move");
  await page.getByRole("dialog").getByRole("button", { name: "Name it" }).click();
  await expect(saves(page).getByText("Before the move")).toBeVisible();
  await page.getByRole("button", { name: "Bring it back" }).click();
  await expect(saves(page).getByRole("button")).toHaveCount(4);
  const now = await stored<{ layout: { camera: { iso: number } }; can_undo: boolean }>(page, id);
  expect([now.layout.camera.iso, now.can_undo]).toEqual([before, true]);
});

test("the bin gives back and lets go for good; the rule is chosen; the file is sound", async ({ page }) => {
  const [back, gone] = [
    await changedPlan(page, "To be brought back", () => undefined),
    await changedPlan(page, "To be forgotten", () => undefined),
  ];
  for (const id of [back, gone])
    await page.request.delete(`/api/v1/corners/${String(id)}`, { headers: { "If-Match": '"1"' } });
  await page.goto("/");
  await page.getByRole("link", { name: "Backups and bin" }).click();
  await expect(page.getByText("Nothing is wrong with it.")).toBeVisible();
  const bin = page.getByRole("region", { name: "Bin" });
  const row = (name: string) => bin.getByRole("listitem").filter({ hasText: name });
  await row("To be brought back").getByRole("button", { name: "Bring it back" }).click();
  await expect(row("To be brought back")).toHaveCount(0);
  expect((await page.request.get(`/api/v1/corners/${String(back)}`)).ok()).toBe(true);
  await row("To be forgotten").getByRole("button", { name: "Delete for good" }).click();
  await page.getByRole("alertdialog").getByRole("button", { name: "Delete for good" }).click();
  await expect(row("To be forgotten")).toHaveCount(0);
  expect((await page.request.post(`/api/v1/bin/${String(gone)}`)).status()).toBe(404);
  const days = page.getByRole("textbox", { name: /^All of them for/ });
  await days.fill("5");
  await days.press("Enter");
  await expect
    .poll(
      async () =>
        ((await (await page.request.get("/api/v1/thinning")).json()) as { all_days: number }).all_days,
    )
    .toBe(5);
  await page.request.put("/api/v1/thinning", { data: { all_days: 1, hourly_days: 7 } });
});

test("an archive goes out, and is told before it comes in", async ({ page }) => {
  const id = await changedPlan(page, "In an archive", () => undefined);
  const archive = await (await page.request.get(`/api/v1/corners/${String(id)}/archive`)).body();
  await page.request.delete(`/api/v1/corners/${String(id)}`, { headers: { "If-Match": '"1"' } });
  await page.request.delete(`/api/v1/bin/${String(id)}`);
  await page.goto("/kept");
  const all = page.waitForEvent("download");
  await page.getByRole("link", { name: "Save everything" }).click();
  expect(
    readFileSync(await (await all).path())
      .subarray(0, 2)
      .toString(),
  ).toBe("PK");
  const file = (name: string, buffer: Buffer) => ({ name, mimeType: "application/zip", buffer });
  await page.getByLabel("Archive", { exact: true }).setInputFiles(file("one.zip", archive));
  const told = page.getByRole("listitem").filter({ hasText: "In an archive" });
  await expect(told).toContainText("is new here");
  await page.getByRole("button", { name: "Take it in" }).click();
  await expect(page.getByText("Done: 1 corner.")).toBeVisible();
  await page.goto("/");
  await expect(page.getByRole("link", { name: "In an archive" }).first()).toBeVisible();
  await page.goto("/kept");
  await page.getByLabel("Archive", { exact: true }).setInputFiles(file("no.zip", Buffer.from("nothing")));
  await expect(page.getByText("It is no archive of Fogon")).toBeVisible();
});
