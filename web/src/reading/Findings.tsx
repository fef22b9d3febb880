// What is wrong or could be better: one line each with its button, opened for reason, source and how it looks.
import { useState } from "react";

import type { Finding, PatchStep, Plan } from "../api/client";
import type { UnitSystem } from "../units/length";
import { Button } from "../ui/button";
import { SHEET } from "../ui/Section";
import { FindingDetails } from "./FindingDetails";
import { Shown } from "./Shown";

export const SEVERITY = { stop: ["■", "Stop"], fix: ["▲", "Fix"], consider: ["○", "Consider"] } as const;

interface Props {
  findings: Finding[];
  /** In whose picture they are seen. */
  plan?: Plan;
  onApply: (patch: PatchStep[]) => void;
  units: UnitSystem;
}

export function Findings({ findings, ...rest }: Props) {
  if (findings.length === 0) return null;
  return (
    <ul className={`${SHEET} divide-line divide-y`} aria-label="Findings">
      {findings.map((finding) => (
        <Line key={finding.id} finding={finding} {...rest} />
      ))}
    </ul>
  );
}

function Line({ finding, plan, onApply, units }: { finding: Finding } & Omit<Props, "findings">) {
  const [open, setOpen] = useState(false);
  const [mark, word] = SEVERITY[finding.severity];
  const { fix } = finding;
  return (
    <li className="flex items-start gap-3 px-3 py-2" data-finding={finding.id}>
      <span className={`pt-0.5 font-bold ${finding.severity === "consider" ? "" : "text-ember"}`}>
        <span aria-hidden="true">{mark}</span>
        <span className="sr-only">{word}</span>
      </span>
      <details className="group min-w-0 grow text-sm" onToggle={(event) => setOpen(event.currentTarget.open)}>
        <summary className="min-h-6 cursor-pointer list-none">
          {finding.sentence}{" "}
          <span className="text-faint underline decoration-dotted underline-offset-4 group-open:hidden">
            Why?
          </span>
        </summary>
        <FindingDetails finding={finding} units={units} />
        {open && plan && <Shown finding={finding} plan={plan} />}
      </details>
      {fix && (
        <Button
          size="small"
          className="max-w-64 text-left"
          look={finding.severity === "consider" ? "usual" : "act"}
          onClick={() => onApply(fix.patch)}
        >
          {fix.label}
        </Button>
      )}
    </li>
  );
}
