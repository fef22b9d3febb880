// You, what the recording is for, what you own, how it is set up today, what you can spend.
import { useQuery } from "@tanstack/react-query";
import { Controller, useWatch } from "react-hook-form";

import { api } from "../api/client";
import { SCHOOL_NAMES } from "../schools/names";
import { GearEditor } from "../shelf/GearEditor";
import { formatGap } from "../units/length";
import { Choice } from "../ui/fields";
import { SHEET } from "../ui/Section";
import { Check, Group, Pick, Text } from "./Field";
import { useAnswers } from "./form";

export function YouFields() {
  const { control } = useAnswers();
  const [units, posture, furniture] = useWatch({ control, name: ["units", "posture", "furniture"] });
  const desks = furniture.filter((piece) => piece.kind === "desk" || piece.kind === "table");
  return (
    <Group>
      <Text
        path="stature"
        label="Stature"
        help="Standing, without shoes."
        placeholder={units === "imperial" ? "5' 8\"" : "1.72 m"}
      />
      <Pick
        path="posture"
        label="In the picture you are"
        options={[
          ["seated", "seated"],
          ["standing", "standing"],
        ]}
      />
      {posture === "seated" && (
        <Text path="seatHeight" label="Seat height, sat on" help="Empty: 0.45 m assumed." />
      )}
      <Text
        path="eyeHeight"
        label="Eye height, measured"
        help="Floor to eyes as you will sit or stand. Empty: from your stature."
      />
      <Pick
        path="seatAt"
        label="You sit at"
        options={[["", "nothing"], ...desks.map((piece) => [piece.id, piece.id] as const)]}
      />
      <Text path="lean" label="You lean forward by" help={`Empty: ${formatGap(0.05, units)} assumed.`} />
      <Check path="glasses" label="You wear glasses" />
    </Group>
  );
}

const PURPOSES = [
  ["talk-to-lens", "Talk to the lens", "Lesson or channel: from the chest up, eyes in the lens."],
  ["audition-tape", "Audition or application tape", "Eyes just beside the lens, plain wall, level camera."],
  ["vertical-short", "Vertical short", "Upright picture, from the waist up."],
  ["screen-lesson", "Narrated screen lesson", "Head and shoulders, plain background; sound before picture."],
  ["performance", "Performance with an instrument", "Wide enough for you and the instrument."],
  ["keyed-background", "Keyed background", "In front of an even screen of one colour, to be replaced."],
] as const;

export function PurposeFields() {
  const { register, control } = useAnswers();
  const purpose = useWatch({ control, name: "purpose" });
  return (
    <>
      <fieldset className="mb-6">
        <legend className="sr-only">Purpose</legend>
        <div className="grid gap-3 sm:grid-cols-3">
          {PURPOSES.map(([id, label, help]) => (
            <label
              key={id}
              className={`${SHEET} flex cursor-pointer gap-3 p-4 ${purpose === id ? "border-ink border-2" : ""}`}
            >
              <input
                type="radio"
                value={id}
                className="accent-ember mt-1 h-6 w-6 shrink-0"
                {...register("purpose")}
              />
              <span>
                <span className="block font-semibold">{label}</span>
                <span className="text-faint text-sm">{help}</span>
              </span>
            </label>
          ))}
        </div>
      </fieldset>
      <SchoolFields />
    </>
  );
}

function SchoolFields() {
  const { control, setValue } = useAnswers();
  const chosen = useWatch({ control, name: "schools" });
  const schools = useQuery({ queryKey: ["schools"], queryFn: api.schools, staleTime: Infinity });
  const working = schools.data?.filter((school) => school.readings.length > 0) ?? [];
  if (working.length === 0) return null;
  return (
    <details className={`${SHEET} p-4`}>
      <summary className="min-h-6 cursor-pointer font-semibold">
        Where practitioners disagree: change a default
      </summary>
      <div className="mt-4 grid items-start gap-4 sm:grid-cols-2">
        {working.map((school) => (
          <Choice
            key={school.id}
            label={SCHOOL_NAMES[school.id] ?? school.id}
            help={`Default because: ${school.reason}`}
            value={chosen[school.id] ?? school.choices[0]?.id ?? ""}
            options={school.choices.map((c) => [c.id, c.label] as const)}
            onPick={(choice) =>
              setValue("schools", { ...chosen, [school.id]: choice }, { shouldDirty: true })
            }
          />
        ))}
      </div>
    </details>
  );
}

export function GearFields() {
  const { control } = useAnswers();
  const units = useWatch({ control, name: "units" });
  return (
    <Controller
      control={control}
      name="gear"
      render={({ field }) => (
        <GearEditor
          gear={field.value}
          units={units}
          inUse={() => false}
          onChange={(change) => field.onChange(change(field.value))}
        />
      )}
    />
  );
}

const PLACES = [
  ["seat", "Where your eyes are now", "", false],
  ["lens", "The lens now", "It is assumed to be aimed at you.", true],
  ["key", "The key light now", "Leave it empty if there is none.", true],
  ["microphone", "The microphone now", "Leave it empty if there is none.", true],
] as const;

export function TodayFields() {
  const { control } = useAnswers();
  const today = useWatch({ control, name: "today" });
  return (
    <>
      <div className="mb-4">
        <Check path="today" label="I already have a set-up" />
      </div>
      {today &&
        PLACES.map(([field, title, note, solid]) => (
          <Group key={field} title={title} note={note}>
            <Text path={`${field}.x`} label="From the left wall" />
            <Text path={`${field}.y`} label="From the back wall" />
            {solid && <Text path={`${field}.z`} label="Height" />}
            {field === "lens" && (
              <>
                <Text path="focal" label="Focal length, mm" />
                <Text path="fNumber" label="f-number" />
                <Text path="iso" label="ISO" />
              </>
            )}
          </Group>
        ))}
    </>
  );
}

export function MoneyFields() {
  return (
    <Group>
      <Text path="budget" label="Budget" />
      <Text path="currency" label="Currency" placeholder="EUR" help="Fogon's own prices are in EUR." />
    </Group>
  );
}
