// The Sound step: heard at the press of a button, switched without a gap, hung and dragged along a wall, told in numbers.
import { expect, test, type Page } from "@playwright/test";

import { changedPlan, grip, open, part, reading, saved, section, wav } from "./help";

const RT = "sound.room.rt_mid_s";
const SNR = "sound.microphone.snr_db";

const setUp = (page: Page) => page.getByText("Change what you hear").click();

test("two ways are heard, switched without a gap, and kept as files", async ({ page }) => {
  await open(page, "Heard", "/sound");
  const listen = page.getByRole("region", { name: "Hear it here" });
  await expect(listen).toContainText("Headphones, turned down before you press play");
  const play = listen.getByRole("button", { name: "Play" });
  await expect(play).toBeEnabled();
  await expect(listen).toContainText("STI");
  await play.click();
  const stop = listen.getByRole("button", { name: "Stop" });
  await expect(stop).toBeVisible();
  const [a, b] = [listen.getByRole("radio", { name: /^A / }), listen.getByRole("radio", { name: /^B / })];
  await expect(a).toBeChecked();
  await b.click();
  await expect(b).toBeChecked();
  await expect(stop).toBeVisible();
  // Another B is worked out and heard; what played ends.
  await setUp(page);
  await page.getByLabel("B is").selectOption("built-in");
  await expect(play).toBeEnabled();
  await page.getByLabel("Loudness").selectOption("recorded");
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    page.getByRole("button", { name: "Save B as WAV" }).click(),
  ]);
  expect(file.suggestedFilename()).toBe("heard-b.wav");
  await part(page, "All numbers");
  await expect(page.getByRole("img", { name: /^Impulse response/ })).toBeVisible();
});

const FILE = 'input[type="file"]';

test("one's own voice is read or refused in words", async ({ page }) => {
  await open(page, "Own voice", "/sound");
  await setUp(page);
  const voice = section(page, "What you hear");
  await expect(voice).toContainText("sample voice");
  await voice.getByText("Use your own").click();
  const choose = voice.locator(FILE);
  // Reached by keys, it shows that it has the focus.
  await page.keyboard.press("Tab");
  const chooser = voice.getByRole("button", { name: "Choose a file" });
  await expect(chooser).toBeFocused();
  await expect(chooser).toHaveCSS("outline-style", "solid");
  await choose.setInputFiles({
    name: "song.mp3",
    mimeType: "audio/mpeg",
    buffer: Buffer.from("ID3 no recording"),
  });
  await expect(voice).toContainText(/WAV or FLAC/);
  // Two seconds of a tone, 16 bits at 48 kHz.
  const tone = wav(96_000, (index) => 8000 * Math.sin(index / 20));
  await choose.setInputFiles({ name: "me.wav", mimeType: "audio/wav", buffer: tone });
  await expect(voice.getByLabel("Use my voice, 2.0 s")).toBeVisible();
  await voice.getByRole("button", { name: "Delete my recording" }).click();
  await expect(voice.getByLabel(/Use my voice/)).toHaveCount(0);
});

test("what is advised is hung by a press, slides along the walls and is removed again", async ({ page }) => {
  const id = await open(page, "Hung", "/sound");
  const before = await reading(page, RT);
  await part(page, "Choices");
  const against = section(page, "Reduce echo");
  const row = against.getByRole("row").filter({ hasText: "Packing blankets" }).first();
  await row.getByRole("button", { name: "Hang it" }).click();
  await saved(page, id, 2);
  const plan = page.getByRole("img", { name: "Plan, from above" });
  const strip = plan.locator('.ink-treatment[data-thing="blanket"]');
  await expect(strip).toHaveCount(1);
  const place = await strip.getAttribute("points");
  for (const key of ["ArrowUp", "ArrowLeft"])
    for (let i = 0; i < 5; i += 1) await grip(page, "plan-blanket-place").press(key);
  await expect.poll(() => strip.getAttribute("points")).not.toBe(place);
  // Voice over room and the ways of the voice lie over the drawings.
  expect(await plan.locator(".area-sound").count()).toBeGreaterThan(3);
  await expect(plan.locator(".ink-voice")).toHaveCount(1);
  expect(await plan.locator(".ink-echo").count()).toBeGreaterThan(1);
  await part(page, "Now");
  await expect.poll(() => reading(page, RT)).not.toBe(before);
  await part(page, "Choices");
  await against.getByRole("button", { name: /blanket/i }).click();
  await expect(strip).toHaveCount(0);
  await part(page, "Now");
  await expect.poll(() => reading(page, RT)).toBe(before);
});

test("a noise is added, heard at the microphone and removed", async ({ page }) => {
  await open(page, "Noise", "/sound");
  const before = Number(await reading(page, SNR));
  await part(page, "By hand");
  const noises = section(page, "Noise");
  await noises.getByRole("button", { name: "Add fan" }).click();
  const level = noises.getByRole("textbox", { name: /^Level at/ });
  await level.fill("60");
  await level.press("Enter");
  await part(page, "Now");
  await expect.poll(async () => Number(await reading(page, SNR))).toBeLessThan(before - 5);
  await expect(page.getByRole("main")).toContainText("over the noise");
  await part(page, "By hand");
  await noises.getByRole("button", { name: "Remove noise fan" }).click();
  await part(page, "Now");
  await expect.poll(async () => Number(await reading(page, SNR))).toBe(before);
});

test("what is in the room and on its walls is told, and changes what is heard", async ({ page }) => {
  const id = await changedPlan(page, "Surfaces", () => undefined);
  await page.goto(`/corners/${id}/sound`);
  const next = page.getByRole("region", { name: "What to do next" });
  await expect(next).toContainText("Reverberation time is assumed");
  // The button leads to where it is told.
  await next.getByRole("button", { name: "Say what is in the room" }).click();
  await page.getByLabel("What is in the room").selectOption("bare");
  await saved(page, id, 2);
  await page.getByText("What walls, floor and ceiling are made of").click();
  for (const name of ["Back wall", "Right wall", "Front wall", "Left wall", "Floor", "Ceiling"])
    await page.getByLabel(name, { exact: true }).selectOption("rendered_brick");
  await part(page, "Now");
  await expect(next).not.toContainText("is assumed");
  await expect.poll(async () => Number(await reading(page, RT))).toBeGreaterThan(0.8);
  const bare = Number(await reading(page, RT));
  await part(page, "By hand");
  await page.getByText("What walls, floor and ceiling are made of").click();
  await page.getByLabel("Covering a part of the floor").selectOption("carpet_on_felt");
  await part(page, "Now");
  await expect.poll(async () => Number(await reading(page, RT))).toBeLessThan(bare - 0.1);
  await expect(page.getByRole("main")).toContainText(/clap flutters/);
});
