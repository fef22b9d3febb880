// The take: a test measured and held against the plan, a still marked by keyboard, the run of a day on desk and phone with the network
// cut, and the logbook a week later.
import { expect, test, type Browser, type Page } from "@playwright/test";

import { open, stored } from "./help";

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

interface Entry {
  uid: string;
  gone?: boolean;
  what: { kind: string; number?: number; verdict?: string; note?: string };
}

const tab = (page: Page, name: string | RegExp) => page.getByRole("tab", { name });

async function logged(page: Page, id: number): Promise<Entry[]> {
  const answer = await page.request.post(`/api/v1/corners/${String(id)}/log`, { data: { entries: [] } });
  return ((await answer.json()) as { entries: Entry[] }).entries;
}

/** The voice that ships as this corner records it, as a WAV file. */
async function recording(page: Page, id: number): Promise<Buffer> {
  const plan: unknown = await (await page.request.get(`/api/v1/corners/${String(id)}/file`)).json();
  const answer = await page.request.post("/api/v1/hear", { data: { plan } });
  expect(answer.status()).toBe(200);
  return answer.body();
}

test("a test recording is measured, told, kept, and held against the next; nothing of the file is kept", async ({
  page,
}) => {
  const id = await open(page, "Tested", "/take?part=test");
  const wav = await recording(page, id);
  const files = (name: string, buffer: Buffer) => [{ name, mimeType: "audio/wav", buffer }];
  await page.getByLabel("Pick a recording").setInputFiles(files("first.wav", wav));
  const told = page.getByRole("list", { name: "Sound, measured", exact: true });
  await expect(told).toContainText("Loudest word");
  await expect(told).toContainText("Turn the input");
  await page.getByText(/\d+ in order, \d+ for information/).click();
  await expect(page.getByRole("list", { name: "Sound, measured, the rest" })).toContainText(
    "There is no clap",
  );
  await expect(page.getByText("the next take is held against it")).toBeVisible();
  await page.getByRole("button", { name: "Keep it in the logbook" }).click();
  await expect(page.getByText("✓ In the logbook")).toBeVisible();
  await expect.poll(async () => (await logged(page, id)).length).toBe(2);
  await page.getByLabel("Pick a recording").setInputFiles(files("second.wav", wav));
  await expect(page.getByText("Against the last take")).toBeVisible();
  await expect(page.getByText("As last time.", { exact: true })).toBeVisible();
  // With the camera's sound beside it.
  await page.getByLabel("Pick the camera's sound").setInputFiles(files("camera.wav", wav));
  await expect(page.getByText(/was begun 0.000 s before/)).toBeVisible();
  const download = page.waitForEvent("download");
  await page.getByRole("button", { name: "Save the recording fitted to the camera" }).click();
  expect((await download).suggestedFilename()).toBe("second-fitted.wav");
  // What is no recording is refused in words.
  await page.getByLabel("Pick a recording").setInputFiles(files("letter.wav", Buffer.from("Dear friend")));
  await expect(page.getByRole("alert")).toContainText("no WAV or FLAC recording");
  await tab(page, /Logbook/).click();
  await expect(page.getByText("Test at")).toBeVisible();
});

test("a still is marked by keyboard and tells where the camera really is", async ({ page }) => {
  const id = await open(page, "Marked", "/take?part=test");
  const plan = (await (await page.request.get(`/api/v1/corners/${String(id)}/file`)).json()) as {
    layout: { camera: { tilt_deg: number; iso: number } };
  };
  // Taken two stops too bright.
  const bright = structuredClone(plan);
  bright.layout.camera.iso *= 2.5;
  const png = await page.request.post("/api/v1/picture", { data: { plan: bright, width: 480 } });
  expect(png.status()).toBe(200);
  await page
    .getByLabel("Pick a still")
    .setInputFiles([{ name: "still.png", mimeType: "image/png", buffer: await png.body() }]);
  const crown = page.locator("[data-mark=crown]");
  await expect(crown).toBeVisible();
  await page.getByRole("checkbox", { name: "An upright edge at the side" }).uncheck();
  await expect(page.locator("[data-mark=edgeTop]")).toHaveCount(0);
  const measure = page.getByRole("button", { name: /Measure/ });
  await measure.click();
  const camera = page.locator("[data-measure=camera]");
  await expect(camera).toContainText("Your camera stands as planned.");
  const exposure = page.locator("[data-measure=exposure]");
  await expect(exposure).toContainText("Brighter than planned");
  await expect(exposure).toContainText("set ISO");
  // All marks on the person moved up by a twelfth of the picture: the camera points too low.
  for (const mark of ["crown", "eyes", "chin", "shoulder"]) {
    const handle = page.locator(`[data-mark=${mark}]`);
    await handle.focus();
    for (let i = 0; i < 4; i += 1) await page.keyboard.press("Shift+ArrowUp");
  }
  await measure.click();
  const headroom = page.locator("[data-measure=headroom]");
  await expect(headroom).toContainText("The head sits higher than planned.");
  await expect(headroom).toContainText("Tilt the camera up a little.");
});

async function phoneOf(browser: Browser, address: string): Promise<Page> {
  const page = await (await browser.newContext(PHONE)).newPage();
  await page.addInitScript(() => localStorage.setItem("fogon.countdown", "0"));
  await page.goto(address);
  return page;
}

/** One take of the shot that is at hand. */
async function take(page: Page, verdict: string, note = ""): Promise<void> {
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await expect(page.locator("[data-phase=on]")).toBeVisible();
  await page.getByRole("button", { name: "Stop", exact: true }).click();
  await page.getByRole("button", { name: verdict, exact: true }).click();
  if (note !== "") await page.getByLabel("Note", { exact: true }).fill(note);
  await page.getByRole("button", { name: "Next", exact: true }).click();
}

test("the run of a day on desk and phone, the network cut twice: nothing is lost, and it reads well a week later", async ({
  page,
  browser,
  baseURL,
}) => {
  await page.addInitScript(() => localStorage.setItem("fogon.countdown", "0"));
  const id = await open(page, "A day of takes", "/take?part=shots");
  // Two shots come from the purpose; a third is written down.
  await page.getByRole("button", { name: "Add a shot" }).click();
  await page.getByLabel("What is seen").fill("The three leaves side by side");
  await page.getByRole("textbox", { name: "Action" }).fill("leaves");
  await page.getByRole("button", { name: "Keep it" }).click();
  await expect(page.getByText(/^3 shots in \d set-ups/)).toBeVisible();
  await tab(page, "Record").click();
  await page.getByRole("button", { name: "Begin a session" }).click();
  await page.getByRole("button", { name: "Check before the take" }).click();
  await expect(page.getByRole("region", { name: "Before the take" })).toBeFocused();
  await page.keyboard.press("1");
  await expect(page.getByRole("button", { name: /^Done, \d left$/ })).toBeVisible();
  await page.getByRole("button", { name: /^Done, \d left$/ }).click();
  const device = await phoneOf(browser, `${String(baseURL)}/phone/${String(id)}/takes`);
  await expect(device.getByText(/Session since/)).toBeVisible();
  await take(page, "Again", "Lost the thread");
  await expect(device.getByRole("list", { name: "Takes, the last first" })).toContainText("Lost the thread");
  // The phone loses the network and goes on; so does the desk, with the same number.
  await device.context().setOffline(true);
  await take(device, "Keep");
  await take(device, "Maybe");
  await expect(device.getByText(/entries are kept here and sent later/)).toBeVisible();
  await take(page, "Keep", "Best so far");
  await device.context().setOffline(false);
  const takes = async () => (await logged(page, id)).filter((one) => one.what.kind === "take" && !one.gone);
  await expect.poll(async () => (await takes()).length).toBe(4);
  // Now the desk is cut off.
  await page.context().setOffline(true);
  await take(page, "Keep");
  await take(device, "Keep");
  await page.context().setOffline(false);
  await expect.poll(async () => (await takes()).length).toBe(6);
  await take(page, "Keep");
  await expect.poll(async () => (await takes()).length).toBe(7);
  for (const one of [page, device]) {
    const rows = one.getByRole("list", { name: "Takes, the last first" }).getByRole("listitem");
    await expect(rows).toHaveCount(7);
    await expect(rows.filter({ hasText: /^\d+b/ }).first()).toBeVisible();
  }
  expect(await device.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await device.context().close();
  // What is missing stays in sight; a shot is ticked by hand.
  await tab(page, /Shots/).click();
  const boxes = page.getByRole("checkbox", { name: /: done$/ });
  await expect(boxes).toHaveCount(3);
  for (const box of await boxes.all()) await box.check();
  await expect(page.getByText("Nothing is missing: every shot is done.")).toBeVisible();
  await tab(page, "Record").click();
  await page.getByRole("button", { name: "End the session" }).click();
  await page.getByLabel(/What did you learn/).fill("Drink before the first take\nLeave the window shut");
  await page.getByRole("button", { name: "End it" }).click();
  await expect(page.getByText("Leave the window shut")).toBeVisible();
  await expect(page.getByText("✓ The corner stands as it did then.")).toBeVisible();

  // A week later, on another page of another day.
  const later = await (await browser.newContext()).newPage();
  await later.clock.setFixedTime(Date.now() + 7 * 24 * 3600 * 1000);
  await later.goto(`/corners/${String(id)}/take?part=record`);
  await expect(later.getByText("Drink before the first take")).toBeVisible();
  await expect(later.getByText(/7 takes, \d kept/).first()).toBeVisible();
  await later.getByRole("tab", { name: /Logbook/ }).click();
  const table = later.getByRole("group", { name: "Takes of this session, a table" });
  await expect(table).toContainText("Lost the thread");
  await expect(table).toContainText("2b");
  await later.getByLabel("Look for words in the logbook").fill("thread window");
  await expect(table).toBeVisible();
  await later.getByLabel("Look for words in the logbook").fill("violin");
  await expect(later.getByText("No session holds these words.")).toBeVisible();
  await later.getByLabel("Look for words in the logbook").fill("");
  const csv = await later.request.get(`/api/v1/corners/${String(id)}/log/csv`);
  expect((await csv.text()).split("\r\n").filter((line) => /^[^,]+,take,/.test(line)).length).toBe(7);
  await later.getByRole("button", { name: "Put them into good hours" }).click();
  await expect(later.getByText(/Local time in|No good hour/).first()).toBeVisible();
  // The save at which it was recorded has a name and is never thinned out.
  const revision = (await stored(later, id)).revision;
  const saves = (await (await later.request.get(`/api/v1/corners/${String(id)}/revisions`)).json()) as {
    revision: number;
    name: string | null;
  }[];
  expect(saves.find((save) => save.revision === revision)?.name).toBe("Recorded");
  await later.getByRole("button", { name: "Delete this session" }).click();
  await later.getByRole("button", { name: "Delete for good" }).click();
  await expect(later.getByText(/Nothing was recorded here yet/)).toBeVisible();
  await later.context().close();
});

test("a script is timed and wrapped, the click runs on, and shots are put in order", async ({ page }) => {
  const id = await open(page, "Scripted", "/take?part=script");
  const script = page.getByRole("textbox", { name: "Script" });
  await script.fill("Three leaves.\n\nTurn each over and run a thumb along the rib.\n\n\nNow the bud.");
  await script.blur();
  await expect(page.getByRole("list", { name: "Paragraphs" }).getByRole("listitem")).toHaveCount(3);
  await expect(page.getByText("for 15 words, at a usual pace")).toBeVisible();
  await page.getByLabel("Words a minute").fill("75");
  await page.getByLabel("Words a minute").press("Enter");
  await expect(page.getByText("for 15 words, at your pace")).toBeVisible();
  await expect(page.getByText("12 s", { exact: true }).first()).toBeVisible();
  // Paragraphs outlive the page.
  await expect(page.getByRole("banner").getByText("saved", { exact: true })).toBeVisible();
  expect((await stored(page, id)).revision).toBeGreaterThan(1);
  await page.reload();
  await expect(script).toHaveValue(
    "Three leaves.\n\nTurn each over and run a thumb along the rib.\n\nNow the bud.",
  );
  await tab(page, /Shots/).click();
  for (const [what, backdrop] of [
    ["Part one, green", "green"],
    ["Part two", ""],
    ["Part three, green", "green"],
  ] as const) {
    await page.getByRole("button", { name: "Add a shot" }).click();
    await page.getByLabel("What is seen").fill(what);
    await page.getByRole("textbox", { name: "Backdrop" }).fill(backdrop);
    await page.getByRole("button", { name: "Keep it" }).click();
    await expect(page.getByText(what, { exact: true }).first()).toBeVisible();
  }
  await expect(page.getByText(/min in the order typed, \d+ min in the best order/)).toBeVisible();
  await page.getByRole("button", { name: "Write them down in the best order" }).click();
  await expect(page.getByText(/no other order is quicker/)).toBeVisible();
  await page.getByRole("button", { name: "As typed" }).click();
  await page.getByRole("button", { name: "Part one, green: down" }).click();
  await page.getByRole("button", { name: "Change: Part two" }).click();
  await page.getByRole("button", { name: "Delete this shot" }).click();
  await expect(page.getByText("Part two", { exact: true })).toHaveCount(0);
  await page.getByRole("button", { name: "Back to those of the purpose" }).click();
  await expect(page.getByText(/^2 shots in/)).toBeVisible();
  await tab(page, "Record").click();
  await page.getByRole("button", { name: "Begin a session" }).click();
  await page.getByText("A click to play along with").click();
  await page.getByRole("button", { name: "Start the click" }).click();
  await expect(page.getByText(/^in \d$/)).toBeVisible();
  await expect(page.getByText(/^[1-4]$/).last()).toBeVisible();
  await page.getByRole("button", { name: "Stop the click" }).click();
});
