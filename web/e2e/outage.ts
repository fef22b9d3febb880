// Two pages on one corner for a while of random edits; the wire of each is cut and given back, the server killed and started,
// pages are closed and opened. Nothing that was typed or acknowledged is lost, unless a question about it was answered.
// FOGON_BIN is the program, FOGON_OUTAGE_S how long, FOGON_SEED where the dice begin.
import { spawn, type ChildProcess } from "node:child_process";
import { mkdtempSync, readFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";

import { expect, test, type BrowserContext, type Page } from "@playwright/test";

import { changedPlan, stored, wav } from "./help";

const PORT = Number(process.env.FOGON_OUTAGE_PORT ?? 4288);
const URL = `http://127.0.0.1:${String(PORT)}`;
const SECONDS = Number(process.env.FOGON_OUTAGE_S ?? 30);
const SEED = Number(process.env.FOGON_SEED ?? 1);

test.use({ baseURL: URL });

/** Numbers from 0 to 1 that come the same for a seed (mulberry32). */
function dice(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let t = Math.imul(state ^ (state >>> 15), 1 | state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** The server, killed without a word and started again on the same database. */
class Server {
  #process: ChildProcess | null = null;
  readonly #database = join(mkdtempSync(join(tmpdir(), "fogon-outage-")), "corners.sqlite3");

  get isUp(): boolean {
    return this.#process !== null;
  }

  /** Starts it; the address that lets a browser in. */
  async start(more: string[] = []): Promise<string> {
    const program = process.env.FOGON_BIN;
    if (!program) throw new Error("FOGON_BIN is not set");
    const args = ["demo", "--port", String(PORT), "--database", this.#database, ...more];
    const running = spawn(program, args, { stdio: ["ignore", "pipe", "ignore"] });
    this.#process = running;
    const said = await new Promise<string>((tell) =>
      running.stdout.once("data", (words: Buffer) => tell(words.toString())),
    );
    const address = /http:\S+/.exec(said)?.[0];
    if (address === undefined) throw new Error(said);
    return address;
  }

  async kill(): Promise<void> {
    const running = this.#process;
    this.#process = null;
    if (!running) return;
    const gone = new Promise((done) => running.once("exit", done));
    running.kill("SIGKILL");
    await gone;
  }
}

/** The two figures that are typed: each page has its own, so that it is known whose was lost. */
const FIELDS = ["ISO", "White balance"] as const;
type Field = (typeof FIELDS)[number];

interface Camera {
  iso: number;
  white_balance_k: number;
}
const valueOf = (camera: Camera, field: Field) => (field === "ISO" ? camera.iso : camera.white_balance_k);

interface Hand {
  page: Page;
  field: Field;
  /** What was typed last, unless a question about it has been answered since. */
  typed: number | null;
  cut: boolean;
}

const box = ({ page, field }: Hand) => page.getByRole("textbox", { name: new RegExp(`^${field}`) });

async function opened(context: BrowserContext, place: string, field: Field): Promise<Hand> {
  const page = await context.newPage();
  const hand: Hand = { page, field, typed: null, cut: false };
  await page.goto(place);
  await expect(box(hand)).toBeVisible();
  return hand;
}

const cutOff = (page: Page) => page.route("**/api/**", (route) => route.abort());

test("what a closed page left is asked about on all pages, and answered once", async ({ context }) => {
  const server = new Server();
  const address = await server.start();
  try {
    const first = await context.newPage();
    await first.goto(address);
    await expect(first).toHaveURL(`${URL}/`);
    const id = await changedPlan(first, "Left behind", () => undefined);
    await first.close();
    const place = `/corners/${String(id)}/shot/by-hand`;
    const leaves = await opened(context, place, "ISO");
    const stays = await opened(context, place, "White balance");
    await cutOff(leaves.page);
    await box(leaves).fill("320");
    await box(leaves).press("Enter");
    await box(stays).fill("4321");
    await box(stays).press("Enter");
    await expect(stays.page.getByRole("banner").getByText("saved", { exact: true })).toBeVisible();
    await leaves.page.close();
    await expect(stays.page.getByRole("alert")).toContainText("Your changes of");
    const next = await opened(context, place, "White balance");
    await next.page.getByRole("alert").getByRole("button", { name: "Take theirs" }).click();
    for (const { page } of [next, stays]) await expect(page.getByRole("alert")).toHaveCount(0);
    await expect(box(stays)).toHaveValue("4321");
  } finally {
    await server.kill();
  }
});

test("nothing typed is lost without a question", async ({ context }) => {
  test.setTimeout((SECONDS + 600) * 1000);
  const random = dice(SEED);
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)] as T;
  const server = new Server();
  const address = await server.start();
  try {
    const first = await context.newPage();
    // Let in once: the cookie is good for every start on this file.
    await first.goto(address);
    await expect(first).toHaveURL(`${URL}/`);
    const id = await changedPlan(first, "Two pages", () => undefined);
    await first.close();
    const place = `/corners/${String(id)}/shot/by-hand`;
    const hands: [Hand, Hand] = [
      await opened(context, place, FIELDS[0]),
      await opened(context, place, FIELDS[1]),
    ];
    const counts = { edits: 0, acknowledged: 0, questions: 0, cuts: 0, kills: 0, closed: 0 };
    /** What was done, told where something is lost. */
    const steps: string[] = [];
    const acknowledged = new Map<string, number>();
    let next = 100;

    const edit = async (hand: Hand) => {
      next += 1;
      // Within what the camera takes; each value comes once.
      const value = hand.field === "ISO" ? 100 + next : 2500 + next;
      await box(hand).fill(String(value));
      await box(hand).press("Enter");
      hand.typed = value;
      counts.edits += 1;
      steps.push(`${hand.field}: types ${String(value)}`);
    };
    /**
     * Answers a question, if one is asked; whose words are given up by that is no longer expected. What a page that was closed left
     * behind is asked about on any page, and holds a plan in which either figure can be older.
     */
    const answer = async (hand: Hand): Promise<boolean> => {
      const other = hand === hands[0] ? hands[1] : hands[0];
      const asks = hand.page.getByRole("alert");
      const mine = asks.getByRole("button", { name: /^(Keep mine|Put them on the table)$/ });
      const theirs = asks.getByRole("button", { name: /^(Take theirs|Discard them)$/ });
      if ((await mine.count()) === 0) return false;
      const question = asks.filter({ has: hand.page.getByRole("button", { name: /mine|table/ }) }).first();
      const words = await question.innerText({ timeout: 2_000 }).catch(() => "");
      const keep = random() < 0.5;
      const button = (keep ? mine : theirs).first();
      // It may be withdrawn while it is read.
      await button.click({ timeout: 2_000 }).catch(() => undefined);
      const given = words.startsWith("Another window") ? [keep ? other : hand] : hands;
      for (const one of given) one.typed = null;
      counts.questions += 1;
      steps.push(`${hand.field}: ${words.split("\n")[0] ?? ""} ${keep ? "mine" : "theirs"}`);
      return true;
    };
    const cut = async (hand: Hand) => {
      hand.cut = !hand.cut;
      if (hand.cut) await cutOff(hand.page);
      else await hand.page.unroute("**/api/**");
      counts.cuts += Number(hand.cut);
      steps.push(`${hand.field}: ${hand.cut ? "cut" : "joined"}`);
    };
    const reopen = async (hand: Hand, all: BrowserContext) => {
      await hand.page.close();
      hand.cut = false;
      hand.page = await all.newPage();
      await hand.page.goto(place);
      await expect(
        box(hand)
          .or(hand.page.getByRole("button", { name: /Try again/ }))
          .first(),
      ).toBeVisible();
      counts.closed += 1;
      steps.push(`${hand.field}: closed and opened`);
    };
    /** What the page calls saved is noted: it has to be in the history at the end. */
    const note = async (hand: Hand) => {
      const saved = await hand.page.getByRole("banner").getByText("saved", { exact: true }).count();
      if (saved > 0 && hand.typed !== null && (await box(hand).inputValue()) === String(hand.typed))
        acknowledged.set(`${hand.field} ${String(hand.typed)}`, hand.typed);
    };

    const until = Date.now() + SECONDS * 1000;
    while (Date.now() < until) {
      const hand = pick(hands);
      const throws = random();
      if (await answer(hand)) continue;
      if (throws < 0.55) await edit(hand);
      else if (throws < 0.66) await cut(hand);
      else if (throws < 0.71) {
        if (server.isUp) {
          await server.kill();
          counts.kills += 1;
        } else await server.start();
        steps.push(server.isUp ? "the server is up" : "the server is down");
      } else if (throws < 0.76 && server.isUp) await reopen(hand, context);
      else {
        // A rest, long enough for a save to come back, or not.
        await hand.page.waitForTimeout(200 + 1000 * random());
        await note(hand);
      }
    }

    // All is well again: whatever waits is sent or asked about.
    if (!server.isUp) await server.start();
    for (const hand of hands) if (hand.cut) await cut(hand);
    for (const hand of hands)
      await expect(async () => {
        for (const one of hands) await answer(one);
        await expect(hand.page.getByRole("banner").getByText("saved", { exact: true })).toBeVisible({
          timeout: 1_000,
        });
        await expect(hand.page.getByRole("alert")).toHaveCount(0, { timeout: 1_000 });
      }).toPass();
    for (const hand of hands) await hand.page.reload();
    for (const hand of hands) {
      const { layout } = await stored<{ layout: { camera: Camera } }>(hand.page, id);
      const kept = valueOf(layout.camera, hand.field);
      // Both pages show what is saved, and what was typed last is that, unless a question gave it up.
      for (const one of hands) await expect(box({ ...one, field: hand.field })).toHaveValue(String(kept));
      if (hand.typed !== null) expect(kept, [...steps, hand.field].join("\n")).toBe(hand.typed);
    }
    const revisions: { revision: number }[] = [];
    for (let before = ""; ; before = `?before=${String(revisions.at(-1)?.revision)}`) {
      const listed = await hands[0].page.request.get(`/api/v1/corners/${String(id)}/revisions${before}`);
      const older = (await listed.json()) as { revision: number }[];
      if (older.length === 0) break;
      revisions.push(...older);
    }
    const history = new Set<string>();
    for (const { revision } of revisions) {
      const plan = (await (
        await hands[0].page.request.get(`/api/v1/corners/${String(id)}/revisions/${String(revision)}`)
      ).json()) as { layout?: { camera: Camera } };
      const { camera } = plan.layout ?? {};
      if (camera) for (const field of FIELDS) history.add(`${field} ${String(valueOf(camera, field))}`);
    }
    const missing = [...acknowledged.keys()].filter((one) => !history.has(one));
    expect(missing, "acknowledged and not in the history").toEqual([]);
    counts.acknowledged = acknowledged.size;
    console.log(`seed ${String(SEED)}, ${String(SECONDS)} s: ${JSON.stringify(counts)}`);
    expect(counts.edits).toBeGreaterThan(0);
  } finally {
    await server.kill();
  }
});

test("a full disk is said with the file as a way out; with room again it is saved", async ({
  page,
  context,
}) => {
  const server = new Server();
  try {
    await page.goto(await server.start(["--most-mb", "1"]));
    const id = await changedPlan(page, "On a full disk", () => undefined);
    await page.goto(`/corners/${String(id)}/shot/by-hand`);
    const iso = page.getByRole("textbox", { name: /^ISO/ });
    await expect(iso).toBeVisible();
    // Filled with what is recorded: a file of sound that does not become smaller, as large as still fits.
    const room = async (bytes: number) =>
      (await context.request.put("/api/v1/voice", { data: noise(bytes) })).status();
    let bytes = 1_000_000;
    while ((await room(bytes)) !== 200) bytes -= 20_000;
    let number = 0;
    while (
      (await context.request.post("/api/v1/corners", { data: await plan(page, id, (number += 1)) })).ok()
    );
    await iso.fill("321");
    await iso.press("Enter");
    const banner = page.getByRole("alert").filter({ hasText: "The disk is full" });
    await expect(banner).toBeVisible();
    const file = page.waitForEvent("download");
    await banner.getByRole("button", { name: "Save this corner as a file" }).click();
    const handed = JSON.parse(readFileSync(await (await file).path(), "utf8")) as {
      layout: { camera: Camera };
    };
    expect(handed.layout.camera.iso).toBe(321);
    await context.request.delete("/api/v1/voice");
    await expect(banner).toHaveCount(0);
    await expect(page.getByRole("banner").getByText("saved", { exact: true })).toBeVisible();
    expect((await stored<{ layout: { camera: Camera } }>(page, id)).layout.camera.iso).toBe(321);
  } finally {
    await server.kill();
  }
});

/** Noise as a recording of so many bytes. */
function noise(bytes: number): Buffer {
  const random = dice(7);
  return wav((bytes - 44) / 2, () => (random() - 0.5) * 20_000);
}

/** The plan of a corner under another name, with another figure. */
async function plan(page: Page, id: number, number: number): Promise<unknown> {
  const file = (await (await page.request.get(`/api/v1/corners/${String(id)}/file`)).json()) as {
    name: string;
    brief: { person: { stature_m: number } };
  };
  file.name = `Filled ${String(number)}`;
  file.brief.person.stature_m = 1.5 + number / 1000;
  return file;
}
