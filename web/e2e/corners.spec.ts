// The list of corners: their menus, many of them, and none.
import { expect, test, type Request } from "@playwright/test";

import { changedPlan } from "./help";

test("a corner is duplicated, renamed, deleted after a question, and brought back", async ({ page }) => {
  const id = await changedPlan(page, "Short-lived", () => undefined);
  await page.goto("/");
  const cards = (name: string) =>
    page.getByRole("listitem").filter({ has: page.getByRole("link", { name, exact: true }) });
  const menu = async (of: string, entry: string) => {
    await cards(of)
      .getByRole("button", { name: `More for ${of}` })
      .click();
    await page.getByRole("menuitem", { name: entry }).click();
  };
  await menu("Short-lived", "Duplicate");
  await expect(cards("Short-lived, copy")).toBeVisible();
  await menu("Short-lived, copy", "Rename");
  await page.getByLabel("Name of this corner").fill("Its double");
  await page.getByRole("button", { name: "Rename" }).click();
  await expect(cards("Its double")).toBeVisible();
  await menu("Short-lived", "Delete");
  await page.getByRole("alertdialog").getByRole("button", { name: "Cancel" }).click();
  await expect(cards("Short-lived")).toBeVisible();
  await menu("Short-lived", "Delete");
  await page.getByRole("alertdialog").getByRole("button", { name: "Delete" }).click();
  await expect(cards("Short-lived")).toHaveCount(0);
  expect((await page.request.get(`/api/v1/corners/${id}`)).status()).toBe(404);
  const undo = page.getByRole("button", { name: "Undo" });
  await expect(undo).toBeFocused();
  await undo.click();
  await expect(cards("Short-lived")).toBeVisible();
  expect((await page.request.get(`/api/v1/corners/${id}`)).status()).toBe(200);
});

test("many corners are found by name and sorted", async ({ page }) => {
  const corners = Array.from({ length: 30 }, (_, i) => ({
    id: 5000 + i,
    revision: 1,
    name: i === 17 ? "Lacquer bench" : `Corner ${String(i).padStart(2, "0")}`,
    updated_ms: 1_790_000_000_000 - i,
    told: {
      units: "metric",
      room_m: [3, 3, 2.4],
      verdict: { ready: true, because: [], sentence: "Ready: record." },
      score: 0.5 + i / 100,
    },
    trouble: null,
  }));
  await page.route(/api\/v1\/corners(\?.*)?$/, (route) => {
    const part = new URL(route.request().url()).searchParams.get("name") ?? "";
    const json = corners.filter(({ name }) => name.toLowerCase().includes(part));
    return route.fulfill({ json, headers: { "fogon-count": String(json.length) } });
  });
  await page.goto("/");
  const cards = page.getByRole("main").getByRole("listitem");
  await expect(cards).toHaveCount(30);
  await page.getByLabel("Find").fill("lacq");
  await expect(cards).toHaveCount(1);
  await page.getByLabel("Find").fill("nothing like it");
  await expect(page.getByText(/No corner/)).toBeVisible();
  await page.getByLabel("Find").fill("");
  await page.getByLabel("Sort").selectOption({ label: "by name" });
  await expect(cards.last()).toContainText("Lacquer bench");
});

test("without a corner the list invites to make one", async ({ page }) => {
  await page.route("**/api/v1/corners", (route) =>
    route.fulfill({ json: [], headers: { "fogon-count": "0" } }),
  );
  await page.goto("/");
  const empty = page.getByRole("region", { name: "No corner yet" });
  await expect(empty.getByRole("link").first()).toBeVisible();
  await empty.getByRole("link").first().click();
  await expect(page.getByRole("heading", { name: "Room", level: 2 })).toBeVisible();
});

test("pictures in the list come one at a time, and none holds up the corner that is opened", async ({
  page,
}) => {
  await page.addInitScript(() => localStorage.setItem("fogon.picture", '{"lines":false}'));
  for (const name of ["One of many", "Opened at once"]) await changedPlan(page, name, () => undefined);
  const [now, most] = [new Set<Request>(), { at: 0 }];
  page.on("request", (asked) => {
    if (/\/corners\/\d+\/picture/.test(asked.url())) now.add(asked);
    most.at = Math.max(most.at, now.size);
  });
  for (const end of ["requestfinished", "requestfailed"] as const)
    page.on(end as "requestfailed", (asked) => now.delete(asked));
  await page.goto("/");
  await expect.poll(() => most.at).toBe(1);
  await page.getByRole("link", { name: "Opened at once" }).first().click();
  await expect(page.getByRole("img", { name: "Plan, from above" })).toBeVisible();
  // What is not looked at any more is not waited for.
  await expect.poll(() => now.size).toBe(0);
  expect(most.at).toBe(1);
});
