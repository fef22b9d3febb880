// What is wrong or could be better, worst first, each with its move.
import type { Finding, PatchStep } from "../api/client";
import type { UnitSystem } from "../units/length";
import { sentence } from "./show";

const WORDS = { stop: ["■", "Stop"], fix: ["▲", "Fix"], consider: ["○", "Consider"] } as const;

interface Props {
  findings: Finding[];
  onApply: (patch: PatchStep[]) => void;
  units: UnitSystem;
}

export function Findings({ findings, onApply, units }: Props) {
  return (
    <section aria-labelledby="findings">
      <h2 id="findings" className="heading mb-2">
        Findings
      </h2>
      {findings.length === 0 && <p>Nothing to mend. Record.</p>}
      <ul className="grid gap-3 ">
        {findings.map((finding) => (
          <li
            key={finding.id}
            className={`sheet flex flex-col p-4 ${finding.severity === "consider" ? "" : "border-ember border-2"}`}
          >
            <p className="mb-1 text-sm font-bold">
              <span aria-hidden="true" className={finding.severity === "consider" ? "" : "text-ember"}>
                {WORDS[finding.severity][0]}
              </span>{" "}
              {WORDS[finding.severity][1]}
            </p>
            <p className="font-semibold">{finding.sentence}</p>
            <p className="text-faint text-sm">{finding.reason}</p>
            {finding.advice && <p className="mt-2 text-sm">{finding.advice}</p>}
            {finding.caution && (
              <p className="border-ember mt-2 border-l-4 pl-2 text-sm">
                <strong>Caution.</strong> {finding.caution}
              </p>
            )}
            <p className="text-faint mt-2 text-xs">
              {finding.school && <>Depends on the school “{finding.school}”. </>}
              {finding.source && <>Source: {finding.source}.</>}
            </p>
            {finding.fix && (
              <div className="mt-auto pt-3">
                <button
                  type="button"
                  className={`button w-full text-left ${finding.severity === "consider" ? "" : "button-act"}`}
                  onClick={() => finding.fix && onApply(finding.fix.patch)}
                >
                  {finding.fix.label}
                </button>
                <details className="mt-1 text-xs">
                  <summary className="text-faint py-1">What it changes</summary>
                  <ul>
                    {finding.fix.changes.map((c) => (
                      <li key={c.reading}>
                        {c.label}: {sentence(c.from, c.unit, units, c.reading)} →{" "}
                        {sentence(c.to, c.unit, units, c.reading)}
                      </li>
                    ))}
                  </ul>
                </details>
              </div>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
