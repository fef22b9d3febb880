// What belongs together stays together: parts of a layout when comparing and answering, measured values with
// what they measured, rows that cannot be read, plugs on the card.
import { expect, test } from "@playwright/test";

import { changedPlan, notes, part, reading, saved, section, withPanel, type Hung } from "./help";

test("two layouts that differ in a panel alone are told apart, and the panel is taken along", async ({
  page,
}) => {
  const id = await changedPlan(page, "Panel or none", withPanel(true));
  // Taken down and kept, the save before has it.
  await page.goto(`/corners/${id}/sound`);
  const ringing = await reading(page, "sound.room.rt_mid_s");
  await part(page, "Choices");
  await section(page, "Reduce echo").getByRole("button", { name: /wool/i }).click();
  await saved(page, id, 2);
  await page.goto(`/corners/${id}/compare`);
  const right = page.getByRole("combobox", { name: "Right" });
  const first = right.locator("option").filter({ hasText: "Save 1," });
  await right.selectOption({ label: (await first.innerText()).trim() });
  await expect(page.getByRole("row", { name: /^Reverberation time/ }).first()).toBeVisible();
  await page.getByRole("button", { name: /what it hangs/ }).click();
  await saved(page, id, 3);
  await page.goto(`/corners/${id}/sound`);
  expect(await reading(page, "sound.room.rt_mid_s")).toBe(ringing);
});

test("answers that are opened and saved keep how it stands today, whole", async ({ page }) => {
  const id = await changedPlan(page, "Today, whole", (plan: Hung) => {
    withPanel(false)(plan);
    plan.brief.today = {
      ...plan.brief.today,
      treatment: { wool: { gear: "wool", on: "wall-1", position_m: [3.4, 1.9, 1.4] } },
    };
  });
  interface Kept {
    brief: { today: unknown; room: unknown; person: unknown };
  }
  const corner = async () => (await (await page.request.get(`/api/v1/corners/${id}`)).json()) as Kept;
  const before = (await corner()).brief;
  await page.goto(`/corners/${id}/answers`);
  await page.getByRole("button", { name: "Save and lay out again" }).click();
  await expect(page.getByRole("heading", { name: "Where everything goes, and why" })).toBeVisible();
  const after = (await corner()).brief;
  expect(after.today).toMatchObject(before.today as Record<string, unknown>);
  expect(after.room).toMatchObject(before.room as Record<string, unknown>);
  expect(after.person).toMatchObject(before.person as Record<string, unknown>);
});

interface Clapped {
  brief: { clap?: { rt_mid_s: number } };
}

test("a measured reverberation still tells how the room rings once something is hung", async ({ page }) => {
  const id = await changedPlan(page, "Rings", withPanel(false));
  await page.goto(`/corners/${id}/sound/choices`);
  await part(page, "Now");
  const rings = page.locator('[data-reading="sound.room.rt_mid_s"]').first();
  await rings.click();
  const working = page.getByRole("dialog");
  await working.getByLabel(/Measured it yourself/).fill("0.9");
  await working.getByRole("button", { name: "Use it" }).click();
  await page.keyboard.press("Escape");
  await expect(rings).toContainText("measured");
  await part(page, "Choices");
  const row = section(page, "Reduce echo").getByRole("row").filter({ hasText: "Packing blankets" });
  await row.first().getByRole("button", { name: "Hang it" }).click();
  await part(page, "Now");
  await expect(rings).not.toContainText("measured");
  expect(Number(await reading(page, "sound.room.rt_mid_s"))).toBeLessThan(0.9);
  // Nothing is lost by it: the clap is kept, and nothing is said of a value that no longer holds.
  await expect(notes(page)).not.toContainText("no longer holds");
  const kept = async () =>
    ((await (await page.request.get(`/api/v1/corners/${String(id)}`)).json()) as Clapped).brief.clap
      ?.rt_mid_s;
  await expect.poll(kept).toBe(0.9);
});

test("a microphone without its input stops the recording, and the card tells the plugs", async ({ page }) => {
  interface Wired {
    brief: { gear: Record<string, Record<string, unknown>> };
  }
  const needing = (also: boolean) => (plan: Wired) => {
    const { gear } = plan.brief;
    Object.assign(gear["boom-microphone"] ?? {}, { needs: ["microphone", "xlr-input", "xlr-cable"] });
    if (!also) return;
    gear.recorder = { kind: "recorder", label: "Pocket recorder", mass_kg: 0.3, offers: ["xlr-input"] };
    gear.lead = { kind: "cable", label: "Long lead", mass_kg: 0.2, offers: ["xlr-cable"] };
  };
  const lacking = await changedPlan(page, "No input", needing(false));
  await page.goto(`/corners/${lacking}/sound`);
  await expect(page.getByText(/needs an XLR input, and nothing at hand has one/).first()).toBeVisible();
  await part(page, "Choices");
  await expect(page.getByText(/^Nowhere yet/)).toBeVisible();
  const whole = await changedPlan(page, "All plugs", needing(true));
  await page.goto(`/corners/${whole}/card`);
  const card = page.frameLocator("iframe");
  await expect(card.getByRole("heading", { name: "Plugs", exact: true })).toBeVisible();
  await expect(card.getByText(/into .*Pocket recorder/i)).toBeVisible();
});

test("a corner that cannot be read is listed with its file, and takes no other with it", async ({ page }) => {
  await changedPlan(page, "Its neighbour in the list", () => undefined);
  await page.route("**/api/v1/corners", async (route) => {
    const all = (await (await route.fetch()).json()) as { id: number; name: string }[];
    const spoilt = {
      ...all[0],
      id: 4711,
      name: "Spoilt",
      told: null,
      trouble: "This version cannot read it. Nothing of it is lost.",
    };
    await route.fulfill({ json: [spoilt, ...all], headers: { "fogon-count": String(all.length + 1) } });
  });
  await page.goto("/");
  const row = page.getByRole("listitem").filter({ hasText: "Spoilt" });
  await expect(row).toContainText("Nothing of it is lost");
  await expect(row.getByRole("link", { name: "Spoilt" })).toHaveCount(0);
  await expect(row.getByRole("link", { name: "Save its file" })).toHaveAttribute(
    "href",
    "/api/v1/corners/4711/file",
  );
  await page
    .getByRole("link", { name: /^Its neighbour in the list/ })
    .first()
    .click();
  await expect(page.getByText("Ready: record.").first()).toBeVisible();
});

test("figures of the shelf are asked for and told in feet and pounds, and kept as metres", async ({
  page,
}) => {
  const id = await changedPlan(page, "Shelf in feet", (plan: Hung) => {
    plan.brief.units = "imperial";
    plan.brief.gear.cloth = {
      kind: "backdrop",
      label: "Grey cloth",
      mass_kg: 2,
      backdrop: "cloth",
      width_m: 2,
      height_m: 2,
    };
  });
  await page.goto(`/corners/${id}/shelf`);
  const cloth = page.getByRole("listitem").filter({ hasText: "Grey cloth" });
  await expect(cloth).toContainText("6' 6¾\" wide");
  await cloth.getByText("Figures").click();
  const width = cloth.getByLabel("Width");
  await expect(width).toHaveValue("6' 6¾\"");
  // Looked at and left, it is not rewritten to the quarter inch.
  await width.focus();
  await width.blur();
  await width.fill("8 ft");
  await width.press("Enter");
  await expect(cloth).toContainText("8' 0\" wide");
  await saved(page, id, 2);
  interface Kept {
    brief: { gear: Record<string, { width_m: number; height_m: number }> };
  }
  const kept = (await (await page.request.get(`/api/v1/corners/${id}`)).json()) as Kept;
  expect(kept.brief.gear.cloth?.width_m).toBeCloseTo(8 * 0.3048, 3);
  expect(kept.brief.gear.cloth?.height_m).toBe(2);
});
