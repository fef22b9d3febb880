// Measures what a hand feels: time from a pointer's move to the new readings on the screen, over 200 moves, and time
// from opening a corner to its being usable. Prints figures; asserts nothing, for they are the machine's.
import { test, type Page } from "@playwright/test";

const MOVES = 200;
const LOADS = 20;

const median = (all: number[]) => [...all].sort((a, b) => a - b)[Math.floor(all.length / 2)] ?? NaN;
const part = (all: number[], q: number) => [...all].sort((a, b) => a - b)[Math.floor(all.length * q)] ?? NaN;
const figures = (all: number[]) =>
  `median ${median(all).toFixed(1)} ms, 95 % under ${part(all, 0.95).toFixed(1)} ms, most ${Math.max(...all).toFixed(1)} ms, ${all.length} times`;

/** Counts, in the page, the time from an event to the end of the frame that shows what it changed under a node. */
const watch = (page: Page, event: string, node: string) =>
  page.evaluate(
    ([event, node]) => {
      const times: number[] = [];
      let happened = 0;
      window.addEventListener(event, () => (happened = performance.now()), true);
      new MutationObserver(() => {
        if (happened === 0) return;
        const began = happened;
        happened = 0;
        // The frame that follows paints what has changed; a task posted from it runs once it is painted.
        requestAnimationFrame(() => {
          const { port1, port2 } = new MessageChannel();
          port1.onmessage = () => times.push(performance.now() - began);
          port2.postMessage(null);
        });
      }).observe(document.querySelector(node) as Node, {
        subtree: true,
        childList: true,
        characterData: true,
        attributes: true,
        attributeFilter: ["points", "cx", "cy"],
      });
      Object.assign(window, { times });
    },
    [event, node] as const,
  );

// As people have it: the photograph is taken beside.
test.use({ storageState: { cookies: [], origins: [] } });

test("from a move to new readings on the screen", async ({ page }) => {
  await page.goto("/corners/1/light");
  const key = page.locator("[data-grip=plan-key-place]");
  await key.waitFor();
  await page.waitForLoadState("networkidle");
  await watch(page, "pointermove", ".worktable");
  const seen = () => page.evaluate(() => (window as unknown as { times: number[] }).times.length);
  const box = await key.boundingBox();
  if (!box) throw new Error("the key is not on the screen");
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x + 6, y + 6);
  await page.waitForTimeout(300);
  const before = await seen();
  for (let i = 0; i < MOVES; i += 1) {
    const turn = (i / MOVES) * Math.PI * 6;
    const had = await seen();
    await page.mouse.move(x + 6 + 30 * Math.sin(turn), y + 6 + 40 * Math.cos(turn));
    for (let waits = 0; waits < 100 && (await seen()) === had; waits += 1) await page.waitForTimeout(4);
  }
  await page.mouse.up();
  const times = (await page.evaluate(() => (window as unknown as { times: number[] }).times)).slice(before);
  console.log(`move to readings painted: ${figures(times)}`);
});

test("from opening to usable", async ({ browser }) => {
  const times: number[] = [];
  for (let i = 0; i < LOADS; i += 1) {
    // A context of its own: nothing is cached from the load before.
    const context = await browser.newContext();
    const page = await context.newPage();
    await page.goto(`${process.env.FOGON_URL ?? "http://127.0.0.1:4170"}/corners/1/light`);
    await page.locator("[data-grip=plan-key-place]").waitFor();
    await page.locator("[data-reading]").first().waitFor();
    times.push(await page.evaluate(() => performance.now()));
    await context.close();
  }
  console.log(`opening to usable, nothing cached: ${figures(times)}`);
});

test("from the hour's slider to the sun's patch on the plan", async ({ page }) => {
  await page.goto("/corners/1/day");
  const slider = page.getByRole("slider", { name: "Time of day" });
  await slider.focus();
  // Low sun through a window to the north-west: evenings in June.
  await page.getByLabel("Date").fill("2026-06-21");
  await slider.focus();
  for (let i = 0; i < 36; i += 1) await page.keyboard.press("ArrowRight");
  await page.locator(".drawing .sun-patch").first().waitFor({ state: "attached" });
  await watch(page, "keydown", ".table-drawings");
  for (let i = 0; i < MOVES; i += 1) {
    await page.keyboard.press(i % 8 < 4 ? "ArrowRight" : "ArrowLeft");
    await page.waitForTimeout(60);
  }
  const times = await page.evaluate(() => (window as unknown as { times: number[] }).times);
  console.log(`slider to patch: ${figures(times)}`);
});
