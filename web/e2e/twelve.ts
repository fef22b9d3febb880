// Twelve corners of people who come to it for the first time, none of them in the demo data: from *New corner* through every step to
// the card, the phone on the floor, a test take and a logged session. By hand, against a server with an empty file:
//     target/release/fogon serve --no-token --port 4170 --database /tmp/empty.sqlite3
//     npx playwright test --project=twelve
// It says seconds and what each corner is told; FOGON_PICTURES names a folder for a picture of each step.
import { expect, test, type Page } from "@playwright/test";

import { byFinger, byMouse } from "./hand";
import { step } from "./help";
import { firstRun, marks, session, looksRight, testTake } from "./path";
import { CORNERS } from "./twelve-corners";

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };
const STEPS = ["Room", "You", "Shot", "Light", "Day", "Sound", "Money", "Card"];
const INTO = process.env.FOGON_PICTURES;

async function looked(page: Page, name: string, what: string): Promise<void> {
  await looksRight(page, what);
  if (INTO) await page.screenshot({ path: `${INTO}/${name.replace(/\W+/g, "-")}-${what}.png` });
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
    const hand = byMouse(page);
    const id = await firstRun(page, hand, told);
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
    const many = await marks(device, byFinger(device));
    await looked(device, told.name, "9-laid");
    await device.context().close();
    say(`floor: ${String(many)} marks`);
    // A test take of the voice that ships, as this corner records it.
    await page.goto(`/corners/${String(id)}/take?part=test`);
    if (await testTake(page, hand, id)) {
      await looked(page, told.name, "10-test");
      say(
        `test take: ${(await page.getByRole("tabpanel").innerText()).slice(0, 700).replaceAll("\n", " / ")}`,
      );
    } else say("nothing records");
    // One session, one take.
    await page.evaluate(() => localStorage.setItem("fogon.countdown", "0"));
    await page.goto(`/corners/${String(id)}/take?part=record`);
    await session(page, hand);
    await looked(page, told.name, "11-logged");
    say("logged");
    expect(faults).toEqual([]);
  });
