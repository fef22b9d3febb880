// The first run with each camera that it offers, in rooms of four shapes: the corner is ready, or what is to be bought for less than
// 150 makes it ready. By script and by keyboard; `FOGON_ROOMS=4` tries each camera in all of them.
import { expect, test } from "@playwright/test";

import { answersSchema } from "../src/answers/schema";
import { briefOf } from "../src/answers/toBrief";
import { answersOf, newFirstRun, type FirstRun } from "../src/start/firstRun";
import { CAMERAS } from "../src/start/gear";
import { reach } from "./help";

/** Width and depth, m: square, larger, a hallway, a box room. */
const ROOMS = [
  ["3", "3"],
  ["4", "3.5"],
  ["2.1", "4.6"],
  ["3.4", "2.9"],
] as const;
/** What is owned: as the first run takes it, and nothing but the camera. */
const OWNED: Record<string, Partial<FirstRun>> = {
  usual: {},
  little: { lamps: {}, microphones: {} },
};
const BUDGET = 150;
/** Rooms for each camera: one in turn, or as many as are asked for. */
const EACH = Number(process.env.FOGON_ROOMS ?? 1);
const roomsOf = (index: number) =>
  Array.from({ length: EACH }, (_, next) => ROOMS[(index + next) % ROOMS.length] ?? ROOMS[0]);

interface Proposals {
  proposals: { ready: boolean; plan: object }[];
}
interface Judged {
  assessment: { verdict: { because: string[] } };
}
interface Advice {
  line: string;
  spent: number;
  ready: boolean;
}
/** Corners whose purchases are looked for, which takes half a minute each. */
const BOUGHT = 1;

test("with every camera a room is ready, or what makes it so is told", async ({ request }) => {
  let asked = 0;
  const post = async <T>(path: string, data: object): Promise<T> => {
    const answer = await request.post(path, { data });
    expect(answer.status(), await answer.text()).toBe(200);
    return (await answer.json()) as T;
  };
  for (const [index, { id: camera }] of CAMERAS.entries())
    for (const [turn, [width, depth]] of roomsOf(index).entries())
      for (const [name, owned] of Object.entries(OWNED)) {
        // With nothing but the camera one room tells what all do: the light is the ceiling's.
        if (name === "little" && turn > 0) continue;
        const what = `${camera}, ${width} by ${depth}, ${name}`;
        const run = {
          ...newFirstRun(),
          width,
          depth,
          stature: "1.72",
          camera,
          budget: String(BUDGET),
          ...owned,
        };
        const answers = answersOf(run, false);
        const { brief } = briefOf(answersSchema(answers).parse(answers), null, null);
        const file = { format: "fogon.brief", version: 1, name: what, brief };
        const [best] = (await post<Proposals>("/api/v1/propose", file)).proposals;
        expect(best, what).toBeDefined();
        if (!best || best.ready) continue;
        const { verdict } = (await post<Judged>("/api/v1/assess", best.plan)).assessment;
        if (asked >= BOUGHT) continue;
        asked += 1;
        const told = await request.post("/api/v1/buy", { data: { plan: best.plan }, timeout: 300_000 });
        const lines = (await told.text()).trim().split("\n");
        const advice = JSON.parse(lines.at(-1) ?? "") as Advice;
        expect(advice.line, what).toBe("advice");
        expect(advice.ready, `${what}: ${verdict.because.join(", ")}`).toBe(true);
        expect(advice.spent, what).toBeLessThan(BUDGET + 0.01);
      }
});

/** Cameras that are chosen by keyboard: the keys are the same for each, so one, or each in a long look. */
const KEYED = EACH < ROOMS.length ? CAMERAS.slice(0, 1) : CAMERAS;

for (const [index, { name }] of KEYED.entries())
  test(`by keyboard alone: ${name}`, async ({ page }) => {
    const [[width, depth] = ROOMS[0]] = roomsOf(index);
    await page.goto("/new");
    await page.evaluate(() => localStorage.clear());
    await page.goto("/new");
    await reach(page, /^Width/);
    await page.keyboard.type(width);
    await reach(page, /^Depth/);
    await page.keyboard.type(depth);
    await reach(page, /^Next: You/);
    await page.keyboard.press("Enter");
    await reach(page, /^Your height/);
    await page.keyboard.type("1.72");
    await reach(page, /^Next: Shot/);
    await page.keyboard.press("Enter");
    // The kinds of camera are one group: the arrow keys go from one to the next and choose it.
    await reach(page, /^APS-C with a zoom/);
    const camera = page.getByRole("radio", { name, exact: true });
    for (let press = 0; press < CAMERAS.length + 1 && !(await camera.isChecked()); press += 1)
      await page.keyboard.press("ArrowRight");
    await expect(camera).toBeChecked();
    for (const title of ["Light", "Sound", "Money"]) {
      await reach(page, new RegExp(`^Next: ${title}`));
      await page.keyboard.press("Enter");
      await expect(page.getByRole("heading", { name: title, level: 2 })).toBeFocused();
    }
    await reach(page, /^Lay out the corner/);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("img", { name: "Plan, from above" })).toBeVisible();
    await expect(page.getByText(/Ready: record|Not ready/).first()).toBeVisible();
    await expect(page.getByText(/Not ready/)).toHaveCount(0);
  });
