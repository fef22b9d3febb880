// The day: told where and which way, it shows the sun by the hour, what to watch, the good hours of the week and the year, and hands
// hours out.
import { readFile } from "node:fs/promises";

import { expect, test } from "@playwright/test";

import { changedPlan, part, section } from "./help";

interface Placed {
  brief: {
    place?: unknown;
    quiet?: unknown;
    room: { north_deg?: number | null };
    schools?: Record<string, string>;
  };
}

test("a place and a bearing bring the sun, the week and its calendar", async ({ page }) => {
  const id = await changedPlan(page, "By the window", (plan: Placed) => {
    delete plan.brief.place;
    delete plan.brief.quiet;
    delete plan.brief.room.north_deg;
    plan.brief.schools = { ...plan.brief.schools, window: "key" };
  });
  await page.goto(`/corners/${id}/day`);
  await page.getByLabel("Region").selectOption("Spain");
  const looks = page.getByLabel(/looks to, degrees from north/);
  await looks.fill("150");
  await looks.press("Enter");
  const date = page.getByLabel("Date");
  await date.fill("2026-11-28");
  await expect(page.getByText(/Sunrise 08:1\d\. Sunset 17:5\d\./)).toBeVisible();
  await expect(page.getByText("Europe/Madrid, UTC+01:00.")).toBeVisible();
  // In summer the clock is another, and that is said.
  await date.fill("2026-06-21");
  await expect(page.getByText("Europe/Madrid, UTC+02:00, daylight saving.")).toBeVisible();
  await date.fill("2026-01-20");
  await expect(page.getByText(/Sunrise 08:3\d/)).toBeVisible();
  // The slider moves the patch on the plan, and night takes it away; the picture says at which hour it is taken.
  const hour = page.getByRole("slider", { name: "Time of day" });
  const lies = page.locator(".drawing .sun-patch");
  await expect(lies.first()).toBeAttached();
  const outline = () => lies.first().getAttribute("points");
  const before = await outline();
  await hour.press("ArrowLeft");
  await expect.poll(outline).not.toBe(before);
  await expect(page.getByText("11:50, clear sky, window uncovered")).toBeVisible();
  await hour.press("Home");
  await expect(page.getByText("It is night.")).toBeVisible();
  await expect(lies).toHaveCount(0);
  // What comes of the ways to use the window.
  await part(page, "Choices");
  const curtain = page.getByRole("radio", { name: /Hang a white curtain/ });
  await expect(curtain).toContainText(/good for|no good hour/);
  await curtain.click();
  await expect(curtain).toBeChecked();
  await part(page, "Now");
  await date.fill("2026-01-20");
  await expect(page.getByText(/clear sky, white curtain drawn/)).toBeVisible();
  await expect(lies).toHaveCount(0);
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByText(/clear sky, window uncovered/)).toBeVisible();
  await page.getByRole("tab", { name: "What to watch" }).click();
  await expect(page.getByText(/Lock exposure and white balance at the start of a take/)).toBeVisible();
  await expect(page.getByText(/The window's bearing may be 10 degrees off/)).toBeVisible();
  await page.getByRole("tab", { name: "Good hours" }).click();
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
  await date.fill("2026-01-20");
  await page.getByRole("tab", { name: "Good hours" }).click();
  await expect.poll(() => week.getByRole("list").innerText()).not.toBe(told);
  // A tap on the year takes a day up.
  await page.getByRole("tab", { name: "The year" }).click();
  const year = page.getByRole("img", { name: "The year: days across, hours down" });
  await expect(page.getByText(/The sun reaches your eyes on \d+ days of the year/)).toBeVisible();
  await year.click({ position: { x: 300, y: 100 } });
  await expect(date).not.toHaveValue("2026-01-20");
});

test("a bearing is found by the sun, a time zone is typed", async ({ page }) => {
  const id = await changedPlan(page, "By the sun", (plan: Placed) => {
    delete plan.brief.place;
    delete plan.brief.room.north_deg;
  });
  await page.goto(`/corners/${id}/day`);
  await page.getByRole("button", { name: "Type latitude and longitude" }).click();
  const latitude = page.getByLabel(/Latitude/);
  await latitude.fill("91");
  await latitude.press("Enter");
  await expect(page.getByText(/Give .90\.00 to 90\.00/)).toBeVisible();
  await latitude.fill("40");
  await latitude.press("Enter");
  // Half a place is none yet: nothing is shown of its day.
  await page.getByLabel(/Longitude/).fill("-4");
  await page.getByLabel(/Longitude/).press("Enter");
  const zone = page.getByLabel("Time zone");
  await zone.fill("Europe/Nowhere");
  await expect(page.getByText("No time zone is called so; as Europe/Madrid.")).toBeVisible();
  await zone.fill("Europe/Madrid");
  await page.getByLabel("Found by").selectOption("sun");
  await page.getByLabel("You saw the sun at").fill("2026-11-28T13:30");
  await page.getByRole("button", { name: "Take the bearing" }).click();
  // Now that all is known the day is shown.
  await expect(page.getByRole("slider", { name: "Time of day" })).toBeVisible();
  await part(page, "By hand");
  // 26 minutes after the sun's noon (12:16 by longitude, 12 minutes less by the equation of time) at declination -21.3 degrees.
  await expect(page.getByLabel(/It looks to/)).toHaveValue("187");
  await expect(page.getByLabel("Found by")).toHaveValue("sun");
});
