// Takes the pictures of docs/screenshots again, from demo data. Run by `cargo xtask screenshots`.
import { test } from "@playwright/test";

const FOLDER = "../docs/screenshots";
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

const VIEWS = [
  { name: "corners", path: "/", size: DESK },
  { name: "brief-room", path: "/corners/1/brief", size: DESK },
  { name: "corner", path: "/corners/1", size: DESK, full: true },
  { name: "corner-dark", path: "/corners/1", size: DESK, dark: true },
  { name: "corner-phone", path: "/corners/1", size: PHONE },
  { name: "card", path: "/corners/1/card", size: DESK, full: true },
] as const;

for (const view of VIEWS) {
  test(view.name, async ({ page }) => {
    await page.setViewportSize(view.size);
    await page.emulateMedia({ colorScheme: "dark" in view ? "dark" : "light", reducedMotion: "reduce" });
    await page.goto(view.path);
    await page.waitForLoadState("networkidle");
    await page.screenshot({ path: `${FOLDER}/${view.name}.png`, fullPage: "full" in view });
  });
}

test("working", async ({ page }) => {
  await page.setViewportSize(DESK);
  await page.goto("/corners/1");
  await page.getByRole("button", { name: /^Lit side to shadow side/ }).click();
  await page.screenshot({ path: `${FOLDER}/working.png` });
});
