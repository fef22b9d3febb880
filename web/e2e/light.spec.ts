// The light step: a head in planes with its stops, what each lamp gives, findings that the light makes.
import { expect, test } from "@playwright/test";

import { changedPlan, reading, section } from "./help";

test("the head shows what moving a lamp does to the face", async ({ page }) => {
  const id = await changedPlan(page, "Face", () => undefined);
  await page.goto(`/corners/${id}/light`);
  const head = page.getByRole("img", { name: /^Stops on the head/ });
  await expect(head).toBeVisible();
  const told = async () => (await head.getAttribute("aria-label")) ?? "";
  const before = await told();
  // Every part is told once or, left and right, twice.
  for (const [part, times] of [
    ["Forehead", 1],
    ["Cheek", 2],
    ["Eye", 2],
    ["Nose", 2],
    ["Chin", 1],
    ["Crown", 1],
    ["Shoulder", 2],
  ] as const)
    expect(before.split(part).length - 1, part).toBe(times);
  const parts = page.getByRole("table").filter({ hasText: "Gives the face" });
  await expect(parts.getByRole("row")).toHaveCount(4);
  await expect(parts).toContainText("walls, floor, ceiling");
  const lux = await reading(page, "light.face.illuminance_lx");
  // From the table to the lamp, and the key a hand's breadth aside.
  await parts.getByRole("button", { name: "key" }).click();
  const grip = page.locator('[data-grip="plan-key-place"]');
  for (let i = 0; i < 4; i += 1) await grip.press("ArrowUp");
  await expect.poll(told).not.toBe(before);
  // Nudges that follow each other are kept together: one or several revisions.
  await expect(page.getByText(/^kept, revision [2-5]$/)).toBeVisible();
  await expect(async () => {
    await page.keyboard.press("Control+z");
    await expect.poll(told, { timeout: 4000 }).toBe(before);
  }).toPass();
  expect(await reading(page, "light.face.illuminance_lx")).toBe(lux);
});

test("lamps of two colours are told, and the white balance is set to the light", async ({ page }) => {
  const id = await changedPlan(page, "Two colours", (plan) => {
    const changed = plan as unknown as {
      brief: { gear: Record<string, { cct_min_k: number }> };
      layout: { camera: { white_balance_k: number }; lights: Record<string, object> };
    };
    const [octa, panel] = ["octa", "panel"].map((gear) => changed.brief.gear[gear]);
    if (octa) octa.cct_min_k = 2700;
    if (panel) panel.cct_min_k = 2700;
    changed.layout.camera.white_balance_k = 3200;
    changed.layout.lights.wash = {
      ...changed.layout.lights.key,
      role: "fill",
      cct_k: 2700,
    };
  });
  await page.goto(`/corners/${id}/light`);
  await expect(section(page, "Findings")).toContainText("mired on the face");
  await expect(section(page, "Findings")).toContainText("The white balance is set to 3200 K");
});
