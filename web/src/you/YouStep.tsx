// You: where you sit or stand, how tall you are, how lens and lamps see you; the layouts found.
import { Schools } from "../schools/Schools";
import { Things } from "../things/Things";
import type { StepProps } from "../table/step";
import { ButtonLink } from "../ui/button";
import { AsSeen } from "./AsSeen";
import { Body } from "./Body";
import { Layouts } from "./Layouts";

export function YouNow({ corner, plan }: StepProps) {
  return <Layouts id={corner.id} name={corner.name} plan={plan} />;
}

export function YouByHand({ corner, plan, judged, told, units }: StepProps) {
  return (
    <div className="grid gap-5">
      <Body plan={plan} units={units} />
      <AsSeen plan={plan} />
      <Things names={told.things} judged={judged} plan={plan} units={units} />
      <p>
        <ButtonLink to={`/corners/${String(corner.id)}/answers`}>Change your answers</ButtonLink>
      </p>
    </div>
  );
}

export function YouChoices({ plan }: StepProps) {
  return <Schools ids={["placement", "monitor"]} plan={plan} />;
}
