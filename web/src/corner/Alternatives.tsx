// What the search found for this brief: why the layout taken is the best, the others to take instead, or what
// forbids every one.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { Link } from "react-router";

import { api, type Brief, type Layout, type Plan, type Schemas } from "../api/client";
import { Trouble, Waiting } from "../ui/states";
import { fixed } from "../units/length";
import { heldBy, partsThatDiffer, withPart } from "./parts";
import { setAside } from "./settled";
import type { Table } from "./useWorktable";

/** Proposals for a brief; half a second of search, asked once for each brief. */
export function useProposals(name: string, brief: Brief) {
  return useQuery({
    queryKey: ["propose", brief],
    queryFn: () => api.propose(name, brief),
    staleTime: Infinity,
  });
}

/** Takes a layout whole. What was found stays found under the school it follows, so that it is still told as taken. */
export function useTake(table: Table) {
  const queries = useQueryClient();
  return (other: Plan, found: Schemas["Proposals"] | undefined) =>
    table.edit((plan) => {
      const next = withPart(plan, other, "all");
      if (found) queries.setQueryData(["propose", next.brief], found);
      return next;
    });
}

/** One sentence: why this layout, or how it differs from the best one found. */
export function Reason({
  found,
  layout,
  score,
}: {
  found: Schemas["Proposals"] | undefined;
  layout: Layout;
  score: number;
}) {
  const best = found?.proposals[0];
  if (!found) return <p className="text-faint">Comparing it with the other facings …</p>;
  const taken = found.proposals.find((p) => partsThatDiffer(p.plan, { ...p.plan, layout }).length === 0);
  if (taken) return <p>{taken.reason}</p>;
  if (!best) return <p>This layout is your own: the search finds none that breaks no rule.</p>;
  const points = Math.round(100 * (best.score - score));
  return (
    <p>
      This layout is your own. The best one found{" "}
      {points > 0 ? `scores ${points} points more` : "scores no more"}: {best.reason.replace(/^You/, "you")}
    </p>
  );
}

export function Alternatives({
  id,
  name,
  plan,
  table,
}: {
  id: number;
  name: string;
  plan: Plan;
  table: Table;
}) {
  const look = useProposals(name, plan.brief);
  const take = useTake(table);
  return (
    <section aria-labelledby="others">
      <h3 id="others" className="subheading">
        Layouts found, best first
      </h3>
      {look.isPending && <Waiting what="Trying every facing" />}
      {look.isError && <Trouble error={look.error} onRetry={() => void look.refetch()} />}
      {look.data && look.data.set_aside.length > 0 && (
        <p className="text-faint mb-2">{setAside(look.data.set_aside)}</p>
      )}
      <ol className="grid gap-3">
        {look.data?.proposals.map((proposal, index) => {
          const taken = partsThatDiffer(plan, proposal.plan).length === 0;
          const held = heldBy(plan, proposal.plan.layout);
          return (
            <li key={proposal.reason} className="sheet flex flex-col gap-2 p-4">
              <p>
                <strong>
                  {index + 1}. {proposal.title}
                </strong>
                <span className="text-faint">
                  {" "}
                  · {fixed(100 * proposal.score, 0)} points of 100, {proposal.ready ? "ready" : "not ready"}
                </span>
              </p>
              <p>{proposal.reason}</p>
              {taken ? (
                <p className="flex min-h-10 items-center font-semibold">
                  <span aria-hidden="true" className="mr-1.5">
                    ✓
                  </span>
                  Taken
                </p>
              ) : held !== null ? (
                <button type="button" className="button self-start" disabled>
                  Unlock {held} to take this one
                </button>
              ) : (
                <p className="flex flex-wrap items-center gap-2">
                  <button type="button" className="button" onClick={() => take(proposal.plan, look.data)}>
                    Take this one
                  </button>
                  <Link to={`/corners/${id}/compare`} className="button">
                    Compare, or take a part
                  </Link>
                </p>
              )}
            </li>
          );
        })}
        {look.data?.missing.map((missing) => (
          <li key={missing.what} className="sheet p-4">
            <p>
              <strong>{missing.what}</strong>
              <span className="text-faint"> · not possible here</span>
            </p>
            <p>
              {missing.sentence} {missing.frees}
            </p>
          </li>
        ))}
      </ol>
    </section>
  );
}

export function Obstacles({ name, brief, id }: { name: string; brief: Brief; id: number }) {
  const found = useProposals(name, brief);
  if (found.isPending) return <Waiting what="Looking for what is in the way" />;
  if (found.isError) return <Trouble error={found.error} onRetry={() => void found.refetch()} />;
  return (
    <section className="max-w-3xl" aria-labelledby="obstacles">
      <h2 id="obstacles" className="heading mb-2">
        Nothing fits yet
      </h2>
      <p className="mb-3">The layout that came nearest breaks these rules:</p>
      <ul className="space-y-3">
        {found.data.obstacles.map((o) => (
          <li key={o.sentence} className="sheet border-ember border-2 p-4">
            <p className="font-semibold">
              <span aria-hidden="true" className="text-ember">
                ■{" "}
              </span>
              {o.sentence}
            </p>
            <p>{o.frees}</p>
            {o.facing && <p className="text-faint text-sm">Facing {o.facing}.</p>}
          </li>
        ))}
      </ul>
      <Link to={`/corners/${id}/brief`} className="button button-act mt-4">
        Change answers
      </Link>
    </section>
  );
}
