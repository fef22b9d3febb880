// Picture and what belongs beside it, above the parts of a step where the picture is the subject.
import type { Judged, Plan, Reading, StepTold } from "../api/client";
import { Pair } from "../picture/Pair";
import { Picture } from "../picture/Picture";
import { Tiles } from "../reading/Tiles";
import type { OnMeasured } from "../reading/onMeasured";
import { readingsOf } from "../table/step";
import { Depths } from "../room/Depths";
import type { UnitSystem } from "../units/length";

interface Props {
  judged: Judged;
  plan: Plan;
  told: StepTold | null;
  units: UnitSystem;
  onMeasured: OnMeasured;
  /** The light as it was when it was put aside. */
  before: { judged: Judged; plan: Plan } | null;
}

export function Stage({ judged, plan, told, units, onMeasured, before }: Props) {
  const readings: Reading[] = told ? readingsOf(judged, told.tiles) : [];
  const beside =
    told?.step === "light" ? null : told?.step === "room" && judged.ground ? (
      <Depths ground={judged.ground} units={units} />
    ) : readings.length > 0 ? (
      <Tiles readings={readings} units={units} onMeasured={onMeasured} stacked />
    ) : null;
  return (
    <div
      className={beside ? "grid items-start gap-2 sm:grid-cols-[minmax(0,1.6fr)_minmax(0,1fr)]" : ""}
      data-stage
    >
      {before ? (
        <Pair
          left={{ plan: before.plan, view: before.judged.drawing.frame, name: "Before" }}
          right={{ plan, view: judged.drawing.frame, name: "Now" }}
        />
      ) : (
        <Picture judged={judged} plan={plan} size="large" tallest={beside ? "27vh" : "33vh"} />
      )}
      {beside}
    </div>
  );
}
