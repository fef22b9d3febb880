// How it stands with money, and the next best thing to do: the first free move, else what to buy first.
import { useQuery } from "@tanstack/react-query";

import { api, type Plan } from "../api/client";
import { useTable } from "../table/useTable";
import { fixed } from "../units/length";
import { Button } from "../ui/button";
import { changesOf } from "./changes";
import { moved } from "./today";

/** How it stands, once moves and purchases have been tried. */
export function MoneyState({ plan, otherwise }: { plan: Plan; otherwise: string }) {
  return useQuery(changesOf(plan)).data?.sentence ?? otherwise;
}

export function MoneyNext({ plan, children }: { plan: Plan; children: React.ReactNode }) {
  const table = useTable();
  const { data } = useQuery(changesOf(plan));
  const move = data?.free_moves[0];
  const step = data?.purchases.steps[0];
  if (!move && !step) return children;
  const today = move?.baseline === "today";
  const currency = plan.brief.money?.currency ?? "";
  const cost = step?.items.reduce((sum, item) => sum + item.price, 0) ?? 0;
  return (
    <section
      aria-label="What to do next"
      className="bg-paper border-ember flex flex-wrap items-center gap-x-4 gap-y-2 rounded-lg border border-l-4 px-3 py-1.5"
    >
      <p className="min-w-48 grow basis-0 text-sm font-semibold">
        {move
          ? `${move.label}: free.`
          : `Buy first: ${step?.items.map((item) => item.label).join(", ") ?? ""}, ${fixed(cost, 0)} ${currency}.`}
      </p>
      {move && (
        <Button
          look="act"
          size="small"
          onClick={() => table.act((p) => (today ? moved(p, move.patch) : api.apply(p, move.patch)))}
        >
          {today ? "I have moved it" : "Move it in the plan"}
        </Button>
      )}
    </section>
  );
}
