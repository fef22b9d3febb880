// A corner without a layout: what forbids every one, and what would free it.
import type { Brief } from "../api/client";
import { useProposals } from "../table/proposals";
import { capital } from "../units/text";
import { ButtonLink } from "../ui/button";
import { SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";

export function NothingFits({ name, brief, id }: { name: string; brief: Brief; id: number }) {
  const found = useProposals(name, brief);
  if (found.isPending) return <Waiting what="Looking for what is in the way" />;
  if (found.isError) return <Trouble error={found.error} onRetry={() => void found.refetch()} />;
  if (found.data.ended_early)
    return (
      <p role="status" className="max-w-3xl">
        There is so much in this corner that 20 seconds were not enough to find a layout. Remove furniture and
        gear that play no part in this film, then look again.
      </p>
    );
  return (
    <section className="max-w-3xl" aria-labelledby="obstacles">
      <h2 id="obstacles" className="mb-2 text-lg font-bold">
        Nothing fits yet
      </h2>
      <p className="mb-3">The layout that came nearest breaks these rules. Each says what would free it.</p>
      <ul className="space-y-3">
        {found.data.obstacles.map((o) => (
          <li key={o.sentence} className={`${SHEET} border-ember p-4`}>
            <p className="font-semibold">
              <span aria-hidden="true" className="text-ember">
                ■{" "}
              </span>
              {o.sentence}
            </p>
            <p>{o.frees}</p>
            {o.facing && <p className="text-faint text-sm">{capital(`facing ${o.facing}.`)}</p>}
          </li>
        ))}
      </ul>
      <p className="mt-4">
        <ButtonLink look="act" to={`/corners/${String(id)}/answers`}>
          Change answers
        </ButtonLink>
      </p>
    </section>
  );
}
