// The ladder: free moves, then purchases, each a rung with what it costs and what it gains.
import { useQuery } from "@tanstack/react-query";

import type { Plan, Schemas } from "../api/client";
import { fixed, type UnitSystem } from "../units/length";
import { count } from "../units/text";
import { Section, SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import { changesOf } from "./changes";
import { Rung } from "./Rung";

const points = (score: number) => fixed(100 * score, 0);

export function Ladder({ plan, units }: { plan: Plan; units: UnitSystem }) {
  const changes = useQuery(changesOf(plan));
  if (changes.isPending) return <Waiting what="Trying moves and purchases" />;
  if (changes.isError) return <Trouble error={changes.error} onRetry={() => void changes.refetch()} />;
  return (
    <div className="grid gap-4">
      <FreeMoves changes={changes.data} units={units} />
      <Purchases bought={changes.data.purchases} currency={plan.brief.money?.currency ?? ""} units={units} />
    </div>
  );
}

function FreeMoves({ changes, units }: { changes: Schemas["Changes"]; units: UnitSystem }) {
  const { free_moves: moves } = changes;
  const today = moves[0]?.baseline === "today";
  return (
    <Section title={today ? "Free moves, from how it is today" : "Free moves"}>
      {moves.length === 0 ? (
        <p className="text-sm">
          Nothing to move: the same gear does no better elsewhere ({points(changes.score_now)} of 100).
        </p>
      ) : (
        <ol className={`${SHEET} divide-line divide-y`}>
          {moves.map((move, index) => (
            <Rung
              key={move.label}
              number={index + 1}
              title={move.label}
              cost="free"
              gain={`${points(move.score_before)} → ${points(move.score_after)}`}
              changes={move.changes}
              units={units}
            >
              {move.cleared > 0 && `Clears ${count(move.cleared, "thing")} in the way.`}
            </Rung>
          ))}
        </ol>
      )}
    </Section>
  );
}

interface PurchasesProps {
  bought: Schemas["Changes"]["purchases"];
  currency: string;
  units: UnitSystem;
}

function Purchases({ bought, currency, units }: PurchasesProps) {
  const money = (sum: number) => `${fixed(sum, 0)} ${currency}`.trim();
  const perYear = (items: Schemas["Bought"][]) => {
    const sum = items.reduce((total, item) => total + (item.per_year ?? 0), 0);
    return sum > 0 ? ` About ${money(sum)} a year.` : "";
  };
  const cost = (items: Schemas["Bought"][]) => items.reduce((total, item) => total + item.price, 0);
  return (
    <Section
      title="Purchases"
      aside={<span className="text-faint text-sm">budget {money(bought.budget)}</span>}
    >
      <p className="mb-1 text-sm">{bought.sentence}</p>
      {bought.steps.length > 0 && (
        <>
          <ol className={`${SHEET} divide-line divide-y`}>
            {bought.steps.map((step, index) => (
              <Rung
                key={step.items.map((i) => i.id).join()}
                number={index + 1}
                title={step.items.map((item) => item.label).join(", ")}
                cost={money(cost(step.items))}
                changes={step.changes}
                units={units}
              >
                {step.reason}
                <span className="text-faint">{perYear(step.items)}</span>
              </Rung>
            ))}
          </ol>
          <p className="text-faint mt-1 text-xs">
            Together {money(bought.spent)}: {points(bought.score_before)} → {points(bought.score_after)} of
            100. Prices are made up; the choice under the budget is exact.
          </p>
        </>
      )}
    </Section>
  );
}
