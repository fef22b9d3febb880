// What holds on every view: accessibility, one screen a step, targets that can be hit, lines that can be seen, no scrolling
// sideways, one kind of units.
import { expect, test, type Page } from "@playwright/test";

import { changedPlan, open, settled, step, withPanel, type Hung } from "./help";
import {
  ALONE,
  BESIDE,
  brightPlan,
  broken,
  cupboard,
  inTurn,
  openOver,
  OVER,
  PARTS,
  STEPS,
  THEMES,
} from "./looks";

// The longest of all files: its tests need no order.
test.describe.configure({ mode: "parallel" });

/**
 * One corner for every view: in feet and inches, whose words are longer, with a panel on a wall, and a face too bright, so that there
 * is a finding. It is the same for all tests, so its kits are searched for once.
 */
const everyView = (page: Page) =>
  changedPlan(page, "Every view", (plan: Hung) => {
    plan.brief.units = "imperial";
    (plan.layout.camera as { iso: number }).iso = 1600;
    withPanel(true)(plan);
  });

/** The main instrument of each step. */
const INSTRUMENTS: Record<(typeof STEPS)[number], string[]> = {
  room: ["text=Depth, each way you can face", "text=Effect of the distance behind you"],
  you: ["role=img[name='The picture as the lens sees it']"],
  shot: ["role=figure[name='The shot over distance']", "role=img[name='The picture as the lens sees it']"],
  light: ["role=img[name='The picture as the lens sees it']", "role=table"],
  day: ["role=img[name='The picture as the lens sees it']", "role=slider[name='Time of day']"],
  sound: ["role=region[name='Hear it here']", "role=figure[name=/^Nearer and farther/]"],
  money: ["role=region[name='Free moves, from how it is today']"],
  card: ["iframe"],
};
const LONGEST_PX = 1500;

/** State, next action and instrument of a step are seen at 1280 x 800 without scrolling. */
async function expectInSight(page: Page, of: (typeof STEPS)[number]): Promise<void> {
  for (const selector of ["h2", "role=region[name='What to do next']", ...INSTRUMENTS[of]]) {
    const box = await page.locator("main").locator(selector).first().boundingBox();
    expect(box, `${of}: ${selector} is not there`).not.toBeNull();
    expect(box?.y, `${of}: ${selector} begins above`).toBeGreaterThanOrEqual(0);
    expect((box?.y ?? 0) + (box?.height ?? 0), `${of}: ${selector} ends below`).toBeLessThanOrEqual(800);
    expect((box?.x ?? 0) + (box?.width ?? 0), `${of}: ${selector} ends beside`).toBeLessThanOrEqual(1280);
  }
  const column = await page.locator("[data-scrolls]").evaluate((e) => e.scrollHeight);
  expect(column, `${of}: the column`).toBeLessThanOrEqual(LONGEST_PX);
  // Said for docs/PERFORMANCE.md.
  console.log(`${of}: column ${column} px`);
  // The picture is always in sight.
  if (!["room", "you", "shot", "light", "day"].includes(of)) {
    const docked = await page.getByRole("img", { name: "The picture as the lens sees it" }).boundingBox();
    expect((docked?.y ?? 900) + (docked?.height ?? 0), `${of}: docked picture`).toBeLessThanOrEqual(800);
  }
}

/** Lines that carry what was computed. */
const LINES = [
  "ink-voice",
  "ink-echo",
  "area-edge",
  "ink-treatment",
  "ink-isolux",
  "ink-cone",
  "ink-keep-out",
  "ink-feet",
  "ink-swing",
  "ink-axis",
  "ink-field",
  "ink-leg",
  "ink-detail",
];

/** No line of the plan is under 3 : 1 on its floor, and at night no lamp glares. */
async function expectSeen(page: Page, of: string, colorScheme: (typeof THEMES)[number]): Promise<void> {
  await page.emulateMedia({ colorScheme });
  const contrasts = await page.evaluate((inks) => {
    const context = document.createElement("canvas").getContext("2d", { willReadFrequently: true });
    if (!context) throw new Error("no canvas");
    /** A colour over another, as eight bits a channel. */
    const over = (colours: string[]) => {
      for (const colour of colours) {
        context.fillStyle = colour;
        context.fillRect(0, 0, 1, 1);
      }
      return [...context.getImageData(0, 0, 1, 1).data].slice(0, 3);
    };
    const luminance = (rgb: number[]) => {
      const [r = 0, g = 0, b = 0] = rgb.map((c) => {
        const part = c / 255;
        return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
      });
      return 0.2126 * r + 0.7152 * g + 0.0722 * b;
    };
    // Contrast of two colours, WCAG 2.2.
    const ratio = (a: number[], b: number[]) => {
      const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y);
      return ((high ?? 0) + 0.05) / ((low ?? 0) + 0.05);
    };
    const drawing = document.querySelector("svg.drawing[aria-label='Plan, from above']");
    const floor = drawing?.querySelector(".ink-floor");
    if (!drawing || !floor) throw new Error("no plan");
    const ground = getComputedStyle(floor).fill;
    const found = inks.flatMap((ink) => {
      const line = drawing.querySelector(`.${ink}`);
      if (!line) return [];
      const { stroke, strokeOpacity } = getComputedStyle(line);
      if (stroke === "none" || strokeOpacity !== "1") return [[ink, stroke === "none" ? 99 : 0] as const];
      return [[ink, ratio(over([ground, stroke]), over([ground]))] as const];
    });
    const lamp = drawing.querySelector(".ink-lamp-face");
    const glare = lamp ? luminance(over([ground, getComputedStyle(lamp).fill])) : 0;
    return { found, glare };
  }, LINES);
  expect(contrasts.found.length, of).toBeGreaterThan(3);
  for (const [ink, contrast] of contrasts.found)
    expect(contrast, `${of}, ${colorScheme}: ${ink}`).toBeGreaterThanOrEqual(3);
  if (colorScheme === "dark") expect(contrasts.glare, of).toBeLessThan(0.5);
}

const METRIC = /\d[\s\u00a0]?(?:m|cm|kg|m²|m³)(?![\p{L}\d/²³])/u;
/** Labels of gear are their owners' own words, and catalogue labels name their sizes as they are sold. */
const LABEL =
  /softbox|panel|stand|Tripod|Lens|lens|zoom|board|Reflector|reflector|cable|screen|umbrella|roll|lantern|monitor|Mirror|curtain|Curtain|cloth/;

/** In feet and inches a view shows no metric length, mass or area, in its words and in its drawings. */
async function expectImperial(page: Page, where: string): Promise<void> {
  const shown = await page.evaluate(() => {
    const all: string[] = [];
    const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walk.nextNode(); node; node = walk.nextNode()) {
      const holder = node.parentElement;
      if (holder && !holder.closest("script, style, option")) all.push(node.textContent ?? "");
    }
    return all;
  });
  expect(shown.length, where).toBeGreaterThan(10);
  expect(
    shown.filter((text) => METRIC.test(text) && !LABEL.test(text)),
    where,
  ).toEqual([]);
}

// A step itself in both themes, all else in one after the other: `--project=sizes` looks at all in both.
const SOUND = "breaks no accessibility rule, light and dark, and what can be pressed is at least 24 px";

test(`each page without a corner ${SOUND}`, async ({ page }) => {
  const all: string[] = [];
  for (const [index, path] of ALONE.entries()) {
    await settled(page, path);
    all.push(...(await broken(page, path, inTurn(index))));
  }
  expect(all).toEqual([]);
});

/** Pages beside the steps that show lengths of the corner. */
const MEASURED = ["shelf", "schools", "compare"];

test(`each page beside the worktable ${SOUND}`, async ({ page }) => {
  const nothing = await cupboard(page, "Cupboard");
  const id = await everyView(page);
  const beside = BESIDE.map((of) => `/corners/${id}/${of}`);
  const all: string[] = [];
  const paths = [`/corners/${nothing}`, `/corners/${id}`, ...beside, "/corners/999999"];
  for (const [index, path] of paths.entries()) {
    await settled(page, path);
    if (MEASURED.some((of) => path.endsWith(`/${of}`))) await expectImperial(page, path);
    all.push(...(await broken(page, path, inTurn(index))));
  }
  await settled(page, `/corners/${id}/light`);
  await page.getByRole("button", { name: /^Exposure of the face/ }).click();
  all.push(...(await broken(page, "a finding that is open")));
  expect(all).toEqual([]);
});

for (const [index, of] of STEPS.entries())
  test(`the step ${of} is seen whole, in feet and inches alone, and ${SOUND}`, async ({ page }) => {
    const id = await everyView(page);
    await settled(page, `/corners/${id}/${of}`);
    await expectInSight(page, of);
    await expectImperial(page, of);
    if (["shot", "light", "sound"].includes(of))
      for (const theme of THEMES) await expectSeen(page, of, theme);
    const all = await broken(page, of);
    // Its other parts are made alike in each step: all but one of them.
    for (const [turn, tab] of PARTS.slice(1).entries()) {
      if (turn === index % 3) continue;
      await settled(page, `/corners/${id}/${of}${tab}`);
      await expectImperial(page, `${of}${tab}`);
      all.push(...(await broken(page, `${of}${tab}`, inTurn(index + turn))));
    }
    expect(all).toEqual([]);
  });

test(`what opens over a view ${SOUND}`, async ({ page }) => {
  const id = await brightPlan(page);
  const all: string[] = [];
  for (const [index, [name, path, show]] of OVER.entries()) {
    await settled(page, `/corners/${id}${path}`);
    await openOver(page, show);
    all.push(...(await broken(page, name, inTurn(index))));
    // What opens over a view goes by Escape, and the focus is where it was.
    await page.keyboard.press("Escape");
    await expect(page.locator("[role=dialog], [role=menu]")).toHaveCount(0);
    // It comes back a moment after the dialog is gone.
    const focused = () => page.evaluate(() => document.activeElement?.tagName);
    await expect.poll(focused, { message: `${name} gives the focus back` }).not.toBe("BODY");
  }
  expect(all).toEqual([]);
});

test(`the card itself ${SOUND}`, async ({ page }) => {
  const id = await brightPlan(page);
  const card = await page.request.get(`/api/v1/corners/${id}/card/html?picture=lines`);
  await page.setContent(await card.text());
  expect(await broken(page, "card")).toEqual([]);
});

test("a step begins at its top, and every page says where one is", async ({ page }) => {
  const id = await open(page, "From the top", "/shot/numbers");
  const column = page.locator("[data-scrolls]");
  await column.evaluate((e) => e.scrollTo(0, 400));
  await step(page, "Light").click();
  await expect.poll(() => column.evaluate((e) => e.scrollTop)).toBe(0);
  for (const [path, title] of [
    ["/", "Your corners · Fogon"],
    ["/new", "New corner · Fogon"],
    [`/corners/${id}/answers`, "Answers: From the top · Fogon"],
    [`/corners/${id}/shelf`, /^Shelf.*From the top · Fogon$/],
    ["/nowhere", "Not found · Fogon"],
  ] as const) {
    await page.goto(path);
    await expect(page).toHaveTitle(title);
  }
});

test("a phone shows everything without scrolling sideways", async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const id = await everyView(page);
  for (const path of [
    "/",
    "/new",
    "/new?door=today",
    "/new/all",
    `/corners/${id}`,
    ...[...STEPS, ...BESIDE, "light/by-hand", "sound/numbers"].map((of) => `/corners/${id}/${of}`),
  ]) {
    await settled(page, path);
    const wide = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(wide, path).toBeLessThanOrEqual(0);
  }
});

test("a page that fails says so, keeps the plan and offers the file", async ({ page }) => {
  const id = await open(page, "Crashed");
  await page.route("**/api/v1/assess?*", async (route) => {
    const judged = (await (await route.fetch()).json()) as { steps: unknown };
    // An answer that no server gives.
    await route.fulfill({ json: { ...judged, steps: 7 } });
  });
  await page.goto(`/corners/${id}/light`);
  const trouble = page.getByRole("alert");
  await expect(trouble).toBeVisible();
  const [file] = await Promise.all([
    page.waitForEvent("download"),
    trouble.getByRole("button", { name: /file/i }).click(),
  ]);
  expect(file.suggestedFilename()).toBe("crashed.fogon.json");
  await page.unroute("**/api/v1/assess?*");
  await trouble.getByRole("button", { name: /again/i }).click();
  await expect(page.getByRole("heading", { name: /^Light/ })).toBeVisible();
});
