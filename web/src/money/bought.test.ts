// What has been bought is on the shelf with its day and what one cost.
import { describe, expect, it } from "vitest";

import type { Plan, Schemas } from "../api/client";
import { dayOf, withMeans, withPurchase } from "./bought";

describe("a purchase", () => {
  it("goes onto the shelf, and the corner is as it was laid out with it", () => {
    const stand = { kind: "support", label: "Stand", count: 2 };
    const plan = { brief: { gear: { lamp: { label: "Lamp" } } }, layout: { lights: {} } } as unknown as Plan;
    const after = {
      brief: { gear: { lamp: { label: "Lamp" }, stand } },
      layout: { lights: { key: {} } },
    } as unknown as Plan;
    const step = {
      items: [{ id: "stand", count: 2, price: 44 }],
      plan: after,
    } as unknown as Schemas["PathStep"];
    const done = withPurchase(plan, step, new Date(2026, 2, 7));
    expect(done.brief.gear?.stand).toEqual({ ...stand, bought: { date: "2026-03-07", price: 22 } });
    expect(Object.keys(done.brief.gear ?? {})).toEqual(["lamp", "stand"]);
    expect(done.layout).toBe(after.layout);
  });
  it("that is none: what a home has goes onto the shelf beside what is there", () => {
    const plan = { brief: { gear: { lamp: {} }, units: "metric" }, layout: {} } as unknown as Plan;
    const means = { plan: { brief: { gear: { duvet: {} } }, layout: { treatment: { duvet: {} } } } };
    const done = withMeans(plan, means as unknown as Schemas["Substitute"]);
    expect(Object.keys(done.brief.gear ?? {})).toEqual(["lamp", "duvet"]);
    expect(done.brief.units).toBe("metric");
    expect(done.layout).toBe(means.plan.layout);
  });
  it("writes days with their zeros", () => {
    expect(dayOf(new Date(2026, 10, 28))).toBe("2026-11-28");
  });
});
