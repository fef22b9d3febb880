// The whole path of a first corner, from *New corner* to a logged session: by keys alone, by finger alone, at 200 % zoom with reduced
// motion, and with the network cut at three places.
import { expect, test, type Page } from "@playwright/test";

import { byFinger, byKeys, byMouse, type Hand } from "./hand";
import { saved, step, stored } from "./help";
import { firstRun, marks, session, looksRight, testTake, type Told } from "./path";

const TOLD: Told = {
  name: "Bedroom",
  room: ["2.9", "3.6", "2.45"],
  door: "Left wall",
  window: "Front wall",
  furnishing: "Some soft things: a rug, curtains or a bed",
  stature: "1.69",
  where: "Seated, no desk",
  purpose: "Audition or application tape",
  camera: "Phone",
  lamps: { "Ring light, about 45 cm": 1 },
  microphones: { "Clipped on (lavalier)": 1 },
  budget: "0",
};
const STEPS = ["Room", "You", "Shot", "Light", "Day", "Sound", "Money", "Card"];

type Place = "a typed figure" | "a session";

interface Network {
  cut: (over: Place) => Promise<void>;
  /** After the page has said that it is cut. */
  mended: (over: Place) => Promise<void>;
}

/** All of it; `looked` looks at each view that is come to. */
async function whole(
  page: Page,
  hand: Hand,
  looked: (what: string) => Promise<void>,
  network?: Network,
): Promise<void> {
  const id = await firstRun(page, hand, TOLD);
  for (const name of STEPS) {
    await hand.press(step(page, name));
    await expect(page.getByRole("region", { name: "What to do next" })).toBeVisible();
    await looked(name);
  }
  await expect(page.frameLocator("iframe").getByText("1 S", { exact: true })).toBeVisible();
  // One figure by hand.
  await hand.press(step(page, "Shot"));
  await hand.press(page.getByRole("tab", { name: "By hand", exact: true }));
  const iso = page.getByRole("textbox", { name: "ISO" });
  await network?.cut("a typed figure");
  await hand.fill(iso, "250");
  await page.keyboard.press("Enter");
  await network?.mended("a typed figure");
  await saved(page, id, 2);
  expect((await stored<{ layout: { camera: { iso: number } } }>(page, id)).layout.camera.iso).toBe(250);
  await page.goto(`/corners/${String(id)}/floor`);
  await looked("the floor");
  expect(await marks(page, hand)).toBeGreaterThan(3);
  await page.goto(`/corners/${String(id)}/take?part=test`);
  expect(await testTake(page, hand, id)).toBe(true);
  await looked("the test take");
  await page.evaluate(() => localStorage.setItem("fogon.countdown", "0"));
  await page.goto(`/corners/${String(id)}/take?part=record`);
  await expect(page.getByRole("button", { name: "Begin a session" })).toBeVisible();
  await network?.cut("a session");
  await session(page, hand);
  await network?.mended("a session");
  await looked("the session");
}

test("by keys alone", async ({ page }) => {
  await page.mouse.move(0, 0);
  await whole(page, byKeys(page), async (what) => {
    // What has the focus shows it.
    const ring = await page.evaluate(() => {
      const focused = document.activeElement;
      if (!focused || focused === document.body) return "none is needed";
      const shown = [focused, focused.closest("label")].filter((e) => e !== null);
      return shown
        .map((e) => getComputedStyle(e))
        .map((s) => `${s.outlineStyle} ${s.outlineWidth} ${s.boxShadow}`);
    });
    expect(String(ring), `${what} shows the focus`).not.toBe("none 0px none");
  });
});

test.describe("on a phone", () => {
  test.use({ viewport: { width: 390, height: 844 }, hasTouch: true, isMobile: true });
  test("by finger alone", async ({ page }) => {
    await whole(page, byFinger(page), (what) => looksRight(page, what));
  });
});

test.describe("at 200 %", () => {
  // A window of 1280 x 800 at 200 %.
  test.use({ viewport: { width: 640, height: 400 }, deviceScaleFactor: 2 });
  test("with reduced motion nothing moves by itself, nothing is out of reach", async ({ page }) => {
    await page.emulateMedia({ reducedMotion: "reduce" });
    await whole(page, byMouse(page), async (what) => {
      await looksRight(page, what);
      const moving = await page.evaluate(() =>
        document
          .getAnimations()
          .filter((one) => one.playState === "running")
          .map((one) => (one.effect as KeyframeEffect | null)?.target?.outerHTML.slice(0, 90)),
      );
      expect(moving, `${what} moves`).toEqual([]);
    });
  });
});

test("the network cut before the layout, over a typed figure and in a session", async ({ page, context }) => {
  const back = () => context.setOffline(false);
  const network: Network = {
    cut: () => context.setOffline(true),
    mended: async (over) => {
      if (over === "a typed figure")
        await expect(page.getByRole("banner")).toContainText("cannot be reached");
      await back();
    },
  };
  // The button that lays out is pressed again by whoever is told that it did not go.
  const hand = byMouse(page);
  const patient: Hand = {
    ...hand,
    press: async (what) => {
      const isLayout = String(what).includes("Lay out the corner");
      if (isLayout) await context.setOffline(true);
      await hand.press(what);
      if (!isLayout) return;
      await expect(page.getByRole("alert")).toContainText("cannot be reached");
      await expect(page.getByLabel("Budget")).toHaveValue("0");
      await back();
      await hand.press(what);
    },
  };
  await whole(page, patient, () => Promise.resolve(), network);
  // Another page has it from the server.
  await expect
    .poll(async () => {
      const later = await context.newPage();
      await later.goto(page.url().replace("part=record", "part=logbook"));
      const isThere = await later
        .getByText("It works")
        .first()
        .waitFor({ timeout: 3000 })
        .then(() => true)
        .catch(() => false);
      await later.close();
      return isThere;
    })
    .toBe(true);
});

test("a browser that has lost its network goes on: the server is this computer", async ({ page }) => {
  const id = await firstRun(page, byMouse(page), TOLD);
  // Only what the browser is told of the network; the server can be reached.
  await page.evaluate(() => window.dispatchEvent(new Event("offline")));
  for (const name of ["Day", "Sound", "Money"]) {
    await step(page, name).click();
    await expect(page.getByRole("region", { name: "What to do next" })).toBeVisible();
  }
  await expect(page.getByRole("region", { name: "Free moves" })).toBeVisible();
  await page.getByRole("link", { name: /^Take / }).click();
  await expect(page.getByRole("heading", { name: /Take/ }).first()).toBeVisible();
  expect((await stored(page, id)).revision).toBe(1);
});
