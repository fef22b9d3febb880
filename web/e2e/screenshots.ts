// Takes the pictures of docs/screenshots again, from demo data. Run by `cargo xtask screenshots`.
import { readFileSync } from "node:fs";

import { test, type Page } from "@playwright/test";

// With photographs.
test.use({ storageState: { cookies: [], origins: [] } });

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

/** A corner with a change of its light, so that its history has something to tell. */
async function changed(page: Page, id: number): Promise<void> {
  const address = `/api/v1/corners/${String(id)}`;
  const file = (await (await page.request.get(`${address}/file`)).json()) as {
    layout: { lights: Record<string, { dim?: number }> };
  };
  for (const light of Object.values(file.layout.lights)) light.dim = 0.4;
  await page.request.put(address, { data: file, headers: { "If-Match": '"1"' } });
  await page.reload();
  await page.waitForLoadState("networkidle");
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
  {
    name: "start",
    path: "/new",
    size: DESK,
    prepare: async (page) => {
      await fill(page, ROOM);
      await page.getByRole("button", { name: "Next: You" }).click();
      await page.getByLabel("Your height").fill("1.72 m");
      await page.getByRole("button", { name: "Next: Shot" }).click();
      await page.getByRole("img", { name: "The picture so far" }).waitFor();
    },
  },
  { name: "corner", path: "/corners/1", size: DESK },
  { name: "room", path: "/corners/1/room", size: DESK },
  { name: "shot", path: "/corners/1/shot", size: DESK },
  { name: "light", path: "/corners/1/light", size: DESK },
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
    prepare: (page) => page.getByText(/STI/).first().waitFor(),
  },
  { name: "floor-phone", path: "/corners/1/floor", size: PHONE },
  { name: "money", path: "/corners/1/money", size: DESK },
  { name: "card", path: "/corners/1/card", size: DESK },
  { name: "compare", path: "/corners/1/compare", size: DESK },
  // Corner 3: no other picture is of it.
  { name: "history", path: "/corners/3/history", size: DESK, prepare: (page) => changed(page, 3) },
  { name: "kept", path: "/kept", size: DESK },
  { name: "shelf", path: "/corners/1/shelf", size: DESK },
  { name: "take", path: "/corners/1/take?part=test", size: DESK, prepare: tested },
  { name: "record-phone", path: "/phone/3/takes", size: PHONE, prepare: recording },
  {
    name: "day",
    path: "/corners/1/day",
    size: DESK,
    // The window looks to the north-west: the sun comes in on summer evenings.
    prepare: async (page) => {
      await page.getByLabel("Date").fill("2026-06-21");
      await page.getByText(/daylight saving/).waitFor();
      await page.getByRole("slider", { name: "Time of day" }).focus();
      for (let i = 0; i < 44; i += 1) await page.keyboard.press("ArrowRight");
      await page.getByText(/^19:20, clear sky/).waitFor();
    },
  },
];

/** The voice that ships as the corner records it, and a still of a camera that stands too low. */
async function tested(page: Page): Promise<void> {
  const plan = (await (await page.request.get("/api/v1/corners/1/file")).json()) as {
    layout: { camera: { position_m: number[]; tilt_deg: number } };
  };
  const wav = await (await page.request.post("/api/v1/hear", { data: { plan } })).body();
  const low = structuredClone(plan);
  low.layout.camera.position_m[2] = (low.layout.camera.position_m[2] ?? 0) - 0.1;
  low.layout.camera.tilt_deg += 3;
  const png = await (await page.request.post("/api/v1/picture", { data: { plan: low, width: 960 } })).body();
  await page
    .getByLabel("Pick a recording")
    .setInputFiles([{ name: "test.wav", mimeType: "audio/wav", buffer: wav }]);
  await page
    .getByLabel("Pick a still")
    .setInputFiles([{ name: "still.png", mimeType: "image/png", buffer: png }]);
  await page.getByRole("button", { name: "Measure it" }).click();
  await page.locator("[data-measure=camera]").waitFor();
  await page
    .getByRole("heading", { level: 2 })
    .first()
    .evaluate((title) => title.scrollIntoView({ block: "center" }));
}

/** A session with a take that was kept. */
async function recording(page: Page): Promise<void> {
  await page.evaluate(() => localStorage.setItem("fogon.countdown", "0"));
  await page.reload();
  await page.getByRole("button", { name: "Begin a session" }).click();
  await page.getByRole("button", { name: "Start", exact: true }).click();
  await page.waitForTimeout(3000);
  await page.getByRole("button", { name: "Stop", exact: true }).click();
  await page.getByRole("button", { name: "Keep", exact: true }).click();
}

async function take(page: Page, view: View): Promise<void> {
  await page.setViewportSize(view.size);
  await page.emulateMedia({ colorScheme: view.dark ? "dark" : "light", reducedMotion: "reduce" });
  await page.goto(view.path);
  await page.waitForLoadState("networkidle");
  await view.prepare?.(page);
  // Photographs as fine as they get, and stills that are on their way; some views have none.
  const first = page.locator("[data-photo]").first();
  await first.waitFor({ state: "attached", timeout: 4000 }).catch(() => undefined);
  for (const photo of await page.locator("[data-photo]").all())
    await photo.and(page.locator('[data-photo="finished"]')).waitFor({ state: "attached", timeout: 60_000 });
  await page.waitForLoadState("networkidle");
  await page
    .waitForFunction(() => document.querySelectorAll(".frame-drawing").length === 0, null, {
      timeout: 9_000,
    })
    .catch(() => undefined);
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
