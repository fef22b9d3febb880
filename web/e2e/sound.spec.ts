// The Sound step: heard at the press of a button, switched without a gap, hung and dragged along a wall, told in numbers.
import { expect, test } from "@playwright/test";

import { changedPlan, reading, section } from "./help";

test("two ways are heard, switched without a gap, and kept as files", async ({ page }) => {
  const id = await changedPlan(page, "Heard", () => undefined);
  await page.goto(`/corners/${id}/sound`);
  const listen = section(page, "Hear it here");
  await expect(listen).toContainText("Headphones, turned down before you press play");
  const play = listen.getByRole("button", { name: "Play" });
  await expect(play).toBeEnabled({ timeout: 60_000 });
  const figures = listen.getByRole("table").filter({ hasText: "Voice over noise" });
  await expect(figures).toContainText("Speech transmission index");
  await play.click();
  const stop = listen.getByRole("button", { name: "Stop" });
  await expect(stop).toBeVisible();
  // Worked out before it was asked for: sound comes soon after the press.
  expect(Number(await stop.getAttribute("data-late-ms"))).toBeLessThan(5_000);
  const [a, b] = [listen.getByRole("button", { name: /^A / }), listen.getByRole("button", { name: /^B / })];
  await expect(a).toHaveAttribute("aria-pressed", "true");
  await b.click();
  await expect(b).toHaveAttribute("aria-pressed", "true");
  await expect(stop).toBeVisible();
  // Another B is worked out and heard; what played ends.
  await listen.getByLabel("B is").selectOption("built-in");
  await expect(play).toBeEnabled({ timeout: 60_000 });
  await listen.getByLabel("Loudness").selectOption("recorded");
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    listen.getByRole("link", { name: "Download B as WAV" }).click(),
  ]);
  expect(file.suggestedFilename()).toMatch(/-b\.wav$/);
  await expect(listen.getByRole("img", { name: /^Impulse response/ })).toBeVisible();
  await listen.getByText("How each band dies away").click();
  await expect(listen.getByRole("table").filter({ hasText: "Comes back from" })).toContainText("ceiling");
});

test("one's own voice is read or refused in words", async ({ page }) => {
  const id = await changedPlan(page, "Own voice", () => undefined);
  await page.goto(`/corners/${id}/sound`);
  const listen = section(page, "Hear it here");
  await listen.getByText("use your own").click();
  const choose = listen.locator('input[type="file"]');
  await choose.setInputFiles({
    name: "song.mp3",
    mimeType: "audio/mpeg",
    buffer: Buffer.from("ID3 no recording"),
  });
  await expect(listen).toContainText("no WAV or FLAC recording");
  // Two seconds of a tone, 16 bits at 48 kHz.
  const samples = 96_000;
  const wav = Buffer.alloc(44 + 2 * samples);
  wav.write("RIFF", 0);
  wav.writeUInt32LE(36 + 2 * samples, 4);
  wav.write("WAVEfmt ", 8);
  wav.writeUInt32LE(16, 16);
  wav.writeUInt16LE(1, 20);
  wav.writeUInt16LE(1, 22);
  wav.writeUInt32LE(48_000, 24);
  wav.writeUInt32LE(96_000, 28);
  wav.writeUInt16LE(2, 32);
  wav.writeUInt16LE(16, 34);
  wav.write("data", 36);
  wav.writeUInt32LE(2 * samples, 40);
  for (let i = 0; i < samples; i += 1) wav.writeInt16LE(Math.round(8000 * Math.sin(i / 20)), 44 + 2 * i);
  await choose.setInputFiles({ name: "me.wav", mimeType: "audio/wav", buffer: wav });
  await expect(listen).toContainText("Hear my voice, 2.0 s");
  await listen.getByRole("button", { name: "Forget it" }).click();
  await expect(listen).toContainText("A made-up voice is heard");
});

test("what is advised is hung by a press, slides along the walls and comes down again", async ({ page }) => {
  const id = await changedPlan(page, "Hung", () => undefined);
  await page.goto(`/corners/${id}/sound`);
  const before = await reading(page, "sound.room.rt_mid_s");
  const against = section(page, "Against the echo");
  const row = against.getByRole("row").filter({ hasText: "Packing blankets" }).first();
  await row.getByRole("button", { name: "Hang it" }).click();
  await expect.poll(() => reading(page, "sound.room.rt_mid_s")).not.toBe(before);
  await expect(against.getByRole("listitem").filter({ hasText: "blanket" })).toHaveCount(1);
  const plan = page.getByRole("img", { name: "Plan, from above" });
  const strip = plan.locator('.ink-treatment[data-thing="blanket"]');
  await expect(strip).toHaveCount(1);
  const place = await strip.getAttribute("points");
  const grip = page.locator('[data-grip="plan-blanket-place"]');
  await grip.focus();
  for (let i = 0; i < 5; i += 1) await grip.press("ArrowUp");
  for (let i = 0; i < 5; i += 1) await grip.press("ArrowLeft");
  await expect.poll(() => strip.getAttribute("points")).not.toBe(place);
  // The ways of the voice lie over the drawings.
  await expect(plan.locator(".ink-voice")).toHaveCount(1);
  expect(await plan.locator(".ink-echo").count()).toBeGreaterThan(1);
  await against.getByRole("button", { name: "Take it down" }).click();
  await expect(strip).toHaveCount(0);
  await expect.poll(() => reading(page, "sound.room.rt_mid_s")).toBe(before);
});

test("a noise is added, heard at the microphone and taken away", async ({ page }) => {
  const id = await changedPlan(page, "Noise", () => undefined);
  await page.goto(`/corners/${id}/sound`);
  const before = Number(await reading(page, "sound.microphone.snr_db"));
  const noises = section(page, "What else is heard");
  await noises.getByRole("button", { name: "+ Fan" }).click();
  const level = noises.getByLabel("Level 1 m away");
  await level.fill("60");
  await level.press("Enter");
  await expect
    .poll(async () => Number(await reading(page, "sound.microphone.snr_db")))
    .toBeLessThan(before - 5);
  await expect(section(page, "Findings")).toContainText("over the noise");
  await noises.getByRole("button", { name: "Take away" }).click();
  await expect.poll(async () => Number(await reading(page, "sound.microphone.snr_db"))).toBe(before);
});

test("surfaces and glass are told on the page, and a held corner stands beside the new one", async ({
  page,
}) => {
  const id = await changedPlan(page, "Surfaces", () => undefined);
  await page.goto(`/corners/${id}/sound`);
  const rings = section(page, "How long the room rings");
  await expect(rings).toContainText("Not every surface is told");
  const listen = section(page, "Hear it here");
  await listen.getByRole("button", { name: "Hold this as B" }).click();
  await expect(listen.getByLabel("B is")).toHaveValue("held");
  await rings.getByText("What walls, floor and ceiling are made of").click();
  for (const name of ["Back wall", "Right wall", "Front wall", "Left wall", "Floor", "Ceiling"])
    await rings.getByLabel(name, { exact: true }).selectOption("rendered_brick");
  await expect(rings).not.toContainText("Not every surface is told");
  await expect(rings).toContainText("Echoey");
  const bare = Number(await reading(page, "sound.room.rt_mid_s"));
  await rings.getByLabel("On a part of the floor").selectOption("carpet_on_felt");
  await expect.poll(async () => Number(await reading(page, "sound.room.rt_mid_s"))).toBeLessThan(bare - 0.1);
  await rings.getByLabel(/^Glass of the window/).selectOption("single");
  // A is bare now, B as it was held.
  const figures = listen.getByRole("table").filter({ hasText: "Voice over noise" });
  const row = figures.getByRole("row").filter({ hasText: "Speech transmission index" });
  await expect(async () => {
    const [a, b] = (await row.getByRole("cell").allInnerTexts()).map(Number);
    expect(a).toBeLessThan(b ?? 0);
  }).toPass();
  await expect(section(page, "Findings")).toContainText("A clap flutters");
});
