// What each part of each step shows. A step or a part that comes new does not compile until it has its place here.
import type { Step, Tab } from "../api/client";
import { CardByHand, CardChoices, CardNumbers } from "../card/CardStep";
import { DayByHand, DayChoices, DayNow } from "../day/DayStep";
import { LightByHand, LightChoices, LightNow } from "../light/LightStep";
import { MoneyByHand, MoneyChoices, MoneyNow } from "../money/MoneyStep";
import { AllNumbers } from "../reading/AllNumbers";
import type { OnMeasured } from "../reading/onMeasured";
import { RoomByHand, RoomChoices, RoomNow } from "../room/RoomStep";
import { ShotByHand, ShotChoices, ShotNow } from "../shot/ShotStep";
import { SoundByHand, SoundChoices, SoundNow, SoundNumbers } from "../sound/SoundStep";
import type { StepProps } from "../table/step";
import { YouByHand, YouChoices, YouNow } from "../you/YouStep";

export type PartProps = StepProps & { onMeasured: OnMeasured };
type Part = React.ComponentType<PartProps>;

function Numbers({ told, judged, units, onMeasured }: PartProps) {
  return (
    <AllNumbers
      groups={told.groups}
      readings={judged.assessment.readings}
      units={units}
      onMeasured={onMeasured}
    />
  );
}

/** The card's own first part needs the printer and stands in `StepPage`. */
const NoPart: Part = () => null;

export const STEP_PARTS: Record<Step, Record<Tab, Part>> = {
  room: { now: RoomNow, "by-hand": RoomByHand, choices: RoomChoices, numbers: Numbers },
  you: { now: YouNow, "by-hand": YouByHand, choices: YouChoices, numbers: Numbers },
  shot: { now: ShotNow, "by-hand": ShotByHand, choices: ShotChoices, numbers: Numbers },
  light: { now: LightNow, "by-hand": LightByHand, choices: LightChoices, numbers: Numbers },
  day: { now: DayNow, "by-hand": DayByHand, choices: DayChoices, numbers: Numbers },
  sound: { now: SoundNow, "by-hand": SoundByHand, choices: SoundChoices, numbers: SoundNumbers },
  money: { now: MoneyNow, "by-hand": MoneyByHand, choices: MoneyChoices, numbers: CardNumbers },
  card: { now: NoPart, "by-hand": CardByHand, choices: CardChoices, numbers: CardNumbers },
};

/** Where the picture is the subject. */
export const PICTURE_STEPS: readonly Step[] = ["room", "you", "shot", "light", "day"];

/** What a step's drawings and parts are made of beside the judgement. */
export const WANTED: Record<Step, "chart" | "light" | "sound" | null> = {
  room: "chart",
  you: null,
  shot: "chart",
  light: "light",
  day: null,
  sound: "sound",
  money: null,
  card: null,
};
