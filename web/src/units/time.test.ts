import { expect, test } from "vitest";

import { clock, lasting, spent } from "./time";

test("times are told as people tell them", () => {
  expect([spent(45), spent(120), spent(185.4)]).toEqual(["45 s", "2 min", "3 min 5 s"]);
  expect([clock(5), clock(185), clock(3727)]).toEqual(["0:05", "3:05", "1:02:07"]);
  expect([lasting(45), lasting(500), lasting(9000)]).toEqual(["45 s", "8 min", "2.5 h"]);
});
