// Twelve corners of people who come to it for the first time, none of them in the demo data: from *New corner* through every step to
// the card, the phone on the floor, a test take and a logged session. By hand, against a server with an empty file:
//     target/release/fogon serve --no-token --port 4170 --database /tmp/empty.sqlite3
//     npx playwright test --project=twelve
// It says seconds and what each corner is told; FOGON_PICTURES names a folder for a picture of each step.
import { expect, test, type Locator, type Page } from "@playwright/test";

import { step } from "./help";
import { CORNERS, type Told } from "./twelve-corners";

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };
const STEPS = ["Room", "You", "Shot", "Light", "Day", "Sound", "Money", "Card"];
const INTO = process.env.FOGON_PICTURES;

/** What can be told to nobody. */
const NONSENSE = /NaN|undefined|Infinity|\[object|null\b/;

async function looked(page: Page, name: string, what: string): Promise<void> {
  const text = await page.locator("body").innerText();
  expect(text, what).not.toMatch(NONSENSE);
  const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
  expect(over, `${what} scrolls sideways`).toBeLessThanOrEqual(0);
  if (INTO) await page.screenshot({ path: `${INTO}/${name.replace(/\W+/g, "-")}-${what}.png` });
}

async function more(page: Page, kinds: Record<string, number>): Promise<void> {
  await page.getByRole("button", { name: "None of these" }).click();
  for (const [kind, many] of Object.entries(kinds))
    for (let i = 0; i < many; i += 1)
      await page.getByRole("button", { name: `One more: ${kind}`, exact: true }).click();
}

async function firstRun(page: Page, told: Told): Promise<void> {
  await page.goto("/");
  await page.getByRole("link", { name: "New corner" }).first().click();
  const next = (title: string) => page.getByRole("button", { name: `Next: ${title}` }).click();
  if (told.units) await page.getByRole("radio", { name: told.units }).click();
  const [width, depth, height] = told.room;
  await page.getByLabel("Width, along the back wall").fill(width);
  await page.getByLabel("Depth, back to front").fill(depth);
  await page.getByLabel("Ceiling height").fill(height);
  await page.getByLabel("Door").selectOption(told.door);
  await page.getByLabel("Largest window").selectOption(told.window);
  await page.getByLabel("What is in the room").selectOption(told.furnishing);
  await next("You");
  await page.getByLabel("Your height").fill(told.stature);
  await page.getByLabel("Where you talk").selectOption(told.where);
  await next("Shot");
  await page.getByLabel("What it is for").selectOption(told.purpose);
  await page.getByText(told.camera ?? "None of these", { exact: true }).click();
  await next("Light");
  await more(page, told.lamps ?? {});
  await next("Sound");
  await more(page, told.microphones ?? {});
  await next("Money");
  await page.getByLabel("Budget").fill(told.budget);
  await looked(page, told.name, "0-money");
  await page.getByRole("button", { name: "Lay out the corner" }).click();
  await expect(page.getByRole("img", { name: "Plan, from above" })).toBeVisible({ timeout: 60_000 });
}

for (const told of CORNERS)
  test(told.name, async ({ page, browser, baseURL }) => {
    test.slow();
    const faults: string[] = [];
    page.on("console", (said) => said.type() === "error" && faults.push(said.text()));
    page.on("pageerror", (fault) => faults.push(String(fault)));
    const since = Date.now();
    const seconds = () => ((Date.now() - since) / 1000).toFixed(0);
    const say = (text: string) => console.log(`${told.name} | ${seconds()} s | ${text}`);
    await firstRun(page, told);
    const id = Number(/corners\/(\d+)/.exec(page.url())?.[1]);
    say("laid out");
    if (told.answers) {
      await page.getByRole("link", { name: "Answers" }).click();
      await told.answers(page);
      await page.getByRole("button", { name: "Save and lay out again" }).click();
      await expect(page.getByRole("img", { name: "Plan, from above" })).toBeVisible({ timeout: 60_000 });
    }
    await told.table?.(page);
    // Every step says how it stands.
    for (const [index, name] of STEPS.entries()) {
      await step(page, name).click();
      await page.waitForLoadState("networkidle", { timeout: 20_000 }).catch(() => undefined);
      await looked(page, told.name, `${String(index + 1)}-${name}`);
      const head = await page.getByRole("main").locator("h2, h3, p").first().innerText();
      say(`${name}: ${head}`);
      if (name === "Money") {
        await expect(page.getByText(/Looking for what to buy/)).toHaveCount(0, { timeout: 100_000 });
        await looked(page, told.name, "7-Money");
        say((await page.getByRole("main").innerText()).split("\n").slice(0, 40).join(" / "));
      }
    }
    say(`verdict: ${(await page.getByRole("banner").innerText()).replaceAll("\n", " / ")}`);
    const card = page.frameLocator("iframe");
    await expect(card.getByText("1 S", { exact: true })).toBeVisible();
    say(`card: ${(await card.locator("body").innerText()).slice(0, 1500).replaceAll("\n", " / ")}`);
    // The phone on the floor.
    const device = await (await browser.newContext(PHONE)).newPage();
    await device.goto(`${String(baseURL)}/corners/${String(id)}/floor`);
    await looked(device, told.name, "9-floor");
    const of = device.getByText(/^\d+ of \d+$/);
    const marks = Number(/of (\d+)/.exec(await of.innerText())?.[1]);
    for (let mark = 0; mark < marks; mark += 1) await device.getByRole("button", { name: "Done ✓" }).tap();
    await looked(device, told.name, "9-laid");
    await device.context().close();
    say(`floor: ${String(marks)} marks`);
    // A test take of the voice that ships, as this corner records it.
    const plan: unknown = await (await page.request.get(`/api/v1/corners/${String(id)}/file`)).json();
    const wav = await page.request.post("/api/v1/hear", { data: { plan } });
    await page.goto(`/corners/${String(id)}/take?part=test`);
    if (wav.status() === 200) {
      await page
        .getByLabel("Pick a recording")
        .setInputFiles([{ name: "test.wav", mimeType: "audio/wav", buffer: await wav.body() }]);
      await page.getByRole("button", { name: "Keep it in the logbook" }).click();
      await looked(page, told.name, "10-test");
      say(
        `test take: ${(await page.getByRole("tabpanel").innerText()).slice(0, 700).replaceAll("\n", " / ")}`,
      );
    } else say(`hear: ${String(wav.status())} ${await wav.text()}`);
    // One session, one take.
    await page.evaluate(() => localStorage.setItem("fogon.countdown", "0"));
    await page.goto(`/corners/${String(id)}/take?part=record`);
    const [begin, start] = ["Begin a session", "Start"].map((name) =>
      page.getByRole("button", { name, exact: true }),
    ) as [Locator, Locator];
    await expect(begin.or(start)).toBeVisible();
    if (await begin.isVisible()) await begin.click();
    await start.click();
    await page.getByRole("button", { name: "Stop", exact: true }).click();
    await page.getByRole("button", { name: "Keep", exact: true }).click();
    await page.getByRole("button", { name: "Next", exact: true }).click();
    await page.getByRole("button", { name: "End the session" }).click();
    await page.getByLabel(/What did you learn/).fill("It works");
    await page.getByRole("button", { name: "End it" }).click();
    await expect(page.getByText("It works")).toBeVisible();
    await looked(page, told.name, "11-logged");
    say("logged");
    expect(faults).toEqual([]);
  });
