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

test("the light lies over the drawings; before and after stand side by side", async ({ page }) => {
  const id = await changedPlan(page, "Side by side", () => undefined);
  await page.goto(`/corners/${id}/light`);
  const plan = page.getByRole("img", { name: "Plan, from above" });
  const lines = (light: string) => plan.locator(`.ink-isolux[data-thing="${light}"], .ink-isolux.open`);
  await expect(lines("key").first()).toBeVisible();
  for (const light of ["key", "back"])
    await expect(plan.locator(`.ink-cone[data-thing="${light}"]`)).toHaveCount(1);
  const through = await lines("key").first().getAttribute("points");
  await expect(plan.locator(".ink-keep-out")).toHaveCount(2);
  await expect(plan.locator(".reach").filter({ hasText: /^0$/ })).toHaveCount(1);
  await page
    .getByRole("table")
    .filter({ hasText: "Gives the face" })
    .getByRole("button", { name: "back" })
    .click();
  await expect(lines("back").first()).not.toHaveAttribute("points", through ?? "");

  await page.getByRole("button", { name: "Keep this in sight while I change it" }).click();
  const key = page.locator('li[data-thing="key"]');
  await key.getByRole("slider", { name: "Slide the dial of key" }).fill("20");
  const compared = page.getByRole("table").filter({ hasText: "Before" });
  const row = compared.getByRole("row").filter({ hasText: "Light at the face" });
  const before = (await row.getByRole("cell").nth(1).textContent()) ?? "";
  await expect(row.getByRole("cell").nth(2)).not.toHaveText(before);
  await expect(page.getByRole("img", { name: /^Before\. Stops on the head/ })).toBeVisible();
  await expect(page.getByRole("img", { name: /^Stops on the head/ })).toBeVisible();
  await expect(key.getByLabel(/^Dial/)).toHaveValue("20");
  // A slider moves the lamp as a typed figure does.
  await key.getByRole("slider", { name: "Slide the angle of key" }).fill("50");
  await expect(key.getByLabel(/Off the lens/)).toHaveValue(/^(49|50)/);
  await page.getByRole("button", { name: "Put the earlier light away" }).click();
  await expect(compared).toHaveCount(0);
});

test("the same lamp, moved, costs nothing", async ({ page }) => {
  const id = await changedPlan(page, "Far key", (plan) => {
    const { lights } = (plan as unknown as { layout: { lights: Record<string, { position_m: number[] }> } })
      .layout;
    if (lights.key) lights.key.position_m = [0.75, 1.15, 1.9];
  });
  await page.goto(`/corners/${id}/light`);
  await expect(page.getByText("The same lamp, moved: it costs nothing.")).toBeVisible();
  const wide = await reading(page, "light.key.angular_size_deg");
  await page.getByRole("button", { name: /^Bring the same key to/ }).click();
  await expect.poll(() => reading(page, "light.key.angular_size_deg")).not.toBe(wide);
});

test("a light is taken out, another put in, a foil and the ceiling tried", async ({ page }) => {
  const id = await changedPlan(page, "Lamps", () => undefined);
  await page.goto(`/corners/${id}/light`);
  await page.locator('li[data-thing="back"]').getByRole("button", { name: "Take out" }).click();
  await expect(page.locator('li[data-thing="back"]')).toHaveCount(0);
  const more = section(page, "One more light");
  await more.getByLabel("From the shelf").selectOption({ label: "Small LED panel" });
  await more.getByLabel("As").selectOption("back");
  await more.getByRole("button", { name: "Put it in" }).click();
  const back = page.locator('li[data-thing="back"]');
  await expect(back).toBeVisible();
  const key = page.locator('li[data-thing="key"]');
  const white = await reading(page, "light.face.cct_k");
  await key.getByLabel("Foil before it").selectOption("warm-half");
  await expect.poll(() => reading(page, "light.face.cct_k")).not.toBe(white);
  await expect(section(page, "Findings")).toContainText("The white balance is set to");
  const size = await reading(page, "light.key.angular_size_deg");
  await key.getByRole("button", { name: "Turn it to the ceiling" }).click();
  await expect.poll(() => reading(page, "light.key.angular_size_deg")).not.toBe(size);
  await key.getByRole("button", { name: "Aim at the eyes" }).click();
  await expect.poll(() => reading(page, "light.key.angular_size_deg")).toBe(size);
});
