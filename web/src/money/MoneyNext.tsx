// How it stands with money, and the next best thing to do: the first free move, else what to buy first.
import { useQuery } from "@tanstack/react-query";

import { api, type Plan } from "../api/client";
import { useTable } from "../table/useTable";
import { Button } from "../ui/button";
import { sum } from "./sums";
import { moved } from "./today";
import { freeMovesOf, useAdvice } from "./useAdvice";

/** How it stands, once moves and purchases have been tried. */
export function MoneyState({ plan, otherwise }: { plan: Plan; otherwise: string }) {
  const free = useQuery(freeMovesOf(plan)).data?.sentence;
  return useAdvice(plan).advice?.sentence ?? free ?? otherwise;
}

export function MoneyNext({ plan, children }: { plan: Plan; children: React.ReactNode }) {
  const table = useTable();
  const move = useQuery(freeMovesOf(plan)).data?.moves[0];
  const step = useAdvice(plan).advice?.path[0];
  if (!move && !step) return children;
  const today = move?.baseline === "today";
  const currency = plan.brief.money?.currency ?? "";
  return (
    <section
      aria-label="What to do next"
      className="bg-paper border-ember flex flex-wrap items-center gap-x-4 gap-y-2 rounded-lg border border-l-4 px-3 py-1.5"
    >
      <p className="min-w-48 grow basis-0 text-sm font-semibold">
        {move
          ? `${move.label}: free.`
          : `Buy first: ${step?.label ?? ""}, ${sum(step?.price ?? 0, currency)}.`}
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
