// The whole corner at a glance: what stands in the way, and where everything is and why.
import { Link } from "react-router";

import type { Corner, Judged, PatchStep, Plan } from "../api/client";
import { fixed, type UnitSystem } from "../units/length";
import { Term } from "../ui/terms";
import { Reason, useProposals } from "./Alternatives";
import { Findings } from "./Findings";
import { Placed } from "./Placed";

interface Props {
  corner: Corner;
  plan: Plan;
  judged: Judged;
  units: UnitSystem;
  onApply: (patch: PatchStep[]) => void;
}

export function Glance({ corner, plan, judged, units, onApply }: Props) {
  const found = useProposals(plan.name, plan.brief);
  const { assessment, placed } = judged;
  return (
    <div className="step-sheet">
      <Findings findings={assessment.findings} onApply={onApply} units={units} />
      {plan.brief.today && (
        <p className="sheet flex flex-wrap items-center gap-3 p-4">
          <span className="mr-auto">How the corner stands today is known: free moves start from there.</span>
          <Link
            className={`button ${assessment.verdict.ready ? "" : "button-act"}`}
            to={`/corners/${corner.id}/money`}
          >
            See the free moves
          </Link>
        </p>
      )}
      <Score assessment={assessment} />
      <Placed
        placed={placed}
        reason={<Reason found={found.data} layout={plan.layout} score={assessment.score} />}
      />
    </div>
  );
}

/** The score with its working: the parts it is made of and what each weighs. */
function Score({ assessment }: { assessment: Judged["assessment"] }) {
  return (
    <details className="sheet p-4">
      <summary>
        <strong>{fixed(100 * assessment.score, 0)} points of 100.</strong> How they are made up
      </summary>
      <table className="mt-3 w-full text-sm">
        <thead>
          <tr className="border-line border-b text-left">
            <th className="py-1 font-semibold">Aspect</th>
            <th className="py-1 text-right font-semibold">Points of 100</th>
            <th className="py-1 text-right font-semibold">Weight</th>
          </tr>
        </thead>
        <tbody>
          {assessment.aspects.map((part) => (
            <tr key={part.aspect} className="border-line border-b">
              <td className="py-1">{part.aspect}</td>
              <td className="py-1 text-right">
                {part.score === null || part.score === undefined ? "no reading" : fixed(100 * part.score, 0)}
              </td>
              <td className="py-1 text-right">{fixed(part.weight, 2)}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-faint mt-2 text-sm">
        The weighted mean over the aspects that have a reading; weights follow the spending{" "}
        <Term word="School">school</Term>. Source: Fogon&rsquo;s own rule.
      </p>
    </details>
  );
}
