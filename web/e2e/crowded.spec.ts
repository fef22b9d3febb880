// A crowded plan, three lights on stands and arms, a window and a desk in 2.4 x 2.2 m: no label covers another and no
// word is cut off, on the desk and on the phone.
import { readFileSync } from "node:fs";

import { expect, test, type Page } from "@playwright/test";

import { keep, settled } from "./help";

const CROWDED = JSON.parse(
  readFileSync(new URL("../../docs/examples/crowded-alcove.fogon.json", import.meta.url), "utf8"),
) as { layout: { lights: object }; brief: { room: { floor_m: number[][] } } };

/** Labels of the drawings that cover each other. */
const covered = (page: Page) =>
  page.evaluate(() => {
    const hits: string[] = [];
    for (const drawing of document.querySelectorAll("svg.drawing")) {
      const boxes = [...drawing.querySelectorAll("text.word, circle")].map((e) => {
        const { left, right, top, bottom, height } = e.getBoundingClientRect();
        // The box of a line of text is taller than its letters by the font's own leading.
        const leading = e.tagName === "text" ? 0.16 * height : 0;
        return { name: e.textContent || "mark", left, right, top: top + leading, bottom: bottom - leading };
      });
      boxes.forEach((a, index) => {
        for (const b of boxes.slice(index + 1)) {
          const across = Math.min(a.right, b.right) - Math.max(a.left, b.left);
          const down = Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top);
          if (across > 1 && down > 1) hits.push(`${a.name} / ${b.name}`);
        }
      });
    }
    return hits;
  });

/** Words that are cut off: by their drawing's edge, by a box that hides what does not fit, by the screen's side. */
const clipped = (page: Page) =>
  page.evaluate(() => {
    const hits: string[] = [];
    for (const drawing of document.querySelectorAll("svg.drawing")) {
      const edge = drawing.getBoundingClientRect();
      for (const word of drawing.querySelectorAll("text")) {
        const box = word.getBoundingClientRect();
        // Small pictures go without words.
        if (box.width === 0) continue;
        if (
          box.left < edge.left - 1 ||
          box.right > edge.right + 1 ||
          box.top < edge.top - 1 ||
          box.bottom > edge.bottom + 1
        )
          hits.push(`drawing: ${word.textContent ?? ""}`);
      }
    }
    for (const e of document.querySelectorAll<HTMLElement>("body *")) {
      if (e.closest("svg, .sr-only, iframe") || !e.offsetParent || e.childElementCount > 0) continue;
      if (!e.textContent?.trim()) continue;
      const style = getComputedStyle(e);
      if (style.overflowX !== "visible" && e.scrollWidth > e.clientWidth + 1)
        hits.push(`box: ${e.textContent}`);
      // Words may lie beyond the side only in a strip that scrolls.
      const box = e.getBoundingClientRect();
      if (!e.closest(".thread") && box.right > window.innerWidth + 1) hits.push(`side: ${e.textContent}`);
      const parent = e.parentElement?.getBoundingClientRect();
      if (parent && box.right > parent.right + 2 && style.position === "static")
        hits.push(`parent: ${e.textContent}`);
    }
    return hits;
  });

test("the crowded plan is as crowded as it says", () => {
  expect(Object.keys(CROWDED.layout.lights)).toEqual(["key", "fill", "back"]);
  expect(CROWDED.brief.room.floor_m[2]).toEqual([2.4, 2.2]);
});

for (const [width, height] of [
  [1280, 800],
  [390, 844],
] as const) {
  test(`no label covers another and no word is cut off at ${width} x ${height}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    const id = await keep(page, CROWDED);
    for (const path of [
      `/corners/${id}`,
      ...["room", "you", "shot", "light", "day", "sound"].map((step) => `/corners/${id}/${step}`),
      "/corners/1",
      "/corners/1/light",
      "/new",
      "/kit",
      "/",
    ]) {
      await settled(page, path);
      expect(await covered(page), path).toEqual([]);
      expect(await clipped(page), path).toEqual([]);
    }
  });

  test(`labels keep apart while a hand moves things at ${width} x ${height}`, async ({ page }) => {
    await page.setViewportSize({ width, height });
    const id = await keep(page, CROWDED);
    await settled(page, `/corners/${id}`);
    for (const [grip, key] of [
      ["plan-back-place", "Shift+ArrowLeft"],
      ["plan-microphone-place", "Shift+ArrowRight"],
      ["side-key-place", "Shift+ArrowDown"],
      ["plan-seat-place", "Shift+ArrowUp"],
    ] as const) {
      await page.locator(`[data-grip="${grip}"]`).press(key);
      await expect(page.getByRole("banner").getByText("saved", { exact: true })).toBeVisible();
      expect(await covered(page), grip).toEqual([]);
    }
  });
}
