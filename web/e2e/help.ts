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
