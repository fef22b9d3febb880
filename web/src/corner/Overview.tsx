// The whole corner at a glance: can it be recorded, what is best done next, every finding, where everything goes and why.
import { api, type Corner, type Judged, type PatchStep, type Plan } from "../api/client";
import { Placed } from "../card/Placed";
import { Findings } from "../reading/Findings";
import { NextStep } from "../reading/NextStep";
import { useGo } from "../table/place";
import { useProposals } from "../table/proposals";
import { useTable } from "../table/useTable";
import type { UnitSystem } from "../units/length";
import { fixed } from "../units/length";
import { Banner } from "../ui/Banner";
import { ButtonLink } from "../ui/button";
import { Reason } from "./Reason";
import { Stage } from "./Stage";

interface Props {
  corner: Corner;
  plan: Plan;
  judged: Judged;
  units: UnitSystem;
  onPrint: () => void;
}

export function Overview({ corner, plan, judged, units, onPrint }: Props) {
  const table = useTable();
  const go = useGo();
  const found = useProposals(plan.name, plan.brief);
  const { assessment, steps } = judged;
  const onApply = (patch: PatchStep[]) => table.act((p) => api.apply(p, patch));
  const first =
    steps.find((step) => step.state === "stop") ??
    steps.find((step) => step.state === "fix") ??
    steps.find((step) => step.step === "card");
  const finding = assessment.findings.find((one) => one.id === first?.next.finding);
  const today = plan.brief.today && !assessment.verdict.ready;
  return (
    <div className="grid content-start gap-3 p-3 md:p-4">
      <Stage
        judged={judged}
        plan={plan}
        told={null}
        units={units}
        onMeasured={() => undefined}
        before={null}
      />
      <div>
        <h2 tabIndex={-1} className="text-lg font-bold outline-none">
          {assessment.verdict.sentence}
        </h2>
        <p className="text-faint text-sm">Score {fixed(100 * assessment.score, 0)} of 100.</p>
      </div>
      {today && (
        <Banner kind="tell" words="How it is set up today is known: the free moves start from there.">
          <ButtonLink look="act" size="small" to={`/corners/${String(corner.id)}/money`}>
            See the free moves
          </ButtonLink>
        </Banner>
      )}
      {first && (
        <NextStep
          next={first.next}
          finding={finding}
          plan={plan}
          units={units}
          onApply={onApply}
          onOpen={go}
          onPrint={onPrint}
        />
      )}
      <Findings
        findings={assessment.findings.filter((one) => one.id !== finding?.id)}
        plan={plan}
        onApply={onApply}
        units={units}
      />
      <Placed placed={judged.placed}>
        <div className="mb-2 text-sm">
          <Reason found={found.data} layout={plan.layout} score={assessment.score} />
        </div>
      </Placed>
    </div>
  );
}
