// Good hours by local days, and bearings of walls, as a person reads them.
import { expect, test } from "vitest";

import type { Schemas } from "../api/client";
import { dateAfter, today } from "./asked";
import { byDay } from "./week";
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
  expect(days[0]?.label).toMatch(/Sat/);
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
