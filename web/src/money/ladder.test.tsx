// @vitest-environment happy-dom
// The ladder as a person meets it: how far the work is, the list in order, what is taken up, and what is told when the answer breaks.
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, fireEvent, render, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, expect, test, vi } from "vitest";

import type { Advice, BuyLine } from "../api/buying";
import type { Plan } from "../api/client";
import type { Table } from "../table/table";
import { TableContext } from "../table/useTable";
import { PLAN, settle } from "../testing/plans";
import { Ladder } from "./Ladder";

afterEach(cleanup);
beforeEach(() => vi.unstubAllGlobals());

const LAMP = { kind: "light", label: "Softbox", mass_kg: 2 };

/** The plan with a lamp on its shelf. */
const bought = (id: string): Plan =>
  ({ ...PLAN, brief: { ...PLAN.brief, gear: { ...PLAN.brief.gear, [id]: LAMP } } }) as Plan;

const item = (id: string, label: string, price: number) => ({
  id,
  label,
  count: 1,
  price,
  used: false,
  price_new: null,
  rent_first: null,
  per_year: 2,
  caution: "",
  reason: "It helps.",
});

const step = (label: string, price: number, spent: number, from: number, to: number) => ({
  label,
  items: [item(label.toLowerCase(), label, price)],
  price,
  spent,
  score_before: from,
  score: to,
  cleared: 0,
  ready: true,
  reason: `${label} helps.`,
  readings: [],
  plan: bought(label.toLowerCase()),
});

const ADVICE = {
  line: "advice",
  sentence: "No free move left; 58 EUR would make it better.",
  budget: 100,
  score_now: 0.5,
  measure_first: [
    { label: "Clap once", reason: "The echo is only assumed.", reading: "sound.room.rt_mid_s" },
  ],
  free_moves: [],
  before: PLAN,
  substitutes: [
    {
      label: "Two duvets over a clothes rack",
      caution: "Well away from lamps.",
      score_before: 0.5,
      score_after: 0.56,
      changes: [],
      plan: bought("duvets"),
    },
  ],
  per_year: 4,
  kit: [item("lavalier", "Lavalier", 18), item("clip", "Clip", 40)],
  path: [step("Lavalier", 18, 18, 0.5, 0.9), step("Clip", 40, 58, 0.9, 0.95)],
  spent: 58,
  score: 0.95,
  ready: true,
  plan: PLAN,
  flat_from: 58,
  curve: [
    { spent: 0, score: 0.5, ready: true },
    { spent: 58, score: 0.95, ready: true },
  ],
  passed_over: [
    { id: "body", label: "Large body", price: 900, rule: "gain", reason: "You would not see it.", gain: 1 },
  ],
  prices: { name: "Own", source: "Own estimates", currency: "EUR", dated: "2026-11" },
} as unknown as Advice & BuyLine;

/** What was sent has come through. */
async function settled() {
  for (let turn = 0; turn < 5; turn += 1) await settle();
}

/** A server that answers line by line, when it is told to. */
function answering() {
  let send: (line: object) => void = () => undefined;
  let end: () => void = () => undefined;
  const left = vi.fn();
  const fetched = vi.fn((asked: string | Request, init?: RequestInit) => {
    if (asked instanceof Request) {
      // The one other question: free moves.
      const none = { score_now: 0.5, moves: [], sentence: "No free move left." };
      return Promise.resolve(Response.json(none));
    }
    init?.signal?.addEventListener("abort", left);
    const body = new ReadableStream<Uint8Array>({
      start(lines) {
        send = (line) => lines.enqueue(new TextEncoder().encode(`${JSON.stringify(line)}\n`));
        end = () => lines.close();
        init?.signal?.addEventListener("abort", () => lines.error(new DOMException("left", "AbortError")));
      },
    });
    return Promise.resolve(new Response(body));
  });
  vi.stubGlobal("fetch", fetched);
  return {
    send: (line: object) => act(async () => (send(line), await settled())),
    end: () => act(async () => (end(), await settled())),
    left,
    asked: () => fetched.mock.calls.filter(([asked]) => asked === "/api/v1/buy").length,
  };
}

async function show() {
  const table = { act: vi.fn(), edit: vi.fn() };
  const queries = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  render(
    <QueryClientProvider client={queries}>
      <TableContext value={table as unknown as Table}>
        <Ladder plan={PLAN} units="metric" />
      </TableContext>
    </QueryClientProvider>,
  );
  await act(settled);
  /** What a click makes of the plan. */
  const made = async () => {
    const [change] = table.act.mock.lastCall as [(plan: Plan) => unknown];
    return (await change(PLAN)) as Plan;
  };
  return { table, made };
}

const section = (name: string) => within(screen.getByRole("region", { name }));

test("tells how far the work is, and what the table says until it is checked", async () => {
  const server = answering();
  await show();
  await server.send({ line: "progress", tried: 1, kits: 0 });
  expect(screen.getByRole("status").textContent).toContain("1 thing laid out in this corner.");
  await server.send({ line: "progress", tried: 230, kits: 2 });
  expect(screen.getByRole("status").textContent).toContain("2 kits taken apart");
  await server.send({ line: "table", kit: [item("lavalier", "Lavalier", 18)], spent: 18 });
  expect(screen.getByRole("status").textContent).toMatch(/being checked.*Lavalier: 18 EUR/);
  await server.send(ADVICE);
  expect(screen.queryByRole("status")).toBeNull();
});

test("is left on demand, and looked for again", async () => {
  const server = answering();
  await show();
  fireEvent.click(screen.getByRole("button", { name: "Stop" }));
  await act(settled);
  expect(server.left).toHaveBeenCalled();
  expect(screen.getByText(/not looked for to the end/)).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Look for it" }));
  await act(settled);
  await server.send(ADVICE);
  expect(server.asked()).toBe(2);
  expect(section("Purchases").getByText("Lavalier")).toBeTruthy();
});

test("lists what to buy in order, with what has been spent by then", async () => {
  const server = answering();
  await show();
  await server.send(ADVICE);
  const rows = section("Purchases").getAllByRole("listitem");
  expect(rows).toHaveLength(2);
  expect(rows[0]?.textContent).toContain("18 EUR");
  expect(rows[0]?.textContent).toContain("50 → 90 of 100");
  expect(rows[0]?.textContent).not.toContain("in all");
  expect(rows[1]?.textContent).toContain("58 EUR in all");
  expect(section("Purchases").getByText(/Together 58 EUR, about 4 EUR for each year/)).toBeTruthy();
  expect(section("Measure first, for nothing").getByText("Clap once")).toBeTruthy();
});

test("takes up what has been bought, and what a home has", async () => {
  const server = answering();
  const { made } = await show();
  await server.send(ADVICE);
  // One step at a time: only what comes first can be bought.
  fireEvent.click(section("Purchases").getByRole("button", { name: "I have bought it" }));
  const gear = (await made()).brief.gear?.lavalier;
  expect(gear).toMatchObject({ label: "Softbox", bought: { price: 18 } });
  const home = section("What you may have at home");
  expect(home.getByText("Well away from lamps.")).toBeTruthy();
  fireEvent.click(home.getByRole("button", { name: "I have it" }));
  expect((await made()).brief.gear).toHaveProperty("duvets");
});

test("names what is not bought only when it is asked", async () => {
  const server = answering();
  await show();
  await server.send(ADVICE);
  expect(screen.queryByText("You would not see it.")).toBeNull();
  const passed = screen.getByText("Not bought, and why (1 thing)").closest("details");
  if (!passed) throw new Error("there is no list");
  passed.open = true;
  fireEvent(passed, new Event("toggle"));
  expect(screen.getByText("You would not see it.")).toBeTruthy();
});

test("an answer that breaks off is told, and asked for again", async () => {
  const server = answering();
  await show();
  await server.send({ line: "progress", tried: 3, kits: 0 });
  await server.end();
  const again = await screen.findByRole("button", { name: /again/i });
  fireEvent.click(again);
  await act(settled);
  await server.send(ADVICE);
  expect(section("Purchases").getByText("Clip")).toBeTruthy();
});
