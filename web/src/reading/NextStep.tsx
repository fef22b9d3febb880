// The next best thing to do, with its button.
import { useState } from "react";

import type { Finding, PatchStep, Plan, Schemas, Step, Tab } from "../api/client";
import type { UnitSystem } from "../units/length";
import { Button } from "../ui/button";
import { Caution, FindingDetails } from "./FindingDetails";
import { Shown } from "./Shown";

interface Props {
  next: Schemas["Next"];
  finding: Finding | undefined;
  plan: Plan;
  units: UnitSystem;
  onApply: (patch: PatchStep[]) => void;
  onOpen: (step: Step, tab: Tab) => void;
  onPrint: () => void;
}

export function NextStep({ next, finding, plan, units, onApply, onOpen, onPrint }: Props) {
  const [open, setOpen] = useState(false);
  const { action } = next;
  const act = () => {
    switch (action.kind) {
      case "mend":
        if (finding?.fix) onApply(finding.fix.patch);
        return;
      case "open":
        return onOpen(action.step, action.tab);
      case "print":
        return onPrint();
    }
  };
  const mends = finding !== undefined && finding.severity !== "consider";
  return (
    <section
      aria-label="What to do next"
      className={`bg-paper flex flex-wrap items-center gap-x-4 gap-y-2 rounded-lg border border-l-4 px-3 py-1.5 ${mends ? "border-ember" : "border-line border-l-faint"}`}
      data-next={finding?.id ?? action.kind}
    >
      <div className="min-w-48 grow basis-0">
        <p className="text-sm font-semibold">{next.sentence}</p>
        {next.detail && <p className="text-sm">{next.detail}</p>}
        {finding && <Caution finding={finding} />}
        {finding && (
          <details className="text-sm" name="why" onToggle={(event) => setOpen(event.currentTarget.open)}>
            <summary className="text-faint min-h-6 cursor-pointer list-none text-xs underline decoration-dotted underline-offset-4">
              Why?
            </summary>
            <FindingDetails finding={{ ...finding, caution: null, advice: "" }} units={units} />
            {open && <Shown finding={finding} plan={plan} />}
          </details>
        )}
      </div>
      <Button size="small" look={finding ? "act" : "usual"} className="max-w-72 text-left" onClick={act}>
        {next.label}
      </Button>
    </section>
  );
}
