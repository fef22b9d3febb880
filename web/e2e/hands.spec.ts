// Deciding by hand: drag, nudge, type, lock, undo, measure; by pointer and by keys.
import { expect, test } from "@playwright/test";

import {
  changedPlan,
  drag,
  grip,
  middle,
  notes,
  open,
  part,
  reading,
  saved,
  section,
  step,
  stored,
  thing,
} from "./help";

const AZIMUTH = "light.key.azimuth_deg";

test("a light is dragged, the readings follow, and undo brings it back", async ({ page }) => {
  const id = await open(page, "Dragged", "/light");
  const before = await reading(page, AZIMUTH);
  const key = grip(page, "plan-key-place");
  const start = await middle(key);
  await drag(page, start, [4, -34]);
  // While the button is still down.
  await expect.poll(() => reading(page, AZIMUTH)).not.toBe(before);
  await page.mouse.up();
  await saved(page, id, 2);
  const after = await reading(page, AZIMUTH);
  expect(after).not.toBe(before);
  const moved = await middle(key);
  expect(Math.hypot(moved[0] - start[0], moved[1] - start[1])).toBeGreaterThan(15);
  await page.getByRole("button", { name: "Undo" }).click();
  await saved(page, id, 3);
  await expect.poll(() => reading(page, AZIMUTH)).toBe(before);
  await page.getByRole("button", { name: "Redo" }).click();
  await saved(page, id, 4);
  await expect.poll(() => reading(page, AZIMUTH)).toBe(after);
  // Escape breaks a drag off: nothing is saved.
  await drag(page, await middle(key), [-40, 20]);
  await expect.poll(() => reading(page, AZIMUTH)).not.toBe(after);
  await page.keyboard.press("Escape");
  await expect.poll(() => reading(page, AZIMUTH)).toBe(after);
  await page.mouse.up();
  await saved(page, id, 4);
});

test("what is in the way holds and says so; anyway puts it there", async ({ page }) => {
  const id = await open(page, "Held");
  const lens = await middle(grip(page, "plan-camera-place"));
  const scale = Number(await page.locator("[data-pixels-per-metre]").getAttribute("data-pixels-per-metre"));
  // A whole metre to the right is beyond the wall.
  await drag(page, lens, [scale, 0]);
  await page.mouse.up();
  const note = notes(page);
  await expect(note).toContainText("Held: ");
  await expect(page.getByRole("heading", { name: "Ready: record." })).toBeVisible();
  await saved(page, id, 2);
  await note.getByRole("button", { name: "Put it there anyway" }).click();
  await expect(page.getByRole("heading", { name: /Not ready/ })).toBeVisible();
  await expect(page.getByText(/beyond the room|behind the sensor/).first()).toBeVisible();
});

test("a round angle draws the light, and Alt lets it be", async ({ page }) => {
  await open(page, "Drawn", "/light");
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
  await expect(notes(page)).toContainText(/45 degrees camera (left|right)/);
  expect(await reading(page, AZIMUTH)).toBe("45");
});

test("the microphone is dragged from the Light step, which its own step then shows", async ({ page }) => {
  await open(page, "From elsewhere", "/light");
  await drag(page, await middle(grip(page, "plan-microphone-place")), [14, 10]);
  await page.mouse.up();
  await expect(page).toHaveURL(/\/sound$/);
  await expect(page.getByRole("figure", { name: /^Nearer and farther/ })).toBeVisible();
  await expect(
    section(page, "Hear it here").or(page.getByRole("region", { name: "Hear it here" })),
  ).toBeVisible();
});

test("lists do what the drawing does, by keys alone", async ({ page }) => {
  const id = await open(page, "By keys", "/light/by-hand");
  const key = thing(page, "Key");
  await key.getByRole("button", { name: /^Key/ }).press("Enter");
  const height = key.getByLabel("Height", { exact: true });
  const was = Number.parseFloat(await height.inputValue());
  // Ten quick presses are ten steps; one on the grip of the side view steps back.
  await height.focus();
  for (let press = 0; press < 10; press += 1) await page.keyboard.press("ArrowDown", { delay: 0 });
  await expect(height).toHaveValue(`${Number((was - 0.1).toFixed(3))} m`);
  await grip(page, "side-key-place").press("Shift+ArrowUp");
  await expect(height).toHaveValue(`${was} m`);
  // Typed exactly; what is not a length stays with its reason.
  await height.fill("tall");
  await height.press("Enter");
  await expect(key.getByText("“tall” is not a value.")).toBeVisible();
  await height.fill("182 cm");
  await height.press("Enter");
  await expect(height).toHaveValue("1.82 m");
  const elevation = key.getByRole("textbox", { name: /^Angle above the eyes/ });
  await elevation.fill("28");
  await elevation.press("Enter");
  await expect(elevation).toHaveValue("28");
  // The pad does it by presses.
  await key.getByRole("button", { name: /a small step up/ }).press("Enter");
  await expect.poll(async () => Number(await elevation.inputValue())).toBeGreaterThan(28.2);
  // Locked: the boxes are shut, and the drawing does not move it.
  await key.getByRole("button", { name: "Lock" }).press("Enter");
  await expect(height).toBeDisabled();
  const locked = await height.inputValue();
  await grip(page, "side-key-place").press("Shift+ArrowUp");
  await drag(page, await middle(grip(page, "plan-key-place")), [20, -20]);
  await page.mouse.up();
  await expect(height).toHaveValue(locked);
  await expect(page.getByRole("banner").getByText("saved", { exact: true })).toBeVisible();
  await page.reload();
  await expect(key.getByRole("button", { name: "Unlock" })).toBeVisible();
  // Undo by keys, also after a slider or a choice.
  await page.locator("body").press("Control+z");
  await expect(key.getByRole("button", { name: "Lock" })).toBeVisible();
  await key.getByRole("button", { name: /^Key/ }).press("Enter");
  const dial = key.getByRole("textbox", { name: /^Dial/ });
  const dim = await dial.inputValue();
  await key.getByRole("slider", { name: /dial/i }).press("ArrowRight");
  await expect(dial).not.toHaveValue(dim);
  await page.keyboard.press("Control+z");
  await expect(dial).toHaveValue(dim);
  expect((await stored(page, id)).revision).toBeGreaterThan(2);
});

test("every step opens its own readings, controls and parts, which the address keeps", async ({ page }) => {
  const id = await open(page, "Steps");
  const shows: [string, RegExp][] = [
    ["Room", /Effect of the distance behind you/],
    ["You", /Eye height/],
    ["Shot", /Lens to eyes/],
    ["Light", /Lit side to shadow side/],
    ["Day", /Play the day/],
    ["Sound", /Nearer and farther/],
    ["Money", /Free moves, from how it is today/],
    ["Card", /Where everything goes, and why/],
  ];
  for (const [name, words] of shows) {
    await step(page, name).click();
    await expect(step(page, name)).toHaveAttribute("aria-current", "step");
    await expect(page.getByRole("main")).toContainText(words);
    await expect(page.getByRole("heading", { level: 2 })).toBeFocused();
    await expect(page).toHaveTitle(`${name}: Steps · Fogon`);
    for (const tab of ["By hand", "Choices", "All numbers"]) {
      await part(page, tab);
      await expect(page).toHaveURL(new RegExp(`/corners/${id}/${name.toLowerCase()}/[a-z-]+$`));
    }
  }
  // By keys: from tab to tab with the arrow keys; back leads back.
  await page.goto(`/corners/${id}/light`);
  await page.getByRole("tab", { name: "Now" }).focus();
  await page.keyboard.press("ArrowRight");
  await expect(page).toHaveURL(/light\/by-hand$/);
  await page.goBack();
  await expect(page.getByRole("tab", { name: "Now" })).toHaveAttribute("aria-selected", "true");
});

test("a measured value stands in place of the computed one until what it measured moves", async ({
  page,
}) => {
  const id = await open(page, "Measured", "/light/numbers");
  const lux = page.locator('[data-reading="light.face.illuminance_lx"]').first();
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
  await expect(notes(page)).toContainText("no longer holds");
  await expect(lux).not.toContainText("measured");
  for (const [of, label, typed] of [
    ["you", "person.eye.height_m", "1.27"],
    ["sound", "sound.room.rt_mid_s", "0.31"],
    ["room", "room.mains.voltage_v", "118"],
  ] as const) {
    await page.goto(`/corners/${id}/${of}/numbers`);
    const shown = page.locator(`[data-reading="${label}"]`).first();
    await shown.click();
    await working.getByLabel(/Measured it yourself/).fill(typed);
    await working.getByRole("button", { name: "Use it" }).click();
    await page.keyboard.press("Escape");
    await expect(shown).toContainText("measured");
    expect(await reading(page, label)).toContain(typed);
  }
});

test("a word of the trade explains itself on focus", async ({ page }) => {
  await page.goto("/corners/1/shot/by-hand");
  await page.getByRole("textbox", { name: /^Focal length/ }).focus();
  await expect(page.getByText("The lens's own figure for how narrow it looks")).toBeVisible();
  await page.locator('[data-reading="shot.camera.distance_m"]').first().focus();
  await expect(page.getByRole("tooltip")).toContainText("Distance from the lens to the eyes");
});

test("another layout does not move what is locked", async ({ page }) => {
  const id = await changedPlan(page, "Locked seat", (plan: { layout: { seat: { locked?: boolean } } }) => {
    plan.layout.seat.locked = true;
  });
  await page.goto(`/corners/${id}/you`);
  await expect(page.getByRole("button", { name: /Unlock the seat/ }).first()).toBeDisabled();
});

test("without the live channel a drag goes by requests", async ({ page }) => {
  const id = await changedPlan(page, "No channel", () => undefined);
  await page.routeWebSocket("**/api/v1/hand", (socket) => socket.close());
  let asked = 0;
  page.on("request", (request) => (asked += Number(request.url().includes("/api/v1/move"))));
  await page.goto(`/corners/${id}/light`);
  const before = await reading(page, AZIMUTH);
  await drag(page, await middle(grip(page, "plan-key-place")), [4, -34]);
  await expect.poll(() => reading(page, AZIMUTH)).not.toBe(before);
  await page.mouse.up();
  await saved(page, id, 2);
  expect(asked).toBeGreaterThan(0);
});

test("a free move that was made is done, and how it is today follows", async ({ page }) => {
  const id = await open(page, "Done so", "/money");
  const moves = section(page, "Free moves, from how it is today").getByRole("listitem");
  await expect(moves.first()).toBeVisible();
  const first = await moves.first().locator("p").first().innerText();
  await page.getByRole("button", { name: "I have moved it" }).click();
  await saved(page, id, 2);
  // It is not offered again; the saved plan, which was another, is untouched.
  await expect(moves.filter({ hasText: first })).toHaveCount(0);
  await expect(page.getByText("Ready: record.")).toBeVisible();
});

test("changes made while a move is under way come after it, and none is lost", async ({ page }) => {
  const id = await open(page, "In turn", "/light/by-hand");
  const key = thing(page, "Key");
  await key.getByRole("button", { name: /^Key/ }).click();
  const height = key.getByLabel("Height", { exact: true });
  const dial = key.getByRole("textbox", { name: /^Dial/ });
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
  await expect.poll(async () => (await stored(page, id)).revision).toBeGreaterThan(1);
  // Undone while the next move is under way: first the move comes, then all of it goes back.
  await height.fill("1.80 m");
  await height.press("Enter");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(page.getByRole("button", { name: "Redo" })).toBeEnabled();
  await expect(height).toHaveValue("1.82 m");
  // As fast as the presses came they were saved as one step or two.
  const undo = page.getByRole("button", { name: "Undo" });
  const canUndo = async () => (await stored<{ can_undo: boolean }>(page, id)).can_undo;
  while (await canUndo()) {
    const { revision } = await stored(page, id);
    await undo.click();
    await saved(page, id, revision + 1);
  }
  await expect(height).toHaveValue(high);
  await expect(dial).toHaveValue(dim);
});
