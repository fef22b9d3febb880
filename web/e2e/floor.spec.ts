// On the floor: step by step, two devices at once, a phone let in and put out, and what a tape says of how it was laid.
import { expect, test, type Browser, type Page } from "@playwright/test";

import { AGAIN, open, section } from "./help";

const PHONE = { viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true };

async function phone(browser: Browser): Promise<Page> {
  return (await browser.newContext(PHONE)).newPage();
}

const done = (page: Page) => page.getByRole("button", { name: "Done ✓" });
const count = (page: Page) => page.getByText(/^\d+ of \d+$/);

test("two phones lay a corner together with the network cut in between: no tick is lost", async ({
  page,
  browser,
  baseURL,
}) => {
  const id = await open(page, "Laid together");
  const [one, other] = [await phone(browser), await phone(browser)];
  for (const device of [one, other]) {
    await device.goto(`${String(baseURL)}/corners/${String(id)}/floor`);
    await expect(count(device)).toHaveText(/^0 of/);
  }
  const letter = one.getByRole("region", { name: "This step" });
  await expect(letter).toContainText("Seat, plumb under the eyes");
  await done(one).tap();
  await expect(letter).toContainText("Camera, plumb under the lens");
  await expect(count(other)).toHaveText(/^1 of/);
  await one.context().setOffline(true);
  await done(one).tap();
  await done(one).tap();
  await expect(one.getByRole("status").filter({ hasText: "2 ticks are kept here" })).toBeVisible();
  // Meanwhile the other one goes on from the end.
  await other.getByRole("button", { name: "Back" }).tap();
  await done(other).tap();
  await expect(count(other)).toHaveText(/^2 of/);
  await one.context().setOffline(false);
  for (const device of [one, other]) await expect(count(device)).toHaveText(/^4 of/);
  await expect(one.getByText("Connected again, everything is sent.")).toBeVisible();
  // Also what was ticked without the network and a page that was closed is there, and a tick can be taken back by the other.
  await one.reload();
  await expect(count(one)).toHaveText(/^4 of/);
  await other.getByRole("button", { name: "All", exact: true }).tap();
  await other.getByRole("checkbox").first().uncheck();
  await expect(count(one)).toHaveText(/^3 of/);
  // Every letter of a step is large, and nothing is wider than the phone.
  const size = await one
    .getByRole("region", { name: "This step" })
    .locator("dd")
    .first()
    .evaluate((dd) => parseFloat(getComputedStyle(dd).fontSize));
  expect(size).toBeGreaterThanOrEqual(60);
  expect(await one.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390);
  await one.context().close();
  await other.context().close();
});

test("a phone is let in by a code, lays, and is put out again", async ({ page, browser }) => {
  await page.request.delete("/api/v1/phone");
  const id = await open(page, "By phone", "/card");
  await page.getByRole("button", { name: "Let a phone in" }).click();
  const floor = section(page, "On the floor");
  const address = await floor.getByText(/^http:.*\/phone$/).textContent();
  const code = floor.getByText(/^\d{6}$/);
  await expect(
    page.getByText(/Fogon listens on your home network at .*: no phone is let in yet/),
  ).toBeVisible();
  const device = await phone(browser);
  await device.goto(String(address));
  const digits = device.getByLabel("Six digits");
  const right = String(await code.textContent());
  await digits.fill(right === "000000" ? "000001" : "000000");
  await device.getByRole("button", { name: "Let this phone in" }).tap();
  await expect(device.getByRole("alert")).toContainText("That is not the code");
  await digits.fill(right);
  await device.getByRole("button", { name: "Let this phone in" }).tap();
  await device.getByRole("link", { name: "By phone" }).first().tap();
  await done(device).tap();
  await expect(count(device)).toHaveText(/^1 of/);
  await expect(page.getByRole("list", { name: "Phones" })).toContainText("here now");
  await expect(page.getByText(/one phone is let in/)).toBeVisible();
  await page.goto(`/corners/${String(id)}/floor`);
  await expect(count(page)).toHaveText(/^1 of/);
  // The strip stands on every page; whoever is put out is asked for a code again.
  await page.goto("/");
  await expect(page.getByText(/one phone is let in/)).toBeVisible();
  await page.goto(`/corners/${String(id)}/card`);
  await page.getByRole("button", { name: "Put out" }).click();
  await device.goto(String(address));
  await expect(device.getByLabel("Six digits")).toBeVisible();
  await page.getByRole("button", { name: "Stop listening" }).first().click();
  await expect(page.getByText(/Fogon listens on your home network at/)).toHaveCount(0);
  await expect(page.getByRole("button", { name: "Let a phone in" })).toBeVisible();
  await device.context().close();
});

test("what the tape says is told in words, and the corner is judged as it stands", async ({ page }) => {
  await open(page, "As laid", "/card/by-hand");
  const key = page.getByRole("listitem", { name: /^Key/ });
  const boxes = key.getByRole("textbox");
  await expect(boxes).toHaveCount(3);
  const corners = await boxes.all();
  // Places of the demo's key by what the page itself asks for: far too long in one of two.
  for (const box of corners.slice(0, 2)) {
    await box.fill("1.5 m");
    await box.press("Enter");
  }
  await expect(key.getByRole("status")).toContainText("K: move it");
  await expect(key.getByRole("status")).toContainText("Two distances cannot show a misread tape");
  await expect(page.getByText(/^As it stands:/)).toBeVisible();
  await corners[2]?.fill("9 m");
  await corners[2]?.press("Enter");
  await expect(key.getByRole("status")).toContainText("one of them is misread");
});

test("a corner is put up against the watch, and the times count from then on", async ({
  page,
  browser,
  baseURL,
}) => {
  const id = await open(page, "Against the watch", "/card");
  const before = section(page, "Put up before a take");
  const usual = await before.getByText(/, the aim is/).textContent();
  const device = await phone(browser);
  await device.goto(`${String(baseURL)}/corners/${String(id)}/floor?part=put-up`);
  await device.getByRole("button", { name: "Start", exact: true }).tap();
  await expect(device.getByRole("timer")).toContainText("0:0");
  const step = device.getByRole("region", { name: "This step" });
  await expect(step).toContainText("Carry the camera to its mark");
  const all = Number((await count(device).textContent())?.split(" of ")[1]);
  expect(all).toBeGreaterThan(8);
  for (let number = 1; number <= all; number++) {
    await done(device).tap();
    await expect(count(device)).toHaveText(new RegExp(`^${String(number)} of`));
  }
  await expect(device.getByRole("timer")).toContainText("Put up in");
  await expect(device.getByText("It stands.")).toBeVisible();
  // The phone is put away once it has sent what it has.
  const sent = async () => {
    const laying = await page.request.get(`/api/v1/corners/${String(id)}/laying`, AGAIN);
    return ((await laying.json()) as { ticks: { step: string }[] }).ticks.length;
  };
  // Each step, and the start.
  await expect.poll(sent).toBe(all + 1);
  await device.context().close();
  // On the computer the run is known, and counts when it is told to.
  await page.reload();
  await before.getByRole("button", { name: "Count with these times" }).click();
  await expect(before.getByText(/, the aim is/)).not.toHaveText(String(usual));
  await before.getByRole("button", { name: "What to do, in order" }).click();
  const order = page.getByRole("list", { name: "In this order" });
  await expect(order.getByText("(yours)").first()).toBeVisible();
  await page.keyboard.press("Escape");
  await before.getByRole("button", { name: "Back to usual times" }).click();
  await expect(before.getByText(/, the aim is/)).toHaveText(String(usual));
});

test("with a socket told the card says which plug goes where; a stand is put away where one likes", async ({
  page,
}) => {
  const id = await open(page, "With sockets", "/room/by-hand");
  await page.getByRole("button", { name: "Add a socket" }).click();
  const socket = page.getByRole("listitem", { name: "Socket socket" });
  await socket.getByLabel("From the back wall").fill("1.2 m");
  await socket.getByLabel("From the back wall").press("Enter");
  await page.goto(`/corners/${String(id)}/card`);
  await page.getByRole("button", { name: "Stands and plugs" }).click();
  await expect(page.getByRole("list", { name: "Plugs" })).toContainText(/into socket socket, at least \d/);
  await page.goto(`/corners/${String(id)}/card/by-hand`);
  const key = page.getByRole("listitem", { name: "K put away" });
  await key.getByLabel("From the left wall").fill("2.9 m");
  await key.getByLabel("From the left wall").press("Enter");
  await expect(key.getByRole("button", { name: "Let Fogon choose" })).toBeVisible();
  await page.goto(`/corners/${String(id)}/card`);
  await page.getByRole("button", { name: "Stands and plugs" }).click();
  await expect(page.getByRole("list", { name: "Stands put away" })).toContainText(
    "2.900 m from the left wall",
  );
});
