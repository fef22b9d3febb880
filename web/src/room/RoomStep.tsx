// The room: what the distance behind you does, what is in it.
import { Furnishing } from "../things/Furnishing";
import { Schools } from "../schools/Schools";
import { Things } from "../things/Things";
import type { StepProps } from "../table/step";
import { ButtonLink } from "../ui/button";
import { Behind } from "./Behind";
import { Sockets } from "./Sockets";
import { Walls } from "./Walls";

export function RoomNow({ judged, units }: StepProps) {
  const { ground } = judged;
  if (!ground) return null;
  return <Behind ground={ground} units={units} />;
}

export function RoomByHand({ corner, plan, judged, told, units }: StepProps) {
  return (
    <div className="grid gap-5">
      <Furnishing plan={plan} />
      <Walls plan={plan} />
      <Sockets plan={plan} units={units} />
      <Things names={told.things} judged={judged} plan={plan} units={units} />
      <p>
        <ButtonLink to={`/corners/${String(corner.id)}/answers`}>Change the room’s measures</ButtonLink>
      </p>
    </div>
  );
}

export function RoomChoices({ plan }: StepProps) {
  return <Schools ids={["rig"]} plan={plan} />;
}
