import { chromium } from "@playwright/test";
const base = process.env.FOGON_URL ?? "http://127.0.0.1:4199";
const list = JSON.parse(process.argv[2]);
const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--no-sandbox", "--disable-gpu"] });
for (const [name, path, w = 1280, h = 800, dark = false, script = ""] of list) {
  const context = await browser.newContext({ viewport: { width: w, height: h }, colorScheme: dark ? "dark" : "light", hasTouch: w < 500 });
  const page = await context.newPage();
  page.on("pageerror", (e) => console.log(name, "PAGEERROR", e.message.slice(0, 300)));
  page.on("console", (m) => m.type() === "error" && console.log(name, "console", m.text().slice(0, 300)));
  await page.goto(base + path);
  await page.waitForLoadState("networkidle").catch(() => {});
  await page.waitForTimeout(500);
  if (script) { await eval(`(async () => {${script}})()`); await page.waitForTimeout(600); }
  await page.screenshot({ path: `/tmp/e2e/${name}.png` });
  await context.close();
}
await browser.close();
