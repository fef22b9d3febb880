// By hand: every view and what opens over it, at three sizes and in both themes: no accessibility rule is broken, nothing is too small to
// be pressed, nothing scrolls sideways or is cut. FOGON_PICTURES names a folder for a picture of each.
//     FOGON_URL=http://127.0.0.1:4170 npx playwright test --project=sizes
import { expect, test, type Page } from "@playwright/test";

import { open, settled } from "./help";
import { ALONE, BESIDE, brightPlan, broken, cupboard, openOver, OVER, PARTS, STEPS } from "./looks";

const SIZES = [
  [1280, 800],
  [1600, 1000],
  [390, 844],
] as const;
const INTO = process.env.FOGON_PICTURES;

/** Words that end before they are read: in a box that hides what is too long for it, without saying so. */
const cut = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>("main *, header *, nav *")]
      .filter((e) => e.checkVisibility() && !e.closest(".sr-only, [aria-hidden=true], svg, [data-scrolls]"))
      .filter((e) => {
        const style = getComputedStyle(e);
        const hides = style.overflowX === "hidden" || style.overflowX === "clip";
        return hides && style.textOverflow !== "ellipsis" && e.scrollWidth > e.clientWidth + 1;
      })
      .map((e) => `cut: ${e.innerText.slice(0, 60)}`),
  );

for (const [width, height] of SIZES)
  test.describe(`${String(width)} x ${String(height)}`, () => {
    test.use({ viewport: { width, height }, isMobile: width < 600, hasTouch: width < 600 });
    test.describe.configure({ timeout: 900_000 });

    async function looked(page: Page, name: string): Promise<string[]> {
      const all = await broken(page, name);
      const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
      if (over > 0) all.push(`${name} scrolls sideways by ${String(over)} px`);
      all.push(...(await cut(page)).map((one) => `${name} ${one}`));
      if (INTO)
        for (const colorScheme of ["light", "dark"] as const) {
          await page.emulateMedia({ colorScheme });
          const file = `${name.replace(/\W+/g, "-")}-${String(width)}-${colorScheme}.png`;
          await page.screenshot({ path: `${INTO}/${file}` });
        }
      return all;
    }

    test("pages without a corner", async ({ page }) => {
      const all: string[] = [];
      for (const path of ALONE) {
        await settled(page, path);
        all.push(...(await looked(page, `alone ${path}`)));
      }
      expect(all).toEqual([]);
    });

    test("a corner in which nothing fits, and one with findings", async ({ page }) => {
      const all: string[] = [];
      const nothing = await cupboard(page, "Cupboard");
      await settled(page, `/corners/${String(nothing)}`);
      all.push(...(await looked(page, "nothing fits")));
      const id = await brightPlan(page);
      for (const path of ["", ...BESIDE.map((one) => `/${one}`)]) {
        await settled(page, `/corners/${String(id)}${path}`);
        all.push(...(await looked(page, `beside ${path}`)));
      }
      expect(all).toEqual([]);
    });

    for (const of of STEPS)
      test(`the step ${of}`, async ({ page }) => {
        const all: string[] = [];
        const id = await brightPlan(page);
        for (const part of PARTS) {
          await settled(page, `/corners/${String(id)}/${of}${part}`);
          all.push(...(await looked(page, `${of}${part}`)));
        }
        expect(all).toEqual([]);
      });

    test("what opens over a view", async ({ page }) => {
      const all: string[] = [];
      const id = await open(page, "Over");
      for (const [name, path, show] of OVER) {
        await settled(page, `/corners/${String(id)}${path}`);
        await openOver(page, show);
        all.push(...(await looked(page, name)));
      }
      expect(all).toEqual([]);
    });
  });
