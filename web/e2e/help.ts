// What the end-to-end tests share: the demo's plan, corners of their own, readings on the screen.
import { expect, type Page } from "@playwright/test";

export type Json = Record<string, never>;

/** The demo corner's plan file, as the application hands it out. */
export async function demoPlan(page: Page): Promise<Json> {
  const corners = (await (await page.request.get("/api/v1/corners")).json()) as {
    id: number;
    name: string;
  }[];
  const demo = corners.find((c) => c.name.startsWith("Field botany"));
  return (await (await page.request.get(`/api/v1/corners/${demo?.id}/file`)).json()) as Json;
}

/** Keeps a plan as a corner of its own; its id. */
export async function keep(page: Page, plan: unknown): Promise<number> {
  const answer = await page.request.post("/api/v1/corners", { data: plan });
  expect(answer.status()).toBe(201);
  return ((await answer.json()) as { id: number }).id;
}

export async function changedPlan(page: Page, name: string, change: (plan: never) => void): Promise<number> {
  const plan = structuredClone(await demoPlan(page)) as unknown as { name: string };
  plan.name = name;
  change(plan as never);
  return keep(page, plan);
}

export const section = (page: Page, title: string) =>
  page.locator("section").filter({ has: page.getByRole("heading", { name: title, exact: true }) });

/** The numeral of a reading as it stands on the screen. */
export async function reading(page: Page, id: string): Promise<string> {
  return (await page.locator(`[data-reading="${id}"] .numeral`).innerText()).trim();
}

/** Tabs on until something of this name has the focus. */
export async function reach(page: Page, name: RegExp): Promise<void> {
  for (let presses = 0; presses < 150; presses += 1) {
    const focused = await page.evaluate(() => {
      const e = document.activeElement as HTMLElement | null;
      if (e === document.body) return "";
      const label =
        e instanceof HTMLInputElement || e instanceof HTMLSelectElement ? e.labels?.[0]?.innerText : null;
      return e?.getAttribute("aria-label") ?? label ?? e?.innerText ?? "";
    });
    if (name.test(focused)) return;
    await page.keyboard.press("Tab");
  }
  throw new Error(`${String(name)} is not reached`);
}
