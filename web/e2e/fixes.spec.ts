// Every move that the page offers against what it tells: pressed, it is told no more and nothing is told in its place; what the move
// promised is what the page then shows; and undo brings all of it back.
import { expect, test, type Page } from "@playwright/test";

import { changedPlan, saved, step, stored } from "./help";

interface Layout {
  camera: { iso: number; f_number: number; tilt_deg: number; white_balance_k: number };
  lights: Record<string, { dim: number; position_m: number[] }>;
  microphone: { position_m: number[]; support: { base_m: number[] } };
}

/** A corner in which much was put down carelessly. */
const careless = (page: Page) =>
  changedPlan(page, "Put down carelessly", (plan: { layout: Layout }) => {
    const { camera, lights, microphone } = plan.layout;
    camera.iso = 800;
    camera.white_balance_k = 4200;
    camera.tilt_deg += 3;
    for (const [id, light] of Object.entries(lights)) if (id !== "key") light.dim = 1;
    // Higher, and further off.
    const [x, y, z] = microphone.position_m as [number, number, number];
    microphone.position_m = [x, y, z + 0.25];
  });

interface Judged {
  findings: { id: string; severity: string; fix?: { label: string } | null }[];
  score: number;
}

const judged = async (page: Page, id: number): Promise<Judged> => {
  const plan: unknown = await (await page.request.get(`/api/v1/corners/${String(id)}/file`)).json();
  const answer = await page.request.post("/api/v1/assess", { data: plan });
  expect(answer.status()).toBe(200);
  const told = (await answer.json()) as { assessment: Judged } | Judged;
  return "assessment" in told ? told.assessment : told;
};

/** What could be pressed in the step that is open: findings whose move has a button there. */
async function offered(page: Page, told: Judged): Promise<{ id: string; label: string; severity: string }[]> {
  const all = told.findings.flatMap(({ id, severity, fix }) =>
    fix ? [{ id, severity, label: fix.label }] : [],
  );
  const there = await Promise.all(
    all.map(({ label }) =>
      page.getByRole("main").getByRole("button", { name: label, exact: true }).first().isVisible(),
    ),
  );
  return all.filter((_, index) => there[index]);
}

test("every move that is offered mends what it is offered for, and undo brings it back", async ({ page }) => {
  const id = await careless(page);
  const first = await stored<{ layout: unknown; revision: number }>(page, id);
  let { revision } = first;
  let told = await judged(page, id);
  const at_first = told.score;
  let pressed = 0;
  await page.goto(`/corners/${String(id)}/shot`);
  for (const name of ["Shot", "Light", "Sound"]) {
    await step(page, name).click();
    await expect(page.getByRole("region", { name: "What to do next" })).toBeVisible();
    for (let turn = 0; turn < 12; turn += 1) {
      // What is offered comes a moment after the step.
      const comes = expect.poll(async () => (await offered(page, told)).length, { timeout: 5000 });
      if (
        !(await comes.toBeGreaterThan(0).then(
          () => true,
          () => false,
        ))
      )
        break;
      const [one] = await offered(page, told);
      if (!one) break;
      await page.getByRole("main").getByRole("button", { name: one.label, exact: true }).first().click();
      pressed += 1;
      await expect.poll(async () => (await stored(page, id)).revision, one.label).toBeGreaterThan(revision);
      ({ revision } = await stored(page, id));
      await saved(page, id, revision);
      const after = await judged(page, id);
      const ids = after.findings.map((finding) => finding.id);
      expect(ids, one.label).not.toContain(one.id);
      await expect(page.getByRole("main").locator(`[data-finding="${one.id}"]`), one.label).toHaveCount(0);
      const had = told.findings.map((finding) => finding.id);
      const added = ids.filter((found) => !had.includes(found) && found !== "ready.corner.time_s");
      if (one.severity === "consider") expect(added, one.label).toEqual([]);
      told = after;
    }
  }
  expect(pressed).toBeGreaterThan(2);
  expect(told.score).toBeGreaterThan(at_first);
  // What is left has no move, or belongs to another step.
  expect(told.findings.filter(({ id: of, fix }) => /^(shot|light|sound)\./.test(of) && fix)).toEqual([]);
  // All the way back.
  const undo = page.getByRole("button", { name: "Undo" });
  for (let back = 0; back < pressed; back += 1) {
    await undo.click();
    revision += 1;
    await saved(page, id, revision);
  }
  await expect(undo).toBeDisabled();
  expect((await stored<{ layout: unknown }>(page, id)).layout).toEqual(first.layout);
});
