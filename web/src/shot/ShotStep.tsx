// The shot: distance and lens, what is sharp, what is recorded, second angles.
import { Schools } from "../schools/Schools";
import { Things } from "../things/Things";
import type { StepProps } from "../table/step";
import { Angles } from "./Angles";
import { CameraSettings } from "./CameraSettings";
import { Chart } from "./Chart";
import { Recording } from "./Recording";
import { SideBySide } from "./SideBySide";
import { Takes } from "./Takes";

export function ShotNow({ plan, judged, units }: StepProps) {
  const { chart } = judged;
  return chart ? <Chart chart={chart} units={units} locked={plan.layout.camera.locked ?? false} /> : null;
}

export function ShotByHand({ plan, judged, told, units }: StepProps) {
  return (
    <div className="grid gap-5">
      <CameraSettings plan={plan} units={units} />
      <Things names={told.things} judged={judged} plan={plan} units={units} />
      <Recording plan={plan} />
    </div>
  );
}

export function ShotChoices({ plan, judged, units }: StepProps) {
  const { chart } = judged;
  const locked = plan.layout.camera.locked ?? false;
  return (
    <div className="grid gap-5">
      {chart && <Takes chart={chart} units={units} locked={locked} />}
      {chart && <SideBySide chart={chart} plan={plan} units={units} />}
      <Angles plan={plan} judged={judged} units={units} />
      <Schools ids={["lens", "aperture", "camera-height", "frame-rate"]} plan={plan} />
    </div>
  );
}
