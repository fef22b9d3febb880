// On a phone, by finger: taken, dragged, nudged, brought nearer with two fingers.
import { expect, test, type CDPSession, type Page } from "@playwright/test";

import { grip, middle, open, reading, saved, stored } from "./help";

/** Fingers on the screen, as the browser itself hears of them. */
async function fingers(page: Page) {
  const session: CDPSession = await page.context().newCDPSession(page);
  const send = (type: "touchStart" | "touchMove" | "touchEnd", points: [number, number][]) =>
    session.send("Input.dispatchTouchEvent", {
      type,
      touchPoints: points.map(([x, y], id) => ({ x, y, id })),
    });
  return {
    down: (...points: [number, number][]) => send("touchStart", points),
    move: (...points: [number, number][]) => send("touchMove", points),
    up: (...points: [number, number][]) => send("touchEnd", points),
  };
}

const AZIMUTH = "light.key.azimuth_deg";

async function openPlan(page: Page): Promise<void> {
  const drawings = page.getByText("Plan and side view");
  await drawings.tap();
  await grip(page, "plan-key-place").scrollIntoViewIfNeeded();
}

test("a finger drags a lamp; a second finger neither moves nor drops it", async ({ page }) => {
  const id = await open(page, "By finger", "/light");
  await openPlan(page);
  const before = await reading(page, AZIMUTH);
  const [x, y] = await middle(grip(page, "plan-key-place"));
  const { down, move, up } = await fingers(page);
  await down([x, y]);
  await move([x, y - 12]);
  await move([x, y - 24]);
  await expect.poll(() => reading(page, AZIMUTH)).not.toBe(before);
  const lies = async () => Math.abs((await middle(grip(page, "plan-key-place")))[1] - (y - 24));
  await expect.poll(lies).toBeLessThan(5);
  await down([x, y - 24], [40, y + 120]);
  await move([x, y - 24], [80, y + 160]);
  await move([x + 2, y - 24], [90, y + 180]);
  await expect.poll(lies).toBeLessThan(5);
  await up([x, y - 24]);
  await up();
  await expect.poll(async () => (await stored(page, id)).revision).toBe(2);
  expect(await reading(page, AZIMUTH)).not.toBe(before);
});

test("one hand: taken, nudged under the thumb, read", async ({ page }) => {
  const id = await open(page, "By thumb", "/sound");
  await page.getByText("Plan and side view").tap();
  await grip(page, "plan-microphone-place").scrollIntoViewIfNeeded();
  await grip(page, "plan-microphone-place").tap();
  const bar = page.getByRole("group", { name: "Nudge Microphone" });
  const up = bar.getByRole("button", { name: /a small step up/ });
  const [, y] = await middle(up);
  expect(y, "within reach of the thumb").toBeGreaterThan(500);
  const height = async () =>
    (await stored<{ layout: { microphone: { position_m: number[] } } }>(page, id)).layout.microphone
      .position_m[2];
  const before = (await height()) ?? 0;
  for (let i = 0; i < 4; i += 1) await up.tap();
  await expect.poll(height).toBeCloseTo(before + 0.04, 6);
});

test("two fingers bring the plan nearer, and a press fits it again", async ({ page }) => {
  await open(page, "Pinched", "/light");
  await openPlan(page);
  const scale = async () =>
    Number(await page.locator("[data-pixels-per-metre]").getAttribute("data-pixels-per-metre"));
  const before = await scale();
  const [x, y] = await middle(page.getByRole("img", { name: "Plan, from above" }));
  const { down, move, up } = await fingers(page);
  await down([x - 20, y + 60], [x + 20, y + 60]);
  for (const wide of [30, 50, 70]) await move([x - wide, y + 60], [x + wide, y + 60]);
  await up();
  await expect.poll(scale).toBeGreaterThan(1.5 * before);
  await page.getByRole("button", { name: "Fit" }).tap();
  await expect.poll(scale).toBe(before);
});

test("answers are given by finger, in feet and inches", async ({ page }) => {
  await page.goto("/new");
  await page.getByRole("radio", { name: "Feet and inches" }).tap();
  await page.getByLabel("Width, along the back wall").fill("11 2");
  await expect(page.getByLabel("Ceiling height")).toHaveValue("8' 0\"");
  await page.getByLabel("Width, along the back wall").fill("11' 2\"");
  await page.getByLabel("Depth, back to front").fill("10");
  await page.getByRole("button", { name: "Next: You" }).tap();
  await page.getByLabel("Your height").fill("5' 7\"");
  await page.getByRole("button", { name: "Next: Shot" }).tap();
  await page.getByText("Phone", { exact: true }).tap();
  await page.getByRole("button", { name: "Skip the rest" }).tap();
  await expect(page.getByRole("img", { name: "The picture as the lens sees it" })).toBeVisible();
  const id = Number(/corners\/(\d+)/.exec(page.url())?.[1]);
  const corner = await stored<{ brief: { units: string; room: { floor_m: number[][] } } }>(page, id);
  expect(corner.brief.units).toBe("imperial");
  expect(corner.brief.room.floor_m[2]?.[0]).toBeCloseTo(134 * 0.0254, 3);
  await saved(page, id, 1);
});
