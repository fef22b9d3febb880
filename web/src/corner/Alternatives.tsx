// Other legal layouts to take instead, or what forbids every one.
import { useMutation, useQuery } from "@tanstack/react-query";
import { Link } from "react-router";

import { api, type Brief, type Corner, type Plan } from "../api/client";
import { Trouble, Waiting } from "../ui/states";
import { fixed } from "../units/length";

export function Alternatives({
  corner,
  busy,
  onTake,
}: {
  corner: Corner;
  busy: boolean;
  onTake: (plan: Plan) => void;
}) {
  const look = useMutation({ mutationFn: () => api.propose(corner.name, corner.brief) });
  return (
    <section className="mt-7" aria-labelledby="others">
      <h2 id="others" className="heading mb-2">
        Other layouts
      </h2>
      <button type="button" className="button" disabled={look.isPending} onClick={() => look.mutate()}>
        {look.isPending ? "Trying every facing …" : "Try every facing"}
      </button>
      {look.isError && <Trouble error={look.error} />}
      <ol className="mt-3 grid gap-3 lg:grid-cols-3">
        {look.data?.proposals.map((proposal, index) => (
          <li key={proposal.reason} className="sheet flex flex-col gap-2 p-4">
            <p>
              <strong>{index + 1}.</strong> {proposal.reason}
            </p>
            <p className="text-faint text-sm">
              {fixed(100 * proposal.score, 0)} points of 100, {proposal.ready ? "ready" : "not ready"}
            </p>
            <button
              type="button"
              className="button mt-auto"
              disabled={busy}
              onClick={() => onTake(proposal.plan)}
            >
              Take this one
            </button>
          </li>
        ))}
      </ol>
    </section>
  );
}

export function Obstacles({ name, brief, id }: { name: string; brief: Brief; id: number }) {
  const found = useQuery({ queryKey: ["obstacles", brief], queryFn: () => api.propose(name, brief) });
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
            {o.facing && <p className="text-faint text-sm">Facing the {o.facing}.</p>}
          </li>
        ))}
      </ul>
      <Link to={`/corners/${id}/brief`} className="button button-act mt-4">
        Change answers
      </Link>
    </section>
  );
}
