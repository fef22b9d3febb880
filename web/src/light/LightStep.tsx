// The light: what each source gives the face, lamps by hand, other ways to light it.
import { Schools } from "../schools/Schools";
import { Things } from "../things/Things";
import type { StepProps } from "../table/step";
import { Lamps } from "./Lamps";
import { OneMore } from "./OneMore";
import { SameLamp } from "./SameLamp";

export function LightNow({ judged, units }: StepProps) {
  return judged.face ? <Lamps face={judged.face} units={units} /> : null;
}

export function LightByHand({ plan, judged, told, units }: StepProps) {
  return <Things names={told.things} judged={judged} plan={plan} units={units} />;
}

export function LightChoices({ corner, plan, judged, units }: StepProps) {
  return (
    <div className="grid gap-5">
      <SameLamp same={judged.same_lamp ?? null} units={units} />
      <OneMore id={corner.id} plan={plan} />
      <Schools ids={["lights", "source", "background"]} plan={plan} />
    </div>
  );
}
