// One plan judged and drawn, to stand beside another.
import { Drawing } from "../drawing/Drawing";
import type { JudgedPlan } from "../picture/useJudged";
import { fixed } from "../units/length";
import { Standing } from "../ui/Standing";
import { Trouble, Waiting } from "../ui/states";

interface Props {
  side: JudgedPlan;
  name: string;
  children?: React.ReactNode;
}

export function Side({ side, name, children }: Props) {
  if (side.error) return <Trouble error={side.error} onRetry={side.retry} />;
  if (!side.judged) return <Waiting what="Working it out" />;
  const { verdict, score } = side.judged.assessment;
  return (
    <section className="flex flex-col gap-3" aria-label={`Layout: ${name}`}>
      <p>
        <Standing ready={verdict.ready} words={verdict.sentence} />
      </p>
      <p className="text-faint">Score {fixed(100 * score, 0)} of 100.</p>
      <Drawing view={side.judged.drawing.plan} title={`The plan: ${name}`} tallest="36vh" />
      {children}
    </section>
  );
}
