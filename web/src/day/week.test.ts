// Good hours by local days, and bearings of walls, as a person reads them.
import { expect, test } from "vitest";

import type { Schemas } from "../api/client";
import { dateAfter, today } from "./asked";
import { byDay, longestSlot, nextSlot, slotWords } from "./week";
import { duration, stops } from "./words";
import { bearingOfWall, northFor } from "./windows";

const stretch = (start: string, end: string, wanted = true): Schemas["Interval"] => ({
  start,
  end,
  wanted,
  light: wanted,
  quiet: true,
});

test("sorts stretches by local days, over midnight and over the change of the clock", () => {
  const all = [
    // Madrid is an hour ahead in winter: 22:30 to 01:15 there.
    stretch("2026-10-24T20:30:00Z", "2026-10-24T23:15:00Z"),
    stretch("2026-10-24T23:15:00Z", "2026-10-25T08:00:00Z", false),
    // After the clock went back.
    stretch("2026-10-25T08:00:00Z", "2026-10-25T10:00:00Z"),
    stretch("2026-10-25T21:00:00Z", "2026-10-25T23:00:00Z"),
  ];
  const days = byDay(all, "Europe/Madrid", "2026-10-24", 3);
  expect(days.map(({ stretches }) => stretches)).toEqual([
    ["22:30–24:00"],
    ["00:00–01:15", "09:00–11:00", "22:00–24:00"],
    [],
  ]);
  expect(days[0]?.label).toBe("Sat 24 Oct");
});

test("the next slot is what is left of a stretch, and no sliver", () => {
  const all = [
    stretch("2026-11-28T08:00:00Z", "2026-11-28T08:20:00Z"),
    stretch("2026-11-28T08:20:00Z", "2026-11-28T09:00:00Z", false),
    stretch("2026-11-28T09:00:00Z", "2026-11-28T10:30:00Z"),
    stretch("2026-11-29T09:00:00Z", "2026-11-29T12:00:00Z"),
    stretch("2026-11-30T09:00:00Z", "2026-11-30T12:00:00Z"),
  ];
  const at = (clock: string) => nextSlot(all, new Date(`2026-11-28T${clock}:00Z`));
  // Twenty minutes are no time for a take.
  expect(at("07:00")?.start).toBe("2026-11-28T09:00:00Z");
  expect(at("09:30")?.minutes).toBe(60);
  // Less than half an hour is left of it.
  expect(at("10:15")?.start).toBe("2026-11-29T09:00:00Z");
  expect(nextSlot(all, new Date("2026-12-01T00:00:00Z"))).toBeNull();
  const longest = longestSlot(all);
  expect(longest?.start).toBe("2026-11-29T09:00:00Z");
  expect(longest && slotWords(longest, "Europe/Madrid")).toBe("Sun 29 Nov 10:00–13:00");
  expect(longestSlot([])).toBeNull();
  const night = { start: "2026-11-28T22:00:00Z", end: "2026-11-29T01:00:00Z", minutes: 180 };
  expect(slotWords(night, "Europe/Madrid")).toBe("Sat 28 Nov 23:00–Sun 29 Nov 02:00");
});

test("minutes and stops as they are read", () => {
  expect([0, 45, 60, 155].map(duration)).toEqual(["0 min", "45 min", "1 h", "2 h 35 min"]);
  expect([0.02, 1.24, -2.5].map(stops)).toEqual(["0", "+1.2", "−2.5"]);
});

test("counts dates over months and leap days", () => {
  expect(dateAfter("2028-02-28", 1)).toBe("2028-02-29");
  expect(dateAfter("2026-12-29", 6)).toBe("2027-01-04");
  expect(today(new Date(2026, 0, 5, 23, 59))).toBe("2026-01-05");
});

test("a wall looks where north leaves it", () => {
  // Back, right, front, left wall of a room 3 by 4 m.
  const floor = [
    [0, 0],
    [3, 0],
    [3, 4],
    [0, 4],
  ];
  // North straight away from the back wall: the back wall looks south.
  expect([0, 1, 2, 3].map((wall) => bearingOfWall(floor, wall, 0))).toEqual([180, 90, 0, 270]);
  for (const wall of [0, 1, 2, 3])
    for (const bearing of [0, 45, 200, 359])
      expect(bearingOfWall(floor, wall, northFor(floor, wall, bearing))).toBe(bearing);
});
