// What to change, in order: free moves, then purchases.
import { useQuery } from "@tanstack/react-query";

import { api, type PatchStep, type Plan, type Schemas } from "../api/client";
import { Trouble, Waiting } from "../ui/states";
import { fixed, type UnitSystem } from "../units/length";
import { sentence } from "./show";
import type { Table } from "./useWorktable";

interface Props {
  plan: Plan;
  units: UnitSystem;
  table: Table;
  onApply: (patch: PatchStep[]) => void;
}

export function Changes({ plan, units, table, onApply }: Props) {
  /** A move made in the room: what stands today has changed, and the plan with it where it showed just that. */
  const done = (patch: PatchStep[]) =>
    table.edit(async (p) => {
      const stood = standing(p);
      const now = await api.apply({ ...p, layout: stood }, patch);
      const planned = JSON.stringify(stood) === JSON.stringify(p.layout);
      return { ...p, brief: { ...p.brief, today: now.layout }, layout: planned ? now.layout : p.layout };
    });
  const changes = useQuery({
    queryKey: ["changes", plan],
    queryFn: ({ signal }) => api.changes(plan, signal),
    staleTime: Infinity,
  });
  const money = (sum: number) => `${fixed(sum, 0)} ${plan.brief.money?.currency ?? ""}`.trim();
  const points = (score: number) => fixed(100 * score, 0);
  return (
    <section aria-labelledby="changes">
      <h3 id="changes" className="subheading">
        What to change, in order
      </h3>
      {changes.isPending && <Waiting what="Trying moves and purchases" />}
      {changes.isError && <Trouble error={changes.error} onRetry={() => void changes.refetch()} />}
      {changes.data && (
        <div className="grid items-start gap-4">
          <div className="sheet p-4">
            <h4 className="mb-2 font-bold">
              Free moves{changes.data.free_moves[0]?.baseline === "today" ? ", from how it stands today" : ""}
            </h4>
            {changes.data.free_moves.length === 0 && (
              <p className="text-faint">
                The same gear would not do better elsewhere: {points(changes.data.score_now)} points of 100.
              </p>
            )}
            <ol className="space-y-3">
              {changes.data.free_moves.map((move, index) => (
                <li key={move.label} className="flex gap-3">
                  <span className="text-lg font-bold">{index + 1}</span>
                  <div className="min-w-0 grow">
                    <p className="font-semibold">{move.label}</p>
                    <p className="text-sm">
                      {points(move.score_before)} → {points(move.score_after)} points, cost 0
                      {move.cleared > 0 && (
                        <>; clears {move.cleared === 1 ? "one thing" : `${move.cleared} things`} in the way</>
                      )}
                    </p>
                    <Differences changes={move.changes} units={units} />
                    {move.baseline === "plan" && index === 0 && (
                      <button type="button" className="button mt-1" onClick={() => onApply(move.patch)}>
                        Do it in the plan
                      </button>
                    )}
                    {move.baseline === "today" && index === 0 && (
                      <button type="button" className="button mt-1" onClick={() => done(move.patch)}>
                        Done: it stands so now
                      </button>
                    )}
                  </div>
                </li>
              ))}
            </ol>
          </div>
          <div className="sheet p-4">
            <h4 className="mb-2 font-bold">Purchases, budget {money(changes.data.purchases.budget)}</h4>
            <p>{changes.data.purchases.sentence}</p>
            <ol className="mt-2 space-y-3">
              {changes.data.purchases.steps.map((step, index) => (
                <li key={step.items.map((i) => i.id).join()} className="flex gap-3">
                  <span className="text-lg font-bold">{index + 1}</span>
                  <div className="min-w-0 grow">
                    {step.items.map((item) => (
                      <p key={item.id} className="flex gap-3">
                        <span className="grow font-semibold">{item.label}</span>
                        <span className="whitespace-nowrap">{money(item.price)}</span>
                      </p>
                    ))}
                    <p className="text-sm">
                      {step.reason} <span className="text-faint">{perYear(step.items, money)}</span>
                    </p>
                    <Differences changes={step.changes} units={units} />
                  </div>
                </li>
              ))}
            </ol>
            {changes.data.purchases.steps.length > 0 && (
              <p className="border-line mt-3 border-t pt-2 text-sm">
                Together {money(changes.data.purchases.spent)}: {points(changes.data.purchases.score_before)}{" "}
                → {points(changes.data.purchases.score_after)} points of 100. Prices are made up; the choice
                under the budget is exact.
              </p>
            )}
          </div>
        </div>
      )}
    </section>
  );
}

/** How the corner stands: today's things over the plan, as free moves count it. */
export function standing(plan: Plan): Plan["layout"] {
  const { today } = plan.brief;
  if (!today) return plan.layout;
  return {
    seat: today.seat ?? plan.layout.seat,
    camera: today.camera ?? plan.layout.camera,
    lights: today.lights ?? {},
    ...(today.microphone ? { microphone: today.microphone } : {}),
    ...(today.furniture && Object.keys(today.furniture).length > 0 ? { furniture: today.furniture } : {}),
  };
}

function perYear(items: Schemas["Bought"][], money: (sum: number) => string): string {
  const sum = items.reduce((total, item) => total + (item.per_year ?? 0), 0);
  return sum > 0 ? `About ${money(sum)} a year.` : "";
}

function Differences({ changes, units }: { changes: Schemas["Change"][]; units: UnitSystem }) {
  if (changes.length === 0) return null;
  return (
    <details className="text-xs">
      <summary className="text-faint py-1">Readings before and after</summary>
      <ul>
        {changes.map((c) => (
          <li key={c.reading}>
            {c.label}: {sentence(c.from, c.unit, units, c.reading)} →{" "}
            {sentence(c.to, c.unit, units, c.reading)}
          </li>
        ))}
      </ul>
    </details>
  );
}
