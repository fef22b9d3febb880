// The layouts found for this corner, best first: which one is taken, and the others to take instead.
import type { Plan, Schemas } from "../api/client";
import { heldBy, partsThatDiffer } from "../table/parts";
import { useProposals, useTake } from "../table/proposals";
import { setAside } from "../table/settled";
import { fixed } from "../units/length";
import { Button, ButtonLink } from "../ui/button";
import { Section, SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";

interface Props {
  id: number;
  name: string;
  plan: Plan;
}

export function Layouts({ id, name, plan }: Props) {
  const look = useProposals(name, plan.brief);
  const compare = (
    <ButtonLink size="small" to={`/corners/${String(id)}/compare`}>
      Compare
    </ButtonLink>
  );
  return (
    <Section title="Layouts found, best first" aside={look.data && compare}>
      {look.isPending && <Waiting what="Trying every way to face" />}
      {look.isError && <Trouble error={look.error} onRetry={() => void look.refetch()} />}
      {look.data && look.data.set_aside.length > 0 && (
        <p className="text-faint mb-2 text-sm">{setAside(look.data.set_aside)}</p>
      )}
      <ol className={`${SHEET} divide-line divide-y`}>
        {look.data?.proposals.map((proposal, index) => (
          <Layout
            key={proposal.reason}
            number={index + 1}
            proposal={proposal}
            plan={plan}
            found={look.data}
          />
        ))}
        {look.data?.missing.map((missing) => (
          <li key={missing.what} className="px-3 py-2 text-sm">
            <strong>{missing.what}</strong>
            <span className="text-faint"> · not possible here. </span>
            {missing.sentence} {missing.frees}
          </li>
        ))}
      </ol>
    </Section>
  );
}

interface LayoutProps {
  number: number;
  proposal: Schemas["Proposal"];
  plan: Plan;
  found: Schemas["Proposals"];
}

function Layout({ number, proposal, plan, found }: LayoutProps) {
  const take = useTake();
  const taken = partsThatDiffer(plan, proposal.plan).length === 0;
  const held = heldBy(plan, proposal.plan.layout);
  return (
    <li className="flex flex-wrap items-start gap-x-4 gap-y-1 px-3 py-2">
      <div className="min-w-52 grow basis-0 text-sm">
        <p>
          <strong>
            {number}. {proposal.title}
          </strong>
          <span className="text-faint">
            {" "}
            · {fixed(100 * proposal.score, 0)} of 100, {proposal.ready ? "ready" : "not ready"}
          </span>
        </p>
        <p>{proposal.reason}</p>
      </div>
      {taken ? (
        <span className="flex min-h-8 items-center font-semibold">✓ In use</span>
      ) : held !== null ? (
        <Button size="small" disabled>
          Unlock {held} to use it
        </Button>
      ) : (
        <Button size="small" onClick={() => take(proposal.plan, found)}>
          Use this one
        </Button>
      )}
    </li>
  );
}
