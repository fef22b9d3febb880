// By hand: every sentence of the page in the demo's corners, with everything unfolded. None is longer than 25 words; the commonest are
// printed to be read aloud.
//     FOGON_URL=http://127.0.0.1:4170 npx playwright test --project=sentences
import { expect, test } from "@playwright/test";

import { settled } from "./help";
import { ALONE, BESIDE, STEPS } from "./looks";

const LONGEST = 25;
const COMMONEST = Number(process.env.FOGON_SENTENCES ?? 100);
const words = (sentence: string) => sentence.split(/\s+/);

test("no sentence is longer than 25 words", async ({ page }) => {
  test.setTimeout(900_000);
  const corners = (await (await page.request.get("/api/v1/corners")).json()) as { id: number }[];
  const paths = [
    ...ALONE,
    ...corners.flatMap(({ id }) => [
      ...[...STEPS, ...BESIDE].map((of) => `/corners/${String(id)}/${of}`),
      `/corners/${String(id)}/floor`,
    ]),
  ];
  const many = new Map<string, number>();
  for (const path of paths) {
    await settled(page, path);
    // What is folded may hold what is folded.
    for (let depth = 0; depth < 3; depth += 1) {
      await page.evaluate(() => {
        for (const one of document.querySelectorAll("details")) one.open = true;
        const folded = "main button[aria-expanded=false]:not([aria-haspopup])";
        for (const one of document.querySelectorAll<HTMLElement>(folded)) one.click();
      });
      await page.waitForTimeout(150);
    }
    const lines = (await page.locator("body").innerText()).split("\n");
    for (const sentence of lines.flatMap((line) => line.split(/(?<=[.!?])\s+(?=[A-Z“"])/)))
      if (words(sentence.trim()).length >= 3) many.set(sentence.trim(), (many.get(sentence.trim()) ?? 0) + 1);
  }
  const all = [...many].sort(([, one], [, other]) => other - one);
  console.log(`${String(all.length)} sentences`);
  // Names, labels and figures are no sentences.
  const whole = all.filter(([sentence]) => /[.!?]$/.test(sentence));
  for (const [sentence, times] of whole.slice(0, COMMONEST)) console.log(`${String(times)}\t${sentence}`);
  expect(all.filter(([sentence]) => words(sentence).length > LONGEST)).toEqual([]);
});
