// What a choice would look like: the best layout that follows it beside the corner as it is.
import type { Plan } from "../api/client";
import { Pair } from "../picture/Pair";
import { useJudged } from "../picture/useJudged";
import { withSchool } from "../table/edits";
import { useProposals } from "../table/proposals";
import { Show } from "../ui/dialog";
import { Trouble, Waiting } from "../ui/states";

interface Props {
  plan: Plan;
  school: string;
  choice: string;
  /** What the choice is called. */
  label: string;
  onClose: () => void;
}

export function Seen({ label, onClose, ...rest }: Props) {
  return (
    <Show title={`How it looks: ${label}`} open onOpenChange={onClose} wide>
      <Both label={label} {...rest} />
    </Show>
  );
}

function Both({ plan, school, choice, label }: Omit<Props, "onClose">) {
  const found = useProposals(plan.name, withSchool(plan, school, choice).brief);
  const best = found.data?.proposals[0]?.plan ?? null;
  const [now, then] = [useJudged(plan), useJudged(best)];
  if (found.error) return <Trouble error={found.error} onRetry={() => void found.refetch()} />;
  if (found.data && !best) return <p>No layout follows this choice in your room.</p>;
  if (!best || !now.judged || !then.judged) return <Waiting what="Finding the layout" />;
  return (
    <>
      <p className="mb-2 text-sm">Right: the best layout that follows it. Nothing is changed by looking.</p>
      <Pair
        left={{ plan, view: now.judged.drawing.frame, name: "As it is" }}
        right={{ plan: best, view: then.judged.drawing.frame, name: label }}
      />
    </>
  );
}
