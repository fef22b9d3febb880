// Money: first what costs nothing, then what to buy, as a ladder of steps; by hand the weights and what has been spent.
import { Schools } from "../schools/Schools";
import type { StepProps } from "../table/step";
import { ButtonLink } from "../ui/button";
import { Ladder } from "./Ladder";
import { LedgerTable } from "./LedgerTable";
import { Weights } from "./Weights";

export function MoneyNow({ plan, units }: StepProps) {
  return <Ladder plan={plan} units={units} />;
}

export function MoneyByHand({ corner, plan, judged }: StepProps) {
  const weight = (aspect: string) =>
    judged.assessment.aspects.find((one) => one.aspect === aspect)?.weight ?? 0;
  const [sound, light, room, picture, comfort] = ["sound", "light", "room", "picture", "comfort"].map(weight);
  const now = {
    sound: sound ?? 0,
    light: light ?? 0,
    room: room ?? 0,
    picture: picture ?? 0,
    comfort: comfort ?? 0,
  };
  return (
    <div className="grid gap-4">
      <Weights plan={plan} now={now} />
      <LedgerTable plan={plan} />
      <p>
        <ButtonLink to={`/corners/${String(corner.id)}/shelf`}>What you own: the shelf</ButtonLink>
      </p>
    </div>
  );
}

export function MoneyChoices({ plan }: StepProps) {
  return <Schools ids={["spending"]} plan={plan} />;
}
