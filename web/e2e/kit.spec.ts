// The design system: every part is on its page, works, and keeps the rules that all views rest on.
import { expect, test } from "@playwright/test";

test("the kit shows every part, each with a name and a target that can be hit", async ({ page }) => {
  await page.goto("/kit");
  for (const part of [
    "Type",
    "Colours",
    "Spacing",
    "Buttons and a dialog",
    "Fields",
    "Tiles of readings",
    "Findings, a line each",
    "Inks of the drawings",
    "Waiting and trouble",
  ])
    await expect(page.getByRole("region", { name: part, exact: true })).toBeVisible();
  // WCAG 2.2, 2.5.8: targets of at least 24 x 24 px.
  const small = await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>("button:not(.term), a.button, input:not(.sr-only), select")]
      .filter((e) => e.offsetParent && (e.offsetWidth < 20 || e.offsetHeight < 20))
      .map((e) => e.outerHTML.slice(0, 80)),
  );
  expect(small).toEqual([]);
  await page.getByRole("button", { name: "Open a dialog" }).click();
  await expect(page.getByRole("dialog")).toBeVisible();
  await page.keyboard.press("Escape");
  await expect(page.getByRole("button", { name: "Open a dialog" })).toBeFocused();
  await page.getByRole("button", { name: "headroom" }).focus();
  await expect(page.getByRole("tooltip")).toContainText("upper edge of the picture");
});

for (const theme of ["light", "dark"] as const) {
  test(`beside the picture there is no hue, and one accent in all, ${theme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: theme });
    await page.goto("/kit");
    const tokens = await page.evaluate(() => {
      const style = getComputedStyle(document.documentElement);
      const names = ["paper", "desk", "line", "faint", "ink", "surround", "ember", "ember-soft"];
      return Object.fromEntries(names.map((n) => [n, style.getPropertyValue(`--color-${n}`).trim()]));
    });
    const channels = (hex: string) => {
      const full = hex.length === 4 ? hex.replace(/[0-9a-f]/gi, "$&$&") : hex;
      return [1, 3, 5].map((i) => Number.parseInt(full.slice(i, i + 2), 16));
    };
    for (const name of ["paper", "desk", "line", "faint", "ink", "surround"]) {
      const [r = 0, g = 0, b = 0] = channels(tokens[name] ?? "");
      expect(Math.max(r, g, b) - Math.min(r, g, b), `${name} ${tokens[name]}`).toBe(0);
    }
    const [r = 0, , b = 0] = channels(tokens.ember ?? "");
    expect(r - b, "the accent is warm").toBeGreaterThan(60);
  });
}
