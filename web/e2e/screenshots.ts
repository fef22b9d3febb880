// Takes the pictures of docs/screenshots again, from demo data. Run by `cargo xtask screenshots`.
import { readFileSync } from "node:fs";

import { test, type Page } from "@playwright/test";

const FOLDER = "../docs/screenshots";
const DESK = { width: 1280, height: 800 };
const PHONE = { width: 390, height: 844 };

const ROOM: [string, string][] = [
  ["Width, along the back wall", "3.1 m"],
  ["Depth, back to front", "3.6 m"],
];

async function fill(page: Page, fields: [string, string][]): Promise<void> {
  for (const [label, value] of fields) await page.getByLabel(label, { exact: true }).first().fill(value);
}

/** Drags the key by some pixels and keeps hold of it. */
async function holdKey(page: Page, x: number, y: number): Promise<void> {
  const box = await page.locator("[data-grip=plan-key-place]").boundingBox();
  if (!box) return;
  const at = [box.x + box.width / 2, box.y + box.height / 2] as const;
  await page.mouse.move(...at);
  await page.mouse.down();
  await page.mouse.move(at[0] + x, at[1] + y, { steps: 6 });
  await page.waitForTimeout(400);
}

interface View {
  name: string;
  path: string;
  size: typeof DESK;
  dark?: boolean;
  full?: boolean;
  prepare?: (page: Page) => Promise<void>;
}

const VIEWS: View[] = [
  { name: "corners", path: "/", size: DESK },
  { name: "start", path: "/new", size: DESK, prepare: (page) => fill(page, ROOM) },
  { name: "start-phone", path: "/new", size: PHONE, prepare: (page) => fill(page, ROOM) },
  {
    name: "as-it-stands",
    path: "/new?door=today",
    size: DESK,
    prepare: async (page) => {
      await fill(page, ROOM);
      await page.getByRole("button", { name: /As it stands/ }).click();
      const all = page.getByRole("textbox");
      for (const [index, text] of [
        "1.5 m",
        "1.1 m",
        "1.6 m",
        "2.6 m",
        "1.3 m",
        "35",
        "2.8",
        "2.3 m",
        "2.2 m",
        "1.9 m",
      ].entries())
        await all.nth(index).fill(text);
      await page.evaluate(() => window.scrollTo(0, 0));
    },
  },
  { name: "brief-room", path: "/corners/1/brief", size: DESK },
  {
    name: "walk",
    path: "/corners/2/brief",
    size: DESK,
    prepare: (page) => page.getByRole("heading", { name: "The walk round" }).scrollIntoViewIfNeeded(),
  },
  { name: "alcove", path: "/corners/2/room", size: DESK },
  { name: "corner", path: "/corners/1", size: DESK },
  { name: "shot", path: "/corners/1/shot", size: DESK },
  { name: "compare", path: "/corners/1/compare", size: DESK },
  {
    name: "light",
    path: "/corners/1/light",
    size: DESK,
    prepare: (page) =>
      page.locator("[aria-labelledby=face-light] tbody").evaluate((e) => e.scrollIntoView({ block: "end" })),
  },
  {
    name: "held-dark",
    path: "/corners/1/light",
    size: DESK,
    dark: true,
    prepare: (page) => holdKey(page, -30, 60),
  },
  {
    name: "sound",
    path: "/corners/1/sound",
    size: DESK,
    prepare: async (page) => {
      await page.getByRole("button", { name: "Play" }).isEnabled();
      await page.getByText("How each band dies away").evaluate((e) => e.scrollIntoView({ block: "end" }));
      await page.evaluate(() => window.scrollTo(0, 0));
      await page.waitForTimeout(2500);
    },
  },
  { name: "money", path: "/corners/1/money", size: DESK },
  {
    name: "corner-phone",
    path: "/corners/1/sound",
    size: PHONE,
    prepare: (page) => page.locator("[data-grip=plan-microphone-place]").click(),
  },
  { name: "card", path: "/corners/1/card", size: DESK },
  { name: "kit", path: "/kit", size: DESK, full: true },
  {
    name: "working",
    path: "/corners/1/light",
    size: DESK,
    prepare: (page) => page.getByRole("button", { name: /^Light at the face/ }).click(),
  },
];

async function take(page: Page, view: View): Promise<void> {
  await page.setViewportSize(view.size);
  await page.emulateMedia({ colorScheme: view.dark ? "dark" : "light", reducedMotion: "reduce" });
  await page.goto(view.path);
  await page.waitForLoadState("networkidle");
  await view.prepare?.(page);
  await page.screenshot({ path: `${FOLDER}/${view.name}.png`, fullPage: view.full ?? false });
}

for (const view of VIEWS) test(view.name, ({ page }) => take(page, view));

test("crowded", async ({ page }) => {
  const plan: unknown = JSON.parse(
    readFileSync(new URL("../../docs/examples/crowded-alcove.fogon.json", import.meta.url), "utf8"),
  );
  const answer = await page.request.post("/api/v1/corners", { data: plan });
  const { id } = (await answer.json()) as { id: number };
  await take(page, { name: "crowded", path: `/corners/${id}`, size: DESK });
});
