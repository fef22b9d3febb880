// The sound: hear it, see why, change what is in the room, choose another microphone.
import { lazy, Suspense } from "react";

import { Furnishing } from "../things/Furnishing";
import { Schools } from "../schools/Schools";
import { Things } from "../things/Things";
import type { StepProps } from "../table/step";
import { Waiting } from "../ui/states";
import { AllNumbers } from "../reading/AllNumbers";
import type { OnMeasured } from "../reading/onMeasured";
import { DistanceChart } from "./DistanceChart";
import { Listen } from "../hearing/Listen";
import { ListenSetup } from "./ListenSetup";
import { Noises } from "./Noises";
import { Surfaces } from "./Surfaces";
import { useListening } from "./useListening";
import { nameOf } from "./variants";
import { Voice } from "./Voice";

const Microphones = lazy(() => import("./Microphones"));
const Treatment = lazy(() => import("./Treatment"));
const RecordPath = lazy(() => import("./RecordPath"));
const Reverberation = lazy(() => import("./Reverberation"));
const Impulse = lazy(() => import("./Impulse"));

export function SoundNow({ plan, judged, units }: StepProps) {
  const listening = useListening(plan);
  const { sound } = judged;
  return (
    <div className="grid gap-3">
      <Listen
        takes={listening.takes}
        names={{ a: nameOf("a", listening.other), b: nameOf("b", listening.other) }}
      />
      {sound && <DistanceChart chart={sound.chart} units={units} />}
      <details>
        <summary className="min-h-6 cursor-pointer text-sm font-semibold">Change what you hear</summary>
        <div className="mt-2">
          <ListenSetup listening={listening} name={plan.name} />
        </div>
      </details>
    </div>
  );
}

export function SoundByHand({ plan, judged, told, units }: StepProps) {
  const { sound } = judged;
  return (
    <div className="grid gap-5">
      <Furnishing plan={plan} />
      <Voice plan={plan} />
      <Things names={told.things} judged={judged} plan={plan} units={units} />
      <Surfaces plan={plan} />
      {sound && <Noises plan={plan} heard={sound.noises} units={units} />}
    </div>
  );
}

export function SoundChoices({ plan, judged, units }: StepProps) {
  const { sound } = judged;
  if (!sound) return null;
  return (
    <Suspense fallback={<Waiting what="Opening the choices" />}>
      <div className="grid gap-5">
        <Microphones choices={sound.choices} units={units} />
        <Treatment advice={sound.advice} plan={plan} />
        <RecordPath record={sound.record} />
        <Schools ids={["microphone", "record"]} plan={plan} />
      </div>
    </Suspense>
  );
}

export function SoundNumbers({
  plan,
  judged,
  told,
  units,
  onMeasured,
}: StepProps & { onMeasured: OnMeasured }) {
  const { sound } = judged;
  return (
    <Suspense fallback={<Waiting what="Opening the numbers" />}>
      <div className="grid gap-5">
        {sound && <Reverberation seen={sound} plan={plan} />}
        <AllNumbers
          groups={told.groups}
          readings={judged.assessment.readings}
          units={units}
          onMeasured={onMeasured}
        />
        <Impulse plan={plan} variant="planned" title="as planned" />
      </div>
    </Suspense>
  );
}
