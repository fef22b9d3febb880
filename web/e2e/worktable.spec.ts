// Deciding by hand: drag, nudge, type, lock, undo, measure; by pointer and by keys, on the desk and on the phone.
import { expect, test, type Locator, type Page } from "@playwright/test";

import { changedPlan, reading } from "./help";

const grip = (page: Page, name: string) => page.locator(`[data-grip="${name}"]`);

/** Middle of an element on the screen. */
async function middle(of: Locator): Promise<[number, number]> {
  const box = await of.boundingBox();
  if (!box) throw new Error("not on the screen");
  return [box.x + box.width / 2, box.y + box.height / 2];
}

/** Pixels of a metre on the plan. */
async function scaleOf(page: Page): Promise<number> {
  return Number(await page.locator("[data-pixels-per-metre]").getAttribute("data-pixels-per-metre"));
}

async function drag(page: Page, from: [number, number], by: [number, number], steps = 8): Promise<void> {
  await page.mouse.move(...from);
  await page.mouse.down();
  for (let i = 1; i <= steps; i += 1)
    await page.mouse.move(from[0] + (by[0] * i) / steps, from[1] + (by[1] * i) / steps);
}

const kept = (page: Page, revision: number) =>
  expect(page.getByText(`kept, revision ${revision}`)).toBeVisible();

test("a light is dragged, the readings follow, and undo brings it back", async ({ page }) => {
  const id = await changedPlan(page, "Dragged", () => undefined);
  await page.goto(`/corners/${id}/light`);
  const before = await reading(page, "light.key.azimuth_deg");
  const key = grip(page, "plan-key-place");
  const start = await middle(key);
  await drag(page, start, [4, -34]);
  // While the button is still down.
  await expect.poll(() => reading(page, "light.key.azimuth_deg")).not.toBe(before);
  await page.mouse.up();
  await kept(page, 2);
  const after = await reading(page, "light.key.azimuth_deg");
  expect(after).not.toBe(before);
  const moved = await middle(key);
  expect(Math.hypot(moved[0] - start[0], moved[1] - start[1])).toBeGreaterThan(15);
  await page.getByRole("button", { name: "Undo" }).click();
  await kept(page, 3);
  await expect.poll(() => reading(page, "light.key.azimuth_deg")).toBe(before);
  await page.getByRole("button", { name: "Redo" }).click();
  await kept(page, 4);
  await expect.poll(() => reading(page, "light.key.azimuth_deg")).toBe(after);
  // Escape breaks a drag off: nothing is kept.
  await drag(page, await middle(key), [-40, 20]);
  await expect.poll(() => reading(page, "light.key.azimuth_deg")).not.toBe(after);
  await page.keyboard.press("Escape");
  await expect.poll(() => reading(page, "light.key.azimuth_deg")).toBe(after);
  await page.mouse.up();
  await kept(page, 4);
});

test("what is in the way holds and says so; anyway puts it there", async ({ page }) => {
  const id = await changedPlan(page, "Held", () => undefined);
  await page.goto(`/corners/${id}`);
  const lens = await middle(grip(page, "plan-camera-place"));
  const scale = await scaleOf(page);
  // A whole metre to the right is beyond the wall.
  await drag(page, lens, [scale, 0]);
  await page.mouse.up();
  const note = page.locator(".notes");
  await expect(note).toContainText("Held: ");
  await expect(page.getByText("Ready: record.")).toBeVisible();
  await kept(page, 2);
  await note.getByRole("button", { name: "Put it there anyway" }).click();
  await expect(page.getByText(/Not ready/)).toBeVisible();
  await expect(page.getByText(/beyond the room|behind the sensor/).first()).toBeVisible();
});

test("a round angle draws the light, and Alt lets it be", async ({ page }) => {
  const id = await changedPlan(page, "Drawn", () => undefined);
  await page.goto(`/corners/${id}/light`);
  const key = grip(page, "plan-key-place");
  const seat = await middle(grip(page, "plan-seat-place"));
  const at = await middle(key);
  const lens = await middle(grip(page, "plan-camera-place"));
  // Turned about the seat until it stands 44 degrees off the lens on the screen.
  const angle = (p: [number, number]) => Math.atan2(p[1] - seat[1], p[0] - seat[0]);
  const side = Math.sign(Math.sin(angle(at) - angle(lens)));
  const wanted = angle(lens) + (side * 44 * Math.PI) / 180;
  const far = Math.hypot(at[0] - seat[0], at[1] - seat[1]);
  const to = [seat[0] + far * Math.cos(wanted), seat[1] + far * Math.sin(wanted)] as const;
  await drag(page, at, [to[0] - at[0], to[1] - at[1]]);
  await page.mouse.up();
  await expect(page.locator(".notes")).toContainText(/Drawn to: 45 degrees camera (left|right)\./);
  expect(await reading(page, "light.key.azimuth_deg")).toBe("45");
});

test("lists do what the drawing does, by keys alone", async ({ page }) => {
  const id = await changedPlan(page, "By keys", () => undefined);
  await page.goto(`/corners/${id}/light`);
  const thing = page.locator("[data-thing=key]");
  const height = thing.getByLabel("Height", { exact: true });
  const was = Number.parseFloat(await height.inputValue());
  // Arrow keys in the box: 1 cm, with Shift 10 cm; on the grip of the side view as well.
  await height.focus();
  await expect(thing.getByText("glossary", { exact: false })).toHaveCount(0);
  await height.press("ArrowDown");
  await expect(height).toHaveValue(`${Number((was - 0.01).toFixed(3))} m`);
  await grip(page, "side-key-place").press("ArrowUp");
  await expect(height).toHaveValue(`${was} m`);
  await grip(page, "side-key-place").press("Shift+ArrowDown");
  await expect(height).toHaveValue(`${Number((was - 0.1).toFixed(3))} m`);
  // Typed exactly; what is no length stays with its reason.
  await height.fill("tall");
  await height.press("Enter");
  await expect(thing.getByText("“tall” is not a value.")).toBeVisible();
  await height.fill("182 cm");
  await height.press("Enter");
  await expect(height).toHaveValue("1.82 m");
  const elevation = thing.getByLabel(/Above the eyes/);
  await elevation.fill("30");
  await elevation.press("Enter");
  await expect(elevation).toHaveValue("30");
  await expect.poll(() => reading(page, "light.key.elevation_deg")).toBe("30");
  // The pad does it by presses.
  await thing.getByRole("button", { name: /a small step up/ }).press("Enter");
  await expect.poll(async () => Number(await elevation.inputValue())).toBeGreaterThan(30.2);
  // Locked: the boxes are shut, and the drawing does not move it.
  await thing.getByRole("button", { name: "Lock" }).press("Enter");
  await expect(height).toBeDisabled();
  const locked = await height.inputValue();
  await grip(page, "side-key-place").press("Shift+ArrowUp");
  await drag(page, await middle(grip(page, "plan-key-place")), [20, -20]);
  await page.mouse.up();
  await expect(height).toHaveValue(locked);
  await page.reload();
  await expect(thing.getByRole("button", { name: "Unlock" })).toBeVisible();
  // Undo by keys.
  await page.locator("body").press("Control+z");
  await expect(thing.getByRole("button", { name: "Lock" })).toBeVisible();
});

test("every step opens its own readings and controls", async ({ page }) => {
  const id = await changedPlan(page, "Steps", () => undefined);
  await page.goto(`/corners/${id}`);
  const thread = page.getByRole("navigation", { name: "Order of the work" });
  const shows: Record<string, RegExp> = {
    Room: /Load on the breaker/,
    You: /Eye height/,
    Shot: /Lens to eyes/,
    Light: /Lit side to shadow side/,
    Day: /in the (left|right|back|front) wall/,
    Sound: /Mouth to microphone/,
    Money: /What to change, in order/,
    Card: /Set-up card/,
  };
  for (const [step, words] of Object.entries(shows)) {
    const knot = thread.getByRole("link", { name: new RegExp(`\\b${step}\\b`) });
    await expect(knot).toContainText(/\d|window/);
    await knot.click();
    await expect(knot).toHaveAttribute("aria-current", "step");
    await expect(page.getByRole("main")).toContainText(words);
    if (step !== "Card") expect(await page.getByRole("main").getByRole("textbox").count()).toBeGreaterThan(0);
  }
});

test("a measured value stands in place of the computed one until what it measured moves", async ({
  page,
}) => {
  const id = await changedPlan(page, "Measured", () => undefined);
  await page.goto(`/corners/${id}/light`);
  const lux = page.locator('[data-reading="light.face.illuminance_lx"]');
  await lux.click();
  const working = page.getByRole("dialog");
  await working.getByLabel(/Measured it yourself/).fill("a lot");
  await expect(working.getByText(/is not accepted: give 0 lx to 100000 lx/)).toBeVisible();
  await working.getByLabel(/Measured it yourself/).fill("491");
  await working.getByRole("button", { name: "Use it" }).click();
  await expect(working.getByText("computed instead")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(lux).toContainText("measured");
  expect(await reading(page, "light.face.illuminance_lx")).toBe("491");
  // Half the light that was computed: one stop less.
  const stops = Number((await reading(page, "light.face.exposure_stops")).replace("−", "-"));
  expect(stops).toBeCloseTo(-1, 0);
  await grip(page, "plan-key-place").press("ArrowLeft");
  await expect(page.locator(".notes")).toContainText("set aside");
  await expect(lux).not.toContainText("measured");
  for (const [step, label, typed, words] of [
    ["you", "person.eye.height_m", "1.27", "1.27"],
    ["sound", "sound.room.rt_mid_s", "0.31", "0.31"],
    ["room", "room.mains.voltage_v", "118", "118"],
  ] as const) {
    await page.goto(`/corners/${id}/${step}`);
    await page.locator(`[data-reading="${label}"]`).click();
    await working.getByLabel(/Measured it yourself/).fill(typed);
    await working.getByRole("button", { name: "Use it" }).click();
    await page.keyboard.press("Escape");
    await expect(page.locator(`[data-reading="${label}"]`)).toContainText("measured");
    expect(await reading(page, label)).toContain(words);
  }
});

test("a word of the trade explains itself on focus", async ({ page }) => {
  await page.goto("/corners/1/shot");
  await page.getByRole("textbox", { name: /^Focal length/ }).focus();
  await expect(page.getByText("The lens's own figure for how narrow it looks")).toBeVisible();
  await page.locator('[data-reading="shot.camera.distance_m"]').focus();
  await expect(page.getByRole("tooltip")).toContainText("Distance from the lens to the eyes");
});

test("another layout does not move what is locked", async ({ page }) => {
  const id = await changedPlan(page, "Locked seat", (plan: { layout: { seat: { locked?: boolean } } }) => {
    plan.layout.seat.locked = true;
  });
  await page.goto(`/corners/${id}/you`);
  await expect(page.getByRole("button", { name: /Unlock the seat to take this one/ }).first()).toBeDisabled();
});

test("the server gone is said, nothing typed is lost, and it is kept when it is back", async ({
  page,
  context,
}) => {
  const id = await changedPlan(page, "Offline", () => undefined);
  await page.goto(`/corners/${id}/shot`);
  await expect(page.getByLabel("ISO")).toBeVisible();
  await context.setOffline(true);
  await page.getByLabel("ISO").fill("200");
  await page.getByLabel("ISO").press("Enter");
  await expect(page.getByRole("alert")).toContainText("cannot be reached");
  await expect(page.getByLabel("ISO")).toHaveValue("200");
  await context.setOffline(false);
  await page.getByRole("alert").getByRole("button", { name: "Try again" }).click();
  await kept(page, 2);
  await page.reload();
  await expect(page.getByLabel("ISO")).toHaveValue("200");
});

test("one hand on a phone: taken, nudged, read", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const id = await changedPlan(page, "Phone", () => undefined);
  await page.goto(`/corners/${id}/sound`);
  const plan = page.getByRole("img", { name: "Plan, from above" });
  const picture = page.getByRole("img", { name: "The picture as the lens sees it" });
  expect((await middle(plan))[1]).toBeLessThan((await middle(picture))[1]);
  await grip(page, "plan-microphone-place").click();
  const before = await reading(page, "sound.microphone.distance_m");
  const bar = page.locator(".hand-bar");
  const up = bar.getByRole("button", { name: /a small step up/ });
  const [, y] = await middle(up);
  expect(y, "within reach of the thumb").toBeGreaterThan(500);
  for (let i = 0; i < 4; i += 1) await up.click();
  await expect.poll(() => reading(page, "sound.microphone.distance_m")).not.toBe(before);
  // One step of undo or more, as fast as the presses came.
  await expect(page.getByText(/kept, revision [2-5]/)).toBeVisible();
});

test("without the live channel a drag goes by requests", async ({ page }) => {
  const id = await changedPlan(page, "No channel", () => undefined);
  await page.routeWebSocket("**/api/v1/hand", (socket) => socket.close());
  let asked = 0;
  page.on("request", (request) => (asked += Number(request.url().includes("/api/v1/move"))));
  await page.goto(`/corners/${id}/light`);
  const before = await reading(page, "light.key.azimuth_deg");
  await drag(page, await middle(grip(page, "plan-key-place")), [4, -34]);
  await expect.poll(() => reading(page, "light.key.azimuth_deg")).not.toBe(before);
  await page.mouse.up();
  await kept(page, 2);
  expect(asked).toBeGreaterThan(0);
});

test("what was changed a moment before leaving is kept", async ({ page }) => {
  const id = await changedPlan(page, "Leaving", () => undefined);
  await page.goto(`/corners/${id}/shot`);
  await page.getByLabel("ISO").fill("320");
  await page.getByLabel("ISO").press("Enter");
  // Within the pause that makes fast changes one step: nothing is saved yet.
  await page.getByRole("link", { name: "Fogon, all corners" }).click();
  await expect(page.getByRole("heading", { name: "Your corners" })).toBeVisible();
  const iso = async () => {
    const answer = await page.request.get(`/api/v1/corners/${id}`);
    return ((await answer.json()) as { layout: { camera: { iso: number } } }).layout.camera.iso;
  };
  await expect.poll(iso).toBe(320);
  // Closing the window saves as well.
  await page.goto(`/corners/${id}/shot`);
  await page.getByLabel("ISO").fill("640");
  await page.getByLabel("ISO").press("Enter");
  await page.goto("about:blank");
  await expect.poll(iso).toBe(640);
});

test("a free move that was made is done, and what stands follows", async ({ page }) => {
  const id = await changedPlan(page, "Done so", () => undefined);
  await page.goto(`/corners/${id}/money`);
  const moves = page
    .getByRole("heading", { name: "Free moves, from how it stands today" })
    .locator("..")
    .getByRole("listitem");
  await expect(moves.first()).toBeVisible();
  const first = await moves.first().locator("p").first().innerText();
  await moves.first().getByRole("button", { name: "Done: it stands so now" }).click();
  await kept(page, 2);
  // It is not offered again; the saved plan, which was another, is untouched.
  await expect(moves.filter({ hasText: first })).toHaveCount(0);
  await expect(page.getByText("Ready: record.")).toBeVisible();
});

test("changes made while a move is under way come after it, and none is lost", async ({ page }) => {
  const id = await changedPlan(page, "In turn", () => undefined);
  await page.goto(`/corners/${id}/light`);
  const thing = page.locator("[data-thing=key]");
  const height = thing.getByLabel("Height", { exact: true });
  const dial = thing.getByLabel(/^Dial/);
  const [high, dim] = [await height.inputValue(), await dial.inputValue()];
  await page.route("**/api/v1/move?*", async (route) => {
    await new Promise((done) => setTimeout(done, 600));
    await route.continue();
  });
  await height.fill("1.82 m");
  await height.press("Enter");
  await dial.fill("33");
  await dial.press("Enter");
  await expect(height).toHaveValue("1.82 m");
  await expect(dial).toHaveValue("33");
  // Undone while the next move is under way: first the move comes, then all of it goes back.
  await expect(page.getByText(/kept, revision [2-3]/)).toBeVisible();
  await height.fill("1.80 m");
  await height.press("Enter");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("button", { name: "Redo" })).toBeEnabled();
  await expect(height).toHaveValue("1.82 m");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect.poll(async () => [await height.inputValue(), await dial.inputValue()]).toEqual([high, dim]);
});
