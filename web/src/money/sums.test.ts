// The budget slider keeps to its steps.
import { describe, expect, it } from "vitest";

import { BUDGETS, budgetStep, sum } from "./sums";

describe("sums", () => {
  it("every step of the slider is its own nearest", () => {
    expect(BUDGETS.map(budgetStep)).toEqual(BUDGETS.map((_, at) => at));
    expect([budgetStep(1e6), budgetStep(110), budgetStep(-0)]).toEqual([BUDGETS.length - 1, 4, 0]);
  });
  it("are told with their currency, if there is one", () => {
    expect([sum(39.6, "EUR"), sum(0, "")]).toEqual(["40 EUR", "0"]);
  });
});
