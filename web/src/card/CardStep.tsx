// The card: print it, keep it as a file; where everything goes and why; how the score is made up.
import type { StepProps } from "../table/step";
import { kept } from "../picture/options";
import { AsLaid } from "../floor/AsLaid";
import { Parked } from "../floor/Parked";
import { PutUp } from "../floor/PutUp";
import { WithPhone } from "../floor/WithPhone";
import { Schools } from "../schools/Schools";
import { useTable } from "../table/useTable";
import { ButtonLink } from "../ui/button";
import { Tick } from "../ui/fields";
import { Section } from "../ui/Section";
import { Files } from "./Files";
import { Placed } from "./Placed";
import { PAPERS, type Paper } from "./paper";
import { Score } from "./Score";

interface CardProps extends StepProps {
  paper: Paper;
  onPaper: (paper: Paper) => void;
}

export function CardNow({ corner, plan, judged, paper, onPaper }: CardProps) {
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
        {/* With the picture that is chosen everywhere else. */}
        <Files id={corner.id} paper={paper} lines={kept().lines} />
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
      <PutUp corner={corner.id} plan={plan} />
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

/** What was laid is held against the card; where stands are put away. */
export function CardByHand({ plan, units }: StepProps) {
  return (
    <div className="grid gap-5">
      <AsLaid plan={plan} units={units} />
      <Parked plan={plan} units={units} />
    </div>
  );
}

/** How it is put up. */
export function CardChoices({ plan }: StepProps) {
  const table = useTable();
  const habits = plan.brief.habits ?? {};
  const set = (change: Partial<typeof habits>) =>
    table.act((p) => ({ ...p, brief: { ...p.brief, habits: { ...p.brief.habits, ...change } } }));
  return (
    <div className="grid gap-4">
      <Section title="How you put it up">
        <Tick
          label="All lamps hang on one strip with a switch"
          checked={habits.one_switch ?? false}
          onTick={(one_switch) => set({ one_switch })}
        />
        <Tick
          label="A plate stays on the camera and clips onto its stand"
          checked={habits.plate ?? false}
          onTick={(plate) => set({ plate })}
        />
      </Section>
      <Schools ids={["rig"]} plan={plan} />
    </div>
  );
}

export function CardNumbers({ judged }: StepProps) {
  return <Score assessment={judged.assessment} />;
}
