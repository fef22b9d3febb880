// @vitest-environment happy-dom
// The day as a person meets it: ways to use the window with what comes of each, the hour by the slider, the bearing by the sun.
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act, cleanup, fireEvent, render, screen } from "@testing-library/react";
import { afterEach, expect, test, vi } from "vitest";

import { api, type Plan, type Schemas } from "../api/client";
import { SunlightContext, type Looked } from "../drawing/sunlight";
import type { Table } from "../table/table";
import { TableContext } from "../table/useTable";
import { PLAN } from "../testing/plans";
import { BearingBoxes } from "./BearingBoxes";
import { HourByHour } from "./HourByHour";
import { Ways } from "./Ways";
import { bearingOfWall } from "./windows";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

/** A table that keeps what becomes of the plan. */
function tableOf(plan: Plan): { table: Table; now: () => Plan } {
  let now = plan;
  const edit = (change: (plan: Plan) => Plan) => {
    now = change(now);
    return Promise.resolve();
  };
  return { table: { act: edit, edit } as unknown as Table, now: () => now };
}

function shown(part: React.ReactNode, table: Table, look: (at: Looked | null) => void = () => undefined) {
  return render(
    <QueryClientProvider client={new QueryClient()}>
      <TableContext value={table}>
        <SunlightContext value={{ looked: null, look }}>{part}</SunlightContext>
      </TableContext>
    </QueryClientProvider>,
  );
}

const WAYS: Schemas["Way"][] = [
  {
    way: "cover",
    is_now: true,
    good_min: 1440,
    longest: { from: "00:00", to: "24:00" },
    says: "The lamps alone.",
  },
  {
    way: "key",
    is_now: false,
    good_min: 375,
    longest: { from: "08:25", to: "12:10" },
    says: "From the right.",
  },
  { way: "white-curtain", is_now: false, good_min: 0, longest: null, says: "Softer." },
  { way: "fill", is_now: false, good_min: 90, longest: { from: "10:00", to: "11:30" }, says: "Beside." },
];

test("each way is told with its good hours, and picking one changes school and curtain", () => {
  const { table, now } = tableOf(PLAN);
  shown(<Ways plan={PLAN} ways={WAYS} />, table);
  expect(screen.getByText("good at every hour")).toBeTruthy();
  expect(screen.getByText("good for 6 h 15 min, longest 08:25–12:10")).toBeTruthy();
  expect(screen.getByText("no good hour on this day")).toBeTruthy();
  expect(screen.getByText(/good for 1 h 30 min, longest 10:00–11:30. Beside./)).toBeTruthy();
  fireEvent.click(screen.getByRole("radio", { name: /white curtain/ }));
  expect(now().brief.schools?.window).toBe("key");
  expect(now().brief.room.openings?.window?.curtain).toBe("white");
  expect(now().brief.room.openings?.door).toEqual(PLAN.brief.room.openings?.door);
  fireEvent.click(screen.getByRole("radio", { name: /Use the window/ }));
  expect(now().brief.room.openings?.window?.curtain).toBeNull();
  // From the window as the key, back behind a covered one.
  cleanup();
  const used = { ...PLAN, brief: { ...PLAN.brief, schools: { window: "key" as const } } };
  const other = tableOf(used);
  shown(<Ways plan={used} ways={undefined} />, other.table);
  fireEvent.click(screen.getByRole("radio", { name: /Cover/ }));
  expect(other.now().brief.schools?.window).toBe("shut-out");
});

const light = (face_lx: number): Schemas["WindowLight"] => ({
  face_lx,
  background_lx: face_lx / 2,
  azimuth_deg: -42,
  ratio: 2.9,
  cct_k: 6480,
});

const moment = (clock: string, clear: number, patches: Schemas["SunPatch"][]): Schemas["CourseMoment"] => ({
  clock,
  utc: `2026-11-28T${clock}:00Z`,
  sun_azimuth_deg: 181,
  sun_elevation_deg: clear > 0 ? 27 : -20,
  clear: light(clear),
  overcast: light(clear / 4),
  spoils: [],
  patches,
});

const COURSE: Schemas["Course"] = {
  date: "2026-11-28",
  zone: "Europe/Madrid, UTC+01:00",
  golden: [],
  lamps_lx: 500,
  needed_lx: 100,
  windows_wanted: true,
  moments: [
    moment("02:00", 0, []),
    moment("12:00", 800, [{ on: "floor", outline_m: [[0, 0, 0]] }]),
    moment("13:00", 1600, []),
  ],
  hours: [],
  sentences: [],
  ways: [],
};

test("the hour is looked at under the sky that is chosen", () => {
  const seen: (Looked | null)[] = [];
  const { table } = tableOf(PLAN);
  const page = shown(<HourByHour course={COURSE} plan={PLAN} />, table, (at) => seen.push(at));
  expect(seen.at(-1)).toMatchObject({
    lies: [[[0, 0, 0]]],
    hour: { utc: "2026-11-28T12:00:00Z", sky: "clear" },
    words: "12:00, clear sky, window uncovered",
  });
  expect(screen.getByRole("status").textContent).toBe("Sun 27° high in the south. The light holds.");
  expect(screen.getByRole("row", { name: /Over what the picture needs/ }).textContent).toContain(
    "+3.0 stops+1.0 stops",
  );
  expect(screen.getByRole("row", { name: /Comes from/ }).textContent).toContain("42° camera left");
  // No sun lies anywhere under cloud.
  fireEvent.click(screen.getByRole("radio", { name: "Grey" }));
  expect(seen.at(-1)).toMatchObject({ lies: [], hour: { sky: "overcast" } });
  fireEvent.keyDown(screen.getByRole("slider", { name: "Time of day" }), { key: "Home" });
  expect(screen.getByRole("status").textContent).toBe("It is night.");
  page.unmount();
  expect(seen.at(-1)).toBeNull();
});

test("a bearing is found by the sun, and kept with its error", async () => {
  const place = { latitude_deg: 40, longitude_deg: -4, time_zone: "Europe/Madrid" };
  const plan = { ...PLAN, brief: { ...PLAN.brief, place } };
  const { table, now } = tableOf(plan);
  const asked = vi.spyOn(api, "sun").mockResolvedValue({ azimuth_deg: 221.4, elevation_deg: 20 });
  shown(<BearingBoxes plan={plan} />, table);
  fireEvent.change(screen.getByLabelText("Found by"), { target: { value: "sun" } });
  fireEvent.change(screen.getByLabelText("You saw the sun at"), { target: { value: "2026-11-28T15:00" } });
  await act(async () => {
    fireEvent.click(screen.getByRole("button", { name: "Take the bearing" }));
    await Promise.resolve();
  });
  expect(asked).toHaveBeenCalledWith({ place, local: "2026-11-28T15:00" });
  expect(screen.getByRole("status").textContent).toBe("The sun stood at 221°: the window looks to 221°.");
  const { floor_m, north_deg, north_within_deg } = now().brief.room;
  expect(bearingOfWall(floor_m, 3, north_deg ?? 0)).toBe(221);
  expect(north_within_deg).toBe(5);
  asked.mockResolvedValue({ azimuth_deg: 300, elevation_deg: -4 });
  await act(async () => {
    fireEvent.click(screen.getByRole("button", { name: "Take the bearing" }));
    await Promise.resolve();
  });
  expect(screen.getByRole("status").textContent).toBe("The sun is not up then.");
});
