// The card: print it, keep it as a file; where everything goes and why; how the score is made up.
import type { StepProps } from "../table/step";
import { kept } from "../picture/options";
import { AsLaid } from "../floor/AsLaid";
import { WithPhone } from "../floor/WithPhone";
import { ButtonLink, FileLink } from "../ui/button";
import { Section } from "../ui/Section";
import { Placed } from "./Placed";
import { PAPERS, type Paper } from "./paper";
import { Score } from "./Score";

interface CardProps extends StepProps {
  paper: Paper;
  onPaper: (paper: Paper) => void;
}

export function CardNow({ corner, judged, paper, onPaper }: CardProps) {
  // With the picture that is chosen everywhere else.
  const lines = kept().lines ? "&picture=lines" : "";
  const url = (format: string) =>
    `/api/v1/corners/${String(corner.id)}/card/${format}?paper=${paper}${lines}&download=1`;
  const cautions = judged.assessment.findings.flatMap((finding) => finding.caution ?? []);
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2 text-sm">
          Paper
          <select
            className="border-faint bg-paper min-h-10 rounded-lg border px-2"
            value={paper}
            onChange={(event) => onPaper(event.target.value as Paper)}
          >
            {Object.entries(PAPERS).map(([key, { words }]) => (
              <option key={key} value={key}>
                {words}
              </option>
            ))}
          </select>
        </label>
        <FileLink href={url("svg")}>Save as SVG</FileLink>
        <FileLink href={url("csv")}>Save as CSV</FileLink>
      </div>
      <Section title="On the floor">
        <div className="grid gap-3">
          <div>
            <ButtonLink look="act" to={`/corners/${String(corner.id)}/floor`}>
              Lay it step by step
            </ButtonLink>
          </div>
          <WithPhone />
        </div>
      </Section>
      {cautions.length > 0 && (
        <Section title="Cautions">
          <ul className="grid gap-1 text-sm">
            {[...new Set(cautions)].map((caution) => (
              <li key={caution} className="border-ember border-l-4 pl-2">
                {caution}
              </li>
            ))}
          </ul>
        </Section>
      )}
      <Placed placed={judged.placed} />
    </div>
  );
}

/** Nothing is set on the card itself: what was laid is held against it. */
export function CardByHand({ plan, units }: StepProps) {
  return <AsLaid plan={plan} units={units} />;
}

export function CardChoices() {
  return <p>Nothing is chosen for the card: what you choose in the other steps stands on it at once.</p>;
}

export function CardNumbers({ judged }: StepProps) {
  return <Score assessment={judged.assessment} />;
}
