// Why a finding matters, what to do about it, where that is published, what its move changes.
import type { Finding } from "../api/client";
import { sentence } from "../table/show";
import type { UnitSystem } from "../units/length";

export function FindingDetails({ finding, units }: { finding: Finding; units: UnitSystem }) {
  const { fix } = finding;
  return (
    <div className="mt-1 grid gap-1">
      <p className="text-faint">{finding.reason}</p>
      {finding.advice && <p>{finding.advice}</p>}
      <Caution finding={finding} />
      {fix && fix.changes.length > 0 && (
        <ul className="text-xs">
          {fix.changes.map((c) => (
            <li key={c.reading}>
              {c.label}: {sentence(c.from, c.unit, units, c.reading)} →{" "}
              {sentence(c.to, c.unit, units, c.reading)}
            </li>
          ))}
        </ul>
      )}
      <p className="text-faint text-xs">
        {finding.school && <>It depends on the school “{finding.school}”. </>}
        {finding.source && <>Source: {finding.source}.</>}
      </p>
    </div>
  );
}

/** Where someone can be hurt. */
export function Caution({ finding }: { finding: Finding }) {
  if (!finding.caution) return null;
  return (
    <p className="border-ember border-l-4 pl-2 text-sm">
      <strong>Caution.</strong> {finding.caution}
    </p>
  );
}
