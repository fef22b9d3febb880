// Money: first what costs nothing, then what to buy, as a ladder of steps.
import { limits } from "../api/limits";
import { Schools } from "../schools/Schools";
import type { StepProps } from "../table/step";
import { withBudget } from "../table/edits";
import { useTable } from "../table/useTable";
import { NumberBox } from "../ui/boxes";
import { ButtonLink } from "../ui/button";
import { Ladder } from "./Ladder";

export function MoneyNow({ plan, units }: StepProps) {
  return <Ladder plan={plan} units={units} />;
}

export function MoneyByHand({ corner, plan }: StepProps) {
  const table = useTable();
  return (
    <div className="grid gap-4">
      <div className="max-w-60">
        <NumberBox
          label="Budget"
          unit={plan.brief.money?.currency ?? ""}
          value={plan.brief.money?.budget ?? 0}
          within={limits["Money.budget"]}
          digits={2}
          step={10}
          onCommit={(budget) => table.edit((p) => withBudget(p, budget))}
        />
      </div>
      <p>
        <ButtonLink to={`/corners/${String(corner.id)}/shelf`}>What you own: the shelf</ButtonLink>
      </p>
    </div>
  );
}

export function MoneyChoices({ plan }: StepProps) {
  return <Schools ids={["spending"]} plan={plan} />;
}
