// The day: told where and which way, it shows the sun by the hour and the good hours of the week, and hands them out.
import { readFile } from "node:fs/promises";

import { expect, test } from "@playwright/test";

import { changedPlan, part, section } from "./help";

interface Placed {
  brief: { place?: unknown; room: { north_deg?: number | null }; schools?: Record<string, string> };
}

test("a place and a bearing bring the sun, the week and its calendar", async ({ page }) => {
  const id = await changedPlan(page, "By the window", (plan: Placed) => {
    delete plan.brief.place;
    delete plan.brief.room.north_deg;
    plan.brief.schools = { ...plan.brief.schools, window: "key" };
  });
  await page.goto(`/corners/${id}/day`);
  await page.getByLabel("Region").selectOption("Spain");
  const looks = page.getByLabel(/looks to, degrees from north/);
  await looks.fill("150");
  await looks.press("Enter");
  const day = section(page, "The day");
  await day.getByLabel("Date").fill("2026-11-28");
  await expect(day.getByText(/Sunrise 08:1\d\. Sunset 17:5\d\./)).toBeVisible();
  await expect(day.getByText("Europe/Madrid, UTC+01:00.")).toBeVisible();
  // In summer the clock is another, and that is said.
  await day.getByLabel("Date").fill("2026-06-21");
  await expect(day.getByText("Europe/Madrid, UTC+02:00, daylight saving.")).toBeVisible();
  await day.getByLabel("Date").fill("2026-01-20");
  await expect(day.getByText(/Sunrise 08:3\d/)).toBeVisible();
  // The slider moves the patch on the plan, and night takes it away.
  const hour = day.getByRole("slider", { name: "Time of day" });
  const lies = page.locator(".drawing .sun-patch");
  await expect(lies.first()).toBeAttached();
  const outline = () => lies.first().getAttribute("points");
  const before = await outline();
  await hour.press("ArrowLeft");
  await expect.poll(outline).not.toBe(before);
  await hour.press("Home");
  await expect(day.getByRole("status")).toHaveText("It is night.");
  await expect(lies).toHaveCount(0);
  const week = section(page, "Good hours this week");
  await expect(week.getByRole("listitem")).toHaveCount(7);
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    week.getByRole("button", { name: "Four weeks as a calendar" }).click(),
  ]);
  const text = await readFile(await file.path(), "utf8");
  expect(text).toContain("BEGIN:VCALENDAR");
  expect(text).toMatch(/DTSTART:2026\d{4}T\d{6}Z/);
  // Noise takes hours away.
  const told = await week.getByRole("list").innerText();
  await part(page, "By hand");
  await page.getByRole("button", { name: "Add hours" }).click();
  await page.getByLabel("From", { exact: true }).fill("09:00");
  await page.getByLabel("To", { exact: true }).fill("13:00");
  await part(page, "Now");
  await day.getByLabel("Date").fill("2026-01-20");
  await expect.poll(() => week.getByRole("list").innerText()).not.toBe(told);
});
