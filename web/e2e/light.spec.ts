// The light step: what each lamp gives, findings that the light makes.
import { expect, test } from "@playwright/test";

import { changedPlan, grip, open, part, reading, saved, section, thing } from "./help";

test("the table shows what moving a lamp does to the face", async ({ page }) => {
  const id = await open(page, "Face", "/light");
  const sources = page.getByRole("table").filter({ hasText: "Source of light" });
  await expect(sources.getByRole("row")).toHaveCount(4);
  await expect(sources).toContainText("Walls, ceiling, floor");
  const told = () => sources.innerText();
  const before = await told();
  const lux = (await page.getByText(/lx at the face/).innerText()).match(/\d+/)?.[0];
  // From the table to the lamp, and the key a hand's breadth aside.
  await sources.getByRole("button", { name: "Key" }).click();
  // Each nudge is saved by itself here, and undone by itself.
  for (const revision of [2, 3, 4, 5]) {
    await grip(page, "plan-key-place").press("ArrowUp");
    await saved(page, id, revision);
  }
  await expect.poll(told).not.toBe(before);
  for (const revision of [6, 7, 8, 9]) {
    await page.getByRole("button", { name: "Undo" }).click();
    await saved(page, id, revision);
  }
  await expect.poll(told).toBe(before);
  await expect(page.getByText(`${lux} lx at the face`)).toBeVisible();
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
    changed.layout.lights.wash = { ...changed.layout.lights.key, role: "fill", cct_k: 2700 };
  });
  await page.goto(`/corners/${id}/light`);
  const main = page.getByRole("main");
  await expect(main).toContainText("mired on the face");
  await expect(main).toContainText("The white balance is set to 3200 K");
});

test("the light lies over the drawings; before and after stand side by side", async ({ page }) => {
  await open(page, "Side by side", "/light");
  const plan = page.getByRole("img", { name: "Plan, from above" });
  // The field: stops against the face, each area within the one before.
  await expect.poll(() => plan.locator(".area-light").count()).toBeGreaterThan(5);
  const lines = (light: string) => plan.locator(`.ink-isolux[data-thing="${light}"], .ink-isolux.open`);
  await expect(lines("key").first()).toBeVisible();
  const through = await lines("key").first().getAttribute("points");
  await expect(plan.locator(".ink-keep-out")).toHaveCount(2);
  await expect(plan.locator(".reach").filter({ hasText: /^0$/ })).toHaveCount(1);
  const sources = page.getByRole("table").filter({ hasText: "Source of light" });
  await sources.getByRole("button", { name: "Back" }).click();
  await expect(lines("back").first()).not.toHaveAttribute("points", through ?? "");

  await page.getByRole("button", { name: "Compare with this" }).click();
  const compared = page.getByRole("table").filter({ hasText: "Before" });
  await grip(page, "side-key-place").press("Shift+ArrowUp");
  const row = compared.getByRole("row").filter({ hasText: "Light at the face" });
  await expect(row).toBeVisible();
  const cell = (index: number) => row.getByRole("cell").nth(index).innerText();
  await expect.poll(async () => (await cell(2)) !== (await cell(1))).toBe(true);
  await expect(page.getByRole("img", { name: "The picture: Before" })).toBeVisible();
  await expect(page.getByRole("img", { name: "The picture: Now" })).toBeVisible();
  await page.getByRole("button", { name: "Stop comparing" }).click();
  await expect(compared).toHaveCount(0);
});

test("sliders move a lamp as typed figures do", async ({ page }) => {
  await open(page, "Slid", "/light/by-hand");
  const key = thing(page, "Key");
  await key.getByRole("button", { name: /^Key/ }).click();
  await key.getByRole("slider", { name: "Dial of Key" }).press("End");
  await expect(key.getByRole("textbox", { name: /^Dial/ })).toHaveValue("100");
  const angle = key.getByRole("textbox", { name: /^Angle from the lens/ });
  const before = Number(await angle.inputValue());
  const slider = key.getByRole("slider", { name: /^Angle from the lens/ });
  // As fast as the keys come: each press is a step.
  for (let press = 0; press < 5; press += 1) await slider.press("ArrowRight");
  await expect.poll(async () => Number(await angle.inputValue()) - before).toBeGreaterThanOrEqual(4);
  await expect(slider).toHaveAttribute("aria-valuetext", /degrees/);
});

test("the same lamp, moved, costs nothing", async ({ page }) => {
  const id = await changedPlan(page, "Far key", (plan) => {
    const { lights } = (plan as unknown as { layout: { lights: Record<string, { position_m: number[] }> } })
      .layout;
    if (lights.key) lights.key.position_m = [0.75, 1.15, 1.9];
  });
  await page.goto(`/corners/${id}/light/choices`);
  await expect(section(page, "The same lamp elsewhere, for nothing")).toBeVisible();
  await part(page, "All numbers");
  const wide = await reading(page, "light.key.angular_size_deg");
  await part(page, "Choices");
  await page.getByRole("button", { name: /^Bring the same key to/ }).click();
  await part(page, "All numbers");
  await expect.poll(() => reading(page, "light.key.angular_size_deg")).not.toBe(wide);
});

test("a light is removed, another added, a gel and the ceiling tried", async ({ page }) => {
  await open(page, "Lamps", "/light/by-hand");
  const back = thing(page, "Back light");
  await back.getByRole("button", { name: "Remove" }).click();
  await expect(back).toHaveCount(0);
  await part(page, "Choices");
  const more = section(page, "Add a light");
  await more.getByLabel("From the shelf").selectOption({ label: "Small LED panel" });
  await more.getByLabel("As").selectOption("back");
  await more.getByRole("button", { name: "Add it" }).click();
  await part(page, "By hand");
  await expect(back).toBeVisible();
  const key = thing(page, "Key");
  await key.getByRole("button", { name: /^Key/ }).click();
  await key.getByLabel("Gel").selectOption("warm-half");
  await part(page, "Now");
  await expect(page.getByRole("main")).toContainText("The white balance is set to");
  await part(page, "By hand");
  if ((await key.getByLabel("Gel").count()) === 0) await key.getByRole("button", { name: /^Key/ }).click();
  const size = () => page.getByRole("heading", { level: 2 }).locator("..").innerText();
  const aimed = await size();
  await key.getByRole("button", { name: /ceiling/ }).click();
  await expect.poll(size).not.toBe(aimed);
  await key.getByRole("button", { name: /Aim at the eyes/ }).click();
  await expect.poll(size).toBe(aimed);
});
