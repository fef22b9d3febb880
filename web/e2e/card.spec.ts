// The printed card, measured: whatever the corner, no words are cut or lie over others, and a sheet that is full goes on to another
// with its own title. And every file that leaves is opened by somebody else's reader.
import { expect, test, type Page } from "@playwright/test";
import DxfParser, { type ILwpolylineEntity } from "dxf-parser";

import { AGAIN, demoPlan, keep, open } from "./help";
import { anyCorner } from "./random";

/** Pixels of a millimetre as browsers print, and what the page keeps free on each side. */
const [MM_PX, MARGIN_MM] = [96 / 25.4, 9];
const PAPERS = { a4: [210, 297], letter: [215.9, 279.4] } as const;

interface Measured {
  /** Heights of the sheets, px. */
  sheets: number[];
  titles: string[];
  /** Words that are cut or lie over others. */
  wrong: string[];
}

/** Looks at every line of words of the page that is shown as it prints. */
function measured(): Measured {
  const wrong: string[] = [];
  const main = document.querySelector("main");
  if (!main) return { sheets: [], titles: [], wrong: ["there is no card"] };
  const breaks = [...main.querySelectorAll<HTMLElement>(".sheet")].map((one) => one.offsetTop);
  const edges = [0, ...breaks, main.scrollHeight];
  const sheets = edges.slice(1).map((edge, index) => edge - (edges[index] ?? 0));
  const titles = [...main.querySelectorAll("h1")].map((one) => one.textContent);
  const wide = document.documentElement.clientWidth;
  const lines: { box: DOMRect; words: string; of: Node }[] = [];
  const walk = document.createTreeWalker(main, NodeFilter.SHOW_TEXT);
  for (let node = walk.nextNode(); node; node = walk.nextNode()) {
    const words = node.textContent?.trim() ?? "";
    if (words === "" || node.parentElement?.closest("svg, style")) continue;
    const range = document.createRange();
    range.selectNodeContents(node);
    for (const box of range.getClientRects()) {
      if (box.width === 0) continue;
      if (box.left < -0.5 || box.right > wide + 0.5) wrong.push(`cut: ${words}`);
      lines.push({ box, words, of: node });
    }
  }
  lines.sort((a, b) => a.box.top - b.box.top);
  lines.forEach((one, index) => {
    for (const other of lines.slice(index + 1)) {
      if (other.box.top > one.box.bottom) break;
      const down = Math.min(one.box.bottom, other.box.bottom) - Math.max(one.box.top, other.box.top);
      const across = Math.min(one.box.right, other.box.right) - Math.max(one.box.left, other.box.left);
      // Lines of one paragraph are set closer than their letters' boxes are high.
      if (one.of !== other.of && across > 1 && down > 4) wrong.push(`${one.words} over ${other.words}`);
    }
  });
  for (const drawing of main.querySelectorAll("svg[role=img]"))
    for (const word of drawing.querySelectorAll("text")) {
      const [box, around] = [word.getBoundingClientRect(), drawing.getBoundingClientRect()];
      const beyond = Math.max(around.left - box.left, box.right - around.right);
      if (beyond > 2) wrong.push(`cut in the drawing: ${word.textContent}`);
    }
  return { sheets, titles, wrong };
}

/** Looks at every line of words of the further pages: inside its sheet, and over no other. */
function further(): string[] {
  const wrong: string[] = [];
  for (const sheet of document.querySelectorAll("section.further svg")) {
    const around = sheet.getBoundingClientRect();
    // Words of a drawing have no weight of their own.
    const words = [...sheet.querySelectorAll("text[font-weight]:not([text-anchor])")];
    const lines = words.map((word) => ({ box: word.getBoundingClientRect(), words: word.textContent }));
    lines.forEach(({ box, words }, index) => {
      if (box.left < around.left || box.right > around.right || box.bottom > around.bottom)
        wrong.push(`cut: ${words}`);
      for (const other of lines.slice(index + 1)) {
        const down = Math.min(box.bottom, other.box.bottom) - Math.max(box.top, other.box.top);
        const across = Math.min(box.right, other.box.right) - Math.max(box.left, other.box.left);
        if (across > 1 && down > 0.45 * Math.min(box.height, other.box.height))
          wrong.push(`${words} over ${other.words}`);
      }
    });
  }
  return wrong;
}

async function look(
  page: Page,
  id: number,
  paper: keyof typeof PAPERS,
): Promise<Measured & { high: number }> {
  const [width, height] = PAPERS[paper].map((mm) => (mm - 2 * MARGIN_MM) * MM_PX) as [number, number];
  await page.setViewportSize({ width: Math.floor(width), height: 900 });
  await page.goto(`/api/v1/corners/${String(id)}/card/html?paper=${paper}&picture=lines`);
  await page.evaluate(() => document.fonts.ready);
  return { ...(await page.evaluate(measured)), high: height };
}

/** How many are looked at: `FOGON_CORNERS=300` for a long look. */
const CORNERS = Number(process.env.FOGON_CORNERS ?? 6);

test(`${String(CORNERS)} corners at random: no words are cut or lie over others`, async ({ page }) => {
  test.setTimeout(20_000 * CORNERS);
  const demo = await demoPlan(page);
  await page.emulateMedia({ media: "print" });
  let more = 0;
  for (let seed = 0; seed < CORNERS; seed++) {
    const paper = seed % 2 === 0 ? "a4" : "letter";
    const id = await keep(page, anyCorner(demo, seed));
    const { sheets, titles, wrong, high } = await look(page, id, paper);
    expect(wrong, `corner ${String(seed)}`).toEqual([]);
    for (const sheet of sheets) expect(sheet, `corner ${String(seed)} on ${paper}`).toBeLessThanOrEqual(high);
    expect(titles).toHaveLength(sheets.length);
    more += sheets.length - 1;
    if (seed % 25 === 0) {
      const pdf = (await page.pdf({ preferCSSPageSize: true })).toString("latin1");
      expect(pdf.match(/\/Type\s*\/Page[^s]/g), `corner ${String(seed)}`).toHaveLength(sheets.length);
    }
    if (seed % 6 === 0) {
      await page.goto(`/api/v1/corners/${String(id)}/card/all.html?paper=${paper}&picture=lines`);
      expect(await page.evaluate(further), `further pages of corner ${String(seed)}`).toEqual([]);
    }
    await page.request.delete(`/api/v1/corners/${String(id)}`, AGAIN);
  }
  // Some go on to another sheet, and most do not.
  expect(more).toBeGreaterThan(CORNERS / 30);
  expect(more).toBeLessThan(CORNERS);
});

test("all pages print, each on its own sheet", async ({ page }) => {
  const id = await open(page, "All its pages");
  await page.goto(`/api/v1/corners/${String(id)}/card/all.html?picture=lines`);
  const sheets = await page.locator("section.further").count();
  expect(sheets).toBeGreaterThanOrEqual(3);
  await expect(page.getByText("Recording", { exact: true })).toBeVisible();
  const pdf = (await page.pdf({ preferCSSPageSize: true })).toString("latin1");
  expect(pdf.match(/\/Type\s*\/Page[^s]/g)).toHaveLength(1 + sheets);
});

test("drawings open elsewhere, as large as the room", async ({ page }) => {
  const plan = (await demoPlan(page)) as unknown as { brief: { room: { floor_m: [number, number][] } } };
  const id = await open(page, "For other programs");
  const file = async (format: string) =>
    (await page.request.get(`/api/v1/corners/${String(id)}/card/${format}`)).text();
  const drawing = new DxfParser().parseSync(await file("dxf"));
  if (!drawing) throw new Error("it is a drawing");
  // 4 is millimetres.
  expect(drawing.header.$INSUNITS).toBe(4);
  const layers = Object.keys(drawing.tables.layer.layers);
  for (const layer of ["plan-wall", "plan-furniture", "plan-camera", "side-person", "plan-words"])
    expect(layers).toContain(layer);
  const lines = drawing.entities.filter((one): one is ILwpolylineEntity => one.type === "LWPOLYLINE");
  const floor = lines.find((one) => one.layer === "plan-floor");
  const spanOf = (of: readonly number[]) => Math.round(Math.max(...of) - Math.min(...of));
  const bySize = (spans: number[]) => spans.sort((a, b) => a - b);
  const spans = [
    spanOf(floor?.vertices.map((p) => p.x) ?? []),
    spanOf(floor?.vertices.map((p) => p.y) ?? []),
  ];
  const wide = bySize(
    [0, 1].map((axis) => spanOf(plan.brief.room.floor_m.map((p) => 1000 * (p[axis] ?? 0)))),
  );
  expect(bySize(spans)).toEqual(wide);
  // The SVG has the same sizes, in layers.
  const read = await page.evaluate(
    (text) => {
      const root = new DOMParser().parseFromString(text, "image/svg+xml").documentElement;
      const points = root.querySelector("#floor polygon")?.getAttribute("points") ?? "";
      return {
        unit: root.getAttribute("width")?.slice(-2),
        layers: [...root.querySelectorAll("g")].map((layer) => layer.id),
        points: points.split(" ").map((point) => point.split(",").map(Number)),
      };
    },
    await file("plan.svg"),
  );
  expect(read.unit).toBe("mm");
  expect(read.layers).toContain("wall");
  expect(bySize([0, 1].map((axis) => spanOf(read.points.map((p) => p[axis] ?? 0))))).toEqual(wide);
  const marks = JSON.parse(await file("marks.json")) as { marks: { letter: string; at_m: number[] }[] };
  expect(marks.marks.map((mark) => mark.letter)).toContain("S");
});
