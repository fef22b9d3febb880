// Money: free moves and purchases with their sums, what has been bought, the shelf as a table, own weights.
import { expect, test } from "@playwright/test";

import { changedPlan, open, part, saved, section, step, stored } from "./help";

test("free moves and purchases are listed with their sums", async ({ page }) => {
  const id = await changedPlan(page, "Needs a voice", (plan: never) => {
    const { brief, layout } = plan as {
      brief: { gear: Record<string, unknown>; money: object; today?: unknown };
      layout: { microphone?: unknown };
    };
    delete brief.gear["boom-microphone"];
    delete brief.today;
    delete layout.microphone;
    brief.money = { budget: 150, currency: "EUR" };
  });
  await page.goto(`/corners/${id}`);
  await expect(page.getByText(/^Only the camera's own microphone hears you/).first()).toBeVisible();
  await step(page, "Money").click();
  const changes = page.getByRole("main");
  const purchases = section(page, "Purchases");
  await expect(purchases).toContainText("budget 150 EUR");
  await expect(changes.getByText(/you are heard and not the room/).first()).toBeVisible();
  const prices = await purchases
    .getByRole("listitem")
    .getByText(/^\d+ EUR$/)
    .allTextContents();
  const sum = prices.reduce((total, price) => total + Number(price.replace(" EUR", "")), 0);
  await expect(purchases.getByText(`Together ${sum} EUR`)).toBeVisible();
  expect(sum).toBeLessThanOrEqual(150);
  // The first step bought: it is on the shelf with its day, and what is left is advised anew.
  await purchases.getByRole("button", { name: "I have bought it" }).click();
  await saved(page, id, 2);
  const { brief } = await stored<{ brief: { gear: Record<string, { bought?: { date: string } }> } }>(
    page,
    id,
  );
  const dated = Object.values(brief.gear).filter((thing) => thing.bought);
  expect(dated.length).toBeGreaterThan(0);
  expect(dated[0]?.bought?.date).toMatch(/^\d{4}-\d\d-\d\d$/);
  await part(page, "By hand");
  await expect(section(page, "What has been spent").getByRole("row").nth(1)).toContainText(/20\d\d-/);
});

test("the shelf is saved as a table and read from one; a wrong row is told by its line", async ({ page }) => {
  const id = await open(page, "As a table", "/shelf");
  const saving = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save as a table" }).click();
  const path = await (await saving).path();
  const read = page.getByLabel("Read a table");
  const table = (rows: string) => ({
    name: "shelf.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(`kind,label,price,figures\n${rows}`),
  });
  await read.setInputFiles(table("accessory,Tape,4,\nlamp,Torch,9,\n"));
  await expect(page.getByRole("alert")).toContainText(/^▲ line 3, kind: /);
  await read.setInputFiles(table("accessory,Tape of cloth,4,\n"));
  await expect(page.getByText("Tape of cloth")).toBeVisible();
  await saved(page, id, 2);
  // What was saved is read back as it was: nothing is changed by it.
  await read.setInputFiles(path);
  const { brief } = await stored<{ brief: { gear: Record<string, { label: string }> } }>(page, id);
  expect(Object.values(brief.gear).map((thing) => thing.label)).toContain("Tape of cloth");
});

test("own weights take the place of the school's, and go again", async ({ page }) => {
  const id = await open(page, "Weighed", "/money/by-hand");
  const weights = section(page, "What counts how much");
  const sound = weights.getByRole("slider", { name: "Weight of sound" });
  await expect(sound).toHaveAttribute("aria-valuenow", "40");
  await sound.press("End");
  await saved(page, id, 2);
  interface Told {
    brief: { money: { weights?: { sound: number; light: number } } };
  }
  const told = (await stored<Told>(page, id)).brief.money.weights;
  expect([told?.sound, told?.light]).toEqual([1, 0.3]);
  await weights.getByRole("button", { name: "As the school has it" }).click();
  await expect(sound).toHaveAttribute("aria-valuenow", "40");
});
