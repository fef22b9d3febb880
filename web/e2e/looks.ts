// Every view there is, and what no view may break.
import AxeBuilder from "@axe-core/playwright";
import { expect, type Page } from "@playwright/test";

import { changedPlan, choose, demoPlan, keep } from "./help";

export const STEPS = ["room", "you", "shot", "light", "day", "sound", "money", "card"] as const;
export const PARTS = ["", "/by-hand", "/choices", "/numbers"] as const;
const TAKE = ["shots", "script", "test", "record", "logbook"].map((part) => `take?part=${part}`);
export const BESIDE = ["compare", "history", "schools", "shelf", "answers", ...TAKE];
/** Pages without a corner. */
export const ALONE = ["/", "/kept", "/new", "/new?door=today", "/new/all", "/kit", "/nowhere"];

/** A corner too small for anything. */
export async function cupboard(page: Page, name: string): Promise<number> {
  const plan = structuredClone(await demoPlan(page)) as unknown as {
    name: string;
    format: string;
    layout?: unknown;
    brief: {
      room: { floor_m: number[][]; openings: object; furniture: object };
      person: { seat_at: string | null };
      today?: unknown;
    };
  };
  delete plan.layout;
  delete plan.brief.today;
  plan.name = name;
  plan.format = "fogon.brief";
  const floor_m = [
    [0, 0],
    [1.3, 0],
    [1.3, 1.4],
    [0, 1.4],
  ];
  plan.brief.room = { ...plan.brief.room, openings: {}, furniture: {}, floor_m };
  plan.brief.person.seat_at = null;
  return keep(page, plan);
}

/** A corner whose face is too bright: it has a finding to show. */
export const brightPlan = (page: Page): Promise<number> =>
  changedPlan(page, "Too bright", (plan: { layout: { camera: { iso: number } } }) => {
    plan.layout.camera.iso = 1600;
  });

/** What can be pressed and is narrower or lower than 24 px. */
const small = (page: Page) =>
  page.evaluate(() =>
    [
      ...document.querySelectorAll<HTMLElement>(
        "button, a[href], input, select, summary, [role=slider], [role=tab]",
      ),
    ]
      .filter(
        (e) => e.checkVisibility({ visibilityProperty: true }) && !e.closest(".sr-only, [aria-hidden=true]"),
      )
      // A link in a sentence is as high as its line: WCAG 2.2, 2.5.8 leaves it out.
      .filter((e) => !(e.tagName === "A" && getComputedStyle(e).display === "inline"))
      .filter((e) => !/sr-only|-top-20/.test(e.className))
      .map((e) => ({ e, target: (e.closest("label") ?? e).getBoundingClientRect() }))
      .filter(({ target }) => target.width < 24 || target.height < 24)
      .map(
        ({ e, target }) =>
          `${e.outerHTML.slice(0, 90)} is ${target.width.toFixed(0)} x ${target.height.toFixed(0)} px`,
      ),
  );

export const THEMES = ["light", "dark"] as const;

/** One theme after the other, for views that are looked at in one of them. */
export const inTurn = (index: number) => THEMES.filter((_, at) => at === index % 2);

/** Accessibility rules that a view breaks, in either theme or in those named, and what is too small to be pressed. */
export async function broken(
  page: Page,
  where: string,
  themes: readonly (typeof THEMES)[number][] = THEMES,
): Promise<string[]> {
  const all: string[] = [];
  for (const [index, colorScheme] of themes.entries()) {
    await page.emulateMedia({ colorScheme });
    // No script runs in the frame of the card: it is looked at by itself.
    const axe = new AxeBuilder({ page }).exclude("iframe").options({ resultTypes: ["violations"] });
    // Without a second page that gathers what frames say, since none is looked at, it takes half as long.
    axe.setLegacyMode();
    // What depends on the theme is contrast; the page is the same.
    if (index > 0) axe.withRules(["color-contrast"]);
    const { violations } = await axe.analyze();
    all.push(...violations.map((v) => `${where} ${colorScheme} ${v.id}: ${v.nodes[0]?.html}`));
  }
  return [...all, ...(await small(page)).map((one) => `${where} ${one}`)];
}

type Opened = readonly [name: string, path: string, open: (page: Page) => Promise<void>];

const press = (name: string | RegExp) => async (page: Page) =>
  page
    .getByRole("button", { name, exact: typeof name === "string" })
    .first()
    .click();

/** What opens over a view of a corner: where, and how. */
export const OVER: readonly Opened[] = [
  ["the menu of a corner", "/light", press("More")],
  ["a new name", "/light", (page) => choose(page, "Rename")],
  [
    "the key of the drawings",
    "/light",
    async (page) => {
      // On a phone the drawings are folded.
      const folded = page.getByText("Plan and side view");
      if (await folded.isVisible()) await folded.click();
      await press("Key")(page);
    },
  ],
  ["a reading", "/light", (page) => page.locator("button[data-reading]").first().click()],
  ["a reading of all", "/light/numbers", (page) => page.locator("button[data-reading]").first().click()],
  ["the options of the picture", "/light", press("Show")],
  ["the files of the card", "/card", press("Save as a file")],
  ["what to do, in order", "/card", press("What to do, in order")],
  ["stands and plugs", "/card", press("Stands and plugs")],
  ["how a school looks", "/schools", press("See it")],
  ["a shot", "/take?part=shots", press(/^Change: /)],
];

/** Opened, and whole: nothing of it is beyond the window. */
export async function openOver(page: Page, open: Opened[2]): Promise<void> {
  await open(page);
  const over = page.locator("[role=dialog], [role=menu]").first();
  await expect(over).toBeVisible();
  const box = await over.boundingBox();
  const { width, height } = page.viewportSize() ?? { width: 0, height: 0 };
  expect(box?.x).toBeGreaterThanOrEqual(0);
  expect(box?.y).toBeGreaterThanOrEqual(0);
  expect((box?.x ?? 0) + (box?.width ?? 0)).toBeLessThanOrEqual(width);
  expect((box?.y ?? 0) + (box?.height ?? 0)).toBeLessThanOrEqual(height);
}
