// The application as a person uses it: from an empty form to a printed card, and what goes wrong on the way.
import { expect, test, type Page } from "@playwright/test";

import { changedPlan, choose, demoPlan, open, part, saved, section, step, stored } from "./help";

async function rename(page: Page, name: string): Promise<void> {
  await choose(page, "Rename");
  await page.getByLabel("Name of this corner").fill(name);
  await page.getByRole("button", { name: "Rename" }).click();
}

test("a new corner of mixed measurements becomes a layout and a card", async ({ page }) => {
  await page.goto("/");
  await page.getByRole("link", { name: "New corner" }).click();
  await page.getByLabel("Width, along the back wall").fill("13' 1\"");
  await page.getByLabel("Depth, back to front").fill("3.6 m");
  await page.getByLabel("Ceiling height").fill("250 cm");
  await expect(page.getByRole("img", { name: /room/i })).toBeVisible();
  await page.getByRole("button", { name: "Next: You" }).click();
  await page.getByLabel("Your height").fill("1.64");
  await page.getByRole("button", { name: "Skip the rest" }).click();

  await expect(page.getByRole("heading", { name: "My corner" })).toBeVisible();
  await rename(page, "Marbling room");
  await expect(page.getByRole("heading", { name: "Marbling room" })).toBeVisible();
  const placed = section(page, "Where everything goes, and why");
  await expect(placed.getByText(/^You face .* best of the \d facings that fit/)).toBeVisible();
  await expect(placed.getByText(/degrees camera (left|right), \d+ degrees up/).first()).toBeVisible();
  for (const name of ["Plan, from above", "Side view along the lens axis", "The picture as the lens sees it"])
    await expect(page.getByRole("img", { name, exact: true })).toBeVisible();

  // The working of a reading opens with formula, inputs and source.
  await step(page, "Sound").click();
  await part(page, "All numbers");
  await page.getByRole("button", { name: /^Mouth to microphone/ }).click();
  const working = page.getByRole("dialog");
  await expect(working.getByText("straight line from the mouth to the capsule")).toBeVisible();
  await expect(working.getByText(/Source: /)).toBeVisible();
  await page.keyboard.press("Escape");
  // Gear told by its kind alone has assumed figures, and says so.
  await step(page, "Light").click();
  await page.getByRole("button", { name: /^Size of the key/ }).click();
  await expect(working.getByRole("row", { name: /diameter of equal area/ })).toContainText("assumed");
  await page.keyboard.press("Escape");

  await step(page, "Card").click();
  const card = page.frameLocator("iframe");
  await expect(card.getByRole("heading", { name: "Marbling room" })).toBeVisible();
  await expect(card.getByText("3.99 m × 3.60 m × 2.50 m")).toBeVisible();
  await expect(card.getByText("1 S")).toBeVisible();
  await expect(card.getByText(/Loudest sentence peaks/)).toBeVisible();
  await page.getByRole("button", { name: "Save as a file" }).click();
  for (const [name, ending] of [
    ["Card, as SVG", "svg"],
    ["Card, floor, door sign and labels, as PDF", "pdf"],
    ["Marks, as a table", "marks.csv"],
  ] as const) {
    const [download] = await Promise.all([
      page.waitForEvent("download"),
      page.getByRole("link", { name, exact: true }).click(),
    ]);
    expect(download.suggestedFilename()).toBe(`marbling-room.${ending}`);
  }
});

test("the card prints on one sheet of either paper", async ({ page }) => {
  await demoPlan(page);
  for (const paper of ["a4", "letter"]) {
    await page.goto(`/api/v1/corners/1/card/html?paper=${paper}`);
    const pdf = await page.pdf({ preferCSSPageSize: true });
    // Each page of a PDF is one object of /Type /Page.
    const pages = pdf.toString("latin1").match(/\/Type\s*\/Page[^s]/g) ?? [];
    expect(pages.length, paper).toBe(1);
  }
});

test("a fix is applied in one click and kept", async ({ page }) => {
  const id = await changedPlan(page, "Too bright", (plan: { layout: { camera: { iso: number } } }) => {
    plan.layout.camera.iso = 1600;
  });
  await page.goto(`/corners/${id}`);
  await expect(page.getByRole("heading", { name: "Not ready: 1 thing stands in the way." })).toBeVisible();
  const next = page.getByRole("region", { name: "What to do next" });
  await expect(next).toContainText("too bright");
  await next.getByRole("button", { name: /^(Set|Dim)/ }).click();
  await expect(page.getByRole("heading", { name: "Ready: record." })).toBeVisible();
  await saved(page, id, 2);
  await page.reload();
  await expect(page.getByRole("heading", { name: "Ready: record." })).toBeVisible();
});

test("what shows in the picture is shown as showing", async ({ page }) => {
  type Edit = { layout: { seat: { position_m: number[] }; lights: { key: { position_m: number[] } } } };
  const id = await changedPlan(page, "Lamp in the picture", (plan: Edit) => {
    const [x, y] = plan.layout.seat.position_m as [number, number];
    plan.layout.lights.key.position_m = [x - 0.55, y, 1.35];
  });
  await page.goto(`/corners/${id}`);
  await expect(page.getByRole("heading", { name: /Not ready/ })).toBeVisible();
  await expect(page.getByText(/inside the picture/).first()).toBeVisible();
  const picture = page.getByRole("img", { name: "The picture as the lens sees it" });
  await expect(picture.locator(".ink-intruder[data-thing=key]").first()).toBeAttached();
});

test("a broken file is refused by name and nothing changes", async ({ page }) => {
  await page.goto("/");
  const rows = page.getByRole("main").getByRole("listitem");
  await expect(rows.first()).toBeVisible();
  const before = await rows.count();
  const plan = JSON.stringify(await demoPlan(page));
  const broken: [string, string, RegExp][] = [
    ["cut.fogon.json", plan.slice(0, 500), /document: .* is not accepted, give one JSON value/],
    [
      "door.fogon.json",
      plan.replace('"width_m":0.78', '"width_m":9'),
      /openings\.door\.width_m: 9 m is not accepted/,
    ],
    [
      "newer.fogon.json",
      plan.replace('"version":1', '"version":2'),
      /version: 2 is not accepted.*newer version/,
    ],
    ["huge.fogon.json", " ".repeat(10_000_000), /larger than 1 MB/],
  ];
  for (const [name, text, words] of broken) {
    await page
      .getByLabel("Plan or brief file")
      .setInputFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
    await expect(page.getByRole("alert")).toContainText(words);
    expect(await rows.count()).toBe(before);
  }
  await page
    .getByLabel("Plan or brief file")
    .setInputFiles({ name: "good.fogon.json", mimeType: "application/json", buffer: Buffer.from(plan) });
  await expect(page.getByRole("heading", { name: "Where everything goes, and why" })).toBeVisible();
});

test("bad answers are named beside their field and nothing typed is lost", async ({ page }) => {
  await page.goto("/new/all");
  await page.getByLabel("Width, along the back wall").fill("very wide");
  await page.getByLabel("Depth", { exact: true }).fill("0");
  await page.getByLabel("Name of the corner").fill("Half done");
  await page.getByRole("button", { name: "Lay out the corner" }).click();
  await expect(page.getByText("“very wide” is not a length.")).toBeVisible();
  await expect(page.getByText("0 is not accepted: give 0.50 m to 50.00 m.")).toBeVisible();
  await page.reload();
  await expect(page.getByLabel("Width, along the back wall")).toHaveValue("very wide");
  await expect(page.getByLabel("Name of the corner")).toHaveValue("Half done");
  // What only the whole can tell is told beside the field as well.
  await page.getByLabel("Width, along the back wall").fill("3");
  await page.getByLabel("Depth", { exact: true }).fill("3");
  await page.getByRole("group", { name: "door", exact: true }).getByLabel("Width").fill("4 m");
  await page.getByRole("button", { name: "Next: You" }).click();
  await page.getByLabel("Stature").fill("5' 6\"");
  await page.getByRole("button", { name: "Lay out the corner" }).click();
  await expect(page.getByRole("alert").filter({ hasText: "openings.door.width_m" })).toBeVisible();
  await page.getByRole("button", { name: "Back" }).click();
  await expect(
    page.getByRole("group", { name: "door", exact: true }).getByText(/4 m is not accepted/),
  ).toBeVisible();
});

test("an alcove is walked round with a tape, and its corners are on plan and card", async ({ page }) => {
  await page.goto("/new/all");
  await page.getByLabel("Name of the corner").fill("Round the alcove");
  await page.getByLabel("Shape of the floor").selectOption("walk");
  const status = page.getByRole("status");
  await expect(status).toHaveText("The walk closes.");
  // 4 cm short on one wall: said, and shared out.
  await page.getByLabel("Wall e–f", { exact: true }).fill("2.46 m");
  await expect(status).toContainText("ends 0.04 m from where it started, 0.3 % of the way. Shared out");
  await page.getByLabel("Then, at corner d").selectOption("left");
  await expect(status).toContainText("540 degrees of turns: give 360 degrees");
  await page.getByLabel("Then, at corner d").selectOption("right");
  await page.getByRole("button", { name: "Add a slope" }).click();
  await page.getByLabel("Height at that wall").fill("1.2 m");
  await page.getByLabel("Meets the ceiling after").fill("1 m");
  await page.getByRole("button", { name: "Remove window" }).click();
  await page.getByRole("button", { name: "Add a door" }).click();
  const second = page.getByRole("group", { name: "door-2" });
  await second.getByLabel("In wall").selectOption("0");
  await second.getByLabel("From corner a").fill("1 m");
  await second.getByLabel("Opens").selectOption("sliding");
  await page.getByRole("button", { name: "Next: You" }).click();
  await page.getByLabel("Stature").fill("1.70");
  await page.getByRole("button", { name: "Lay out the corner" }).click();
  await expect(page.getByRole("heading", { name: "Round the alcove" })).toBeVisible();
  const plan = page.getByRole("img", { name: "Plan, from above" });
  await expect(plan.getByText("slope from 1.20 m")).toBeVisible();
  for (const letter of "abcdef") await expect(plan.getByText(letter, { exact: true })).toBeVisible();
  await step(page, "Card").click();
  const card = page.frameLocator("iframe");
  await expect(card.getByText(/6 corners, under a slope/)).toBeVisible();
  await expect(card.locator("tbody tr").first().locator("em")).toHaveText([/^[a-f]$/, /^[a-f]$/]);
  // The answers come back as the walk that they were.
  await page.goto(`${page.url().replace(/\/card$/, "")}/answers`);
  await expect(page.getByLabel("Then, at corner d")).toHaveValue("right");
  await expect(page.getByLabel("Height at that wall")).toHaveValue("1.2 m");
  await expect(page.getByRole("group", { name: "door-2" }).getByLabel("Opens")).toHaveValue("sliding");
});

test("a cupboard is told what forbids it and what would free it", async ({ page }) => {
  await page.goto("/new/all");
  await page.getByLabel("Name of the corner").fill("Cupboard");
  await page.getByLabel("Width, along the back wall").fill("1.3 m");
  await page.getByLabel("Depth", { exact: true }).fill("1.4 m");
  for (const thing of ["door", "window"]) await page.getByRole("button", { name: `Remove ${thing}` }).click();
  await page.getByRole("button", { name: "Remove desk" }).click();
  await page.getByRole("button", { name: "Next: You" }).click();
  await page.getByLabel("Stature").fill("1.80");
  await page.getByRole("button", { name: "Lay out the corner" }).click();
  await expect(page.getByRole("heading", { name: "Nothing fits yet" })).toBeVisible();
  await expect(page.getByText(/would do|then the corner works/).first()).toBeVisible();
});

test("feet and inches change the words, not the corner", async ({ page }) => {
  const id = await open(page, "Both tapes", "/shot");
  const distance = page.getByRole("button", { name: /^Lens to eyes/ });
  await expect(distance).toContainText(/\d\.\d\d/);
  const metres = Number(/[\d.]+(?=\s*m)/.exec((await distance.textContent()) ?? "")?.[0]);
  await choose(page, "Show feet and inches");
  const feet = /(\d+)' (\d+)([¼½¾]?)"/;
  await expect(distance).toContainText(feet);
  const [, whole, inches, part_ = ""] = feet.exec((await distance.textContent()) ?? "") ?? [];
  const read = (Number(whole) * 12 + Number(inches) + "_¼½¾".indexOf(part_ || "_") / 4) * 0.0254;
  expect(Math.abs(read - metres)).toBeLessThan(0.01);
  await saved(page, id, 2);
  await step(page, "Card").click();
  const size = "11' 1¾\" × 9' 6¼\" × 8' ½\"";
  await expect(page.frameLocator("iframe").getByText(size)).toBeVisible();
  await page.goto("/");
  await expect(page.getByRole("listitem").filter({ hasText: "Both tapes" })).toContainText(size);
});

test("another layout is taken, and the first one again", async ({ page }) => {
  const id = await open(page, "Other layouts", "/you");
  const found = section(page, "Layouts found, best first").getByRole("listitem");
  await expect(found).toHaveCount(3);
  await expect(found.first()).toContainText("In use");
  await found.nth(1).getByRole("button", { name: "Use this one" }).click();
  await saved(page, id, 2);
  await expect(found.nth(1)).toContainText("In use");
  await found.first().getByRole("button", { name: "Use this one" }).click();
  await expect(found.first()).toContainText("In use");
  await saved(page, id, 3);
});

interface Told {
  revision: number;
  brief: { room: { floor_m: number[][]; height_m: number }; gear: Record<string, { cct_min_k?: number }> };
  layout: { seat: { position_m: number[] }; lights: { key: { position_m: number[]; locked?: boolean } } };
}

test("answers are changed, kept while away, and move nothing or lay out anew around what is locked", async ({
  page,
}) => {
  const id = await changedPlan(page, "Second thoughts", (plan: never) => {
    (plan as Told).layout.lights.key.locked = true;
  });
  const before = await stored<Told>(page, id);
  await page.goto(`/corners/${id}`);
  await page.getByRole("link", { name: "Answers" }).click();
  const width = page.getByLabel("Width, along the back wall");
  await expect(width).toHaveValue("3.4 m");
  await expect(page.getByRole("button", { name: "Discard these changes" })).toHaveCount(0);
  await width.fill("4.1 m");
  await page.getByRole("link", { name: "Fogon, all corners" }).click();
  await page.goto(`/corners/${id}/answers`);
  await expect(width).toHaveValue("4.1 m");
  await page.getByRole("button", { name: "Discard these changes" }).click();
  await expect(width).toHaveValue("3.4 m");
  // Another window saves meanwhile: what is typed here stays, and so does what was saved there.
  await page.getByLabel("Ceiling height").fill("2.6 m");
  const theirs = (await (await page.request.get(`/api/v1/corners/${id}/file`)).json()) as Told;
  const wide = { ...theirs.brief.room, floor_m: theirs.brief.room.floor_m.map(([x = 0, y = 0]) => [x, y]) };
  await page.request.put(`/api/v1/corners/${id}`, {
    headers: { "if-match": '"1"' },
    data: { ...theirs, name: "Renamed there", brief: { ...theirs.brief, room: wide } },
  });
  await expect(page.getByLabel("Ceiling height")).toHaveValue("2.6 m");
  await page.getByRole("button", { name: "Save, move nothing" }).click();
  await expect(page.getByRole("heading", { name: "Renamed there" })).toBeVisible();
  const still = await stored<Told>(page, id);
  expect(still.brief.room.height_m).toBe(2.6);
  expect(still.layout).toEqual(before.layout);
  await page.getByRole("link", { name: "Answers" }).click();
  await width.fill("13 ft");
  await page.getByRole("button", { name: "Save and lay out again" }).click();
  await expect(page.getByRole("heading", { name: "Where everything goes, and why" })).toBeVisible();
  const corner = await stored<Told>(page, id);
  expect(corner.brief.room.floor_m[2]?.[0]).toBeCloseTo(13 * 0.3048, 3);
  expect(corner.brief.gear.octa?.cct_min_k).toBe(2800);
  expect(corner.layout.lights.key.position_m).toEqual(before.layout.lights.key.position_m);
});

test("the first answers are given and read by keyboard alone", async ({ page }) => {
  await page.goto("/new/all");
  await page.evaluate(() => localStorage.clear());
  await page.goto("/new/all");
  const type = async (label: string, text: string) => {
    await page.getByLabel(label, { exact: true }).focus();
    await page.keyboard.type(text);
  };
  await type("Name of the corner", "By keys");
  await type("Width, along the back wall", "3.6");
  await type("Depth", "3.1");
  await page.keyboard.press("Enter");
  await expect(page.getByRole("heading", { name: "You", level: 2 })).toBeFocused();
  await type("Stature", "1.70");
  for (const next of ["Purpose", "What you own", "Today", "Money"]) {
    await page.getByRole("button", { name: `Next: ${next}` }).press("Enter");
    await expect(page.getByRole("heading", { name: next, level: 2 })).toBeFocused();
  }
  await page.getByRole("button", { name: "Lay out the corner" }).press("Enter");
  await expect(page.getByRole("heading", { name: "By keys" })).toBeVisible();
  await step(page, "Light").press("Enter");
  const reading = page.getByRole("button", { name: /^Key angle from the lens/ });
  await reading.press("Enter");
  await expect(page.getByRole("dialog")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("dialog")).toHaveCount(0);
  await expect(reading).toBeFocused();
});
