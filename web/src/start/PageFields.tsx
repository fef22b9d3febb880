// What each page of the first run asks.
import { ToggleGroup } from "radix-ui";

import { FURNISHINGS } from "../table/surfaces";
import type { UnitSystem } from "../units/length";
import { Choice, TextField } from "../ui/fields";
import { inUnits, type FieldsProps, type FirstRun } from "./firstRun";
import { CAMERAS, LAMPS, MICROPHONES } from "./gear";
import { ManyOf, OneOf } from "./GearGrid";
import { PLACES_TO_TALK, PURPOSES, WALLS } from "./pages";
import { StandsToday } from "./StandsToday";

export function PageFields({ page, ...rest }: FieldsProps & { page: string }) {
  switch (page) {
    case "Room":
      return <RoomPage {...rest} />;
    case "You":
      return <YouPage {...rest} />;
    case "Shot":
      return <ShotPage {...rest} />;
    case "Light":
      return (
        <ManyOf
          label="Lamps and boards"
          things={LAMPS}
          counts={rest.run.lamps}
          onCounts={(lamps) => rest.onChange({ lamps })}
          none="Then Fogon works with window and room light, and tells what to buy first."
        />
      );
    case "Sound":
      return (
        <ManyOf
          label="Microphones"
          things={MICROPHONES}
          counts={rest.run.microphones}
          onCounts={(microphones) => rest.onChange({ microphones })}
          none="Then the camera's own microphone records, and a microphone is what to buy first."
        />
      );
    case "Money":
      return <MoneyPage {...rest} />;
    default:
      return <StandsToday {...rest} />;
  }
}

/** A default that nobody has confirmed is marked as assumed. */
const assumed = (run: FirstRun, field: keyof FirstRun, help = "") =>
  [run.answered.includes(field) ? "" : "Assumed: change it if it is otherwise.", help]
    .filter((words) => words !== "")
    .join(" ") || undefined;

const UNITS: readonly (readonly [UnitSystem, string])[] = [
  ["metric", "Metres"],
  ["imperial", "Feet and inches"],
];

function RoomPage({ run, problems, onChange }: FieldsProps) {
  const imperial = run.units === "imperial";
  return (
    <div className="grid gap-4">
      <div>
        <p className="mb-1 text-sm font-semibold" id="units">
          Your tape shows
        </p>
        <ToggleGroup.Root
          type="single"
          aria-labelledby="units"
          value={run.units}
          onValueChange={(units) => units !== "" && onChange(inUnits(run, units as UnitSystem))}
          className="flex gap-2"
        >
          {UNITS.map(([units, words]) => (
            <ToggleGroup.Item
              key={units}
              value={units}
              className="border-line bg-paper data-[state=on]:border-ember data-[state=on]:bg-ember-soft min-h-10 cursor-pointer rounded-lg border px-4 text-sm font-semibold"
            >
              {words}
            </ToggleGroup.Item>
          ))}
        </ToggleGroup.Root>
      </div>
      <div className="grid gap-4 sm:grid-cols-3">
        <TextField
          label="Width, along the back wall"
          placeholder={imperial ? "11' 2\"" : "3.40 m"}
          value={run.width}
          problem={problems.width}
          onText={(width) => onChange({ width })}
        />
        <TextField
          label="Depth, back to front"
          placeholder={imperial ? "9' 6\"" : "2.90 m"}
          value={run.depth}
          problem={problems.depth}
          onText={(depth) => onChange({ depth })}
        />
        <TextField
          label="Ceiling height"
          help={assumed(run, "height")}
          value={run.height}
          problem={problems.height}
          onText={(height) => onChange({ height })}
        />
        <Choice
          label="Door"
          help={assumed(run, "door")}
          value={run.door}
          options={[...WALLS, ["none", "No door"]]}
          onPick={(door) => onChange({ door })}
        />
        <Choice
          label="Largest window"
          help={assumed(run, "window", "It is counted as covered.")}
          value={run.window}
          options={[...WALLS, ["none", "No window"]]}
          onPick={(window) => onChange({ window })}
        />
      </div>
      <Choice
        label="What is in the room"
        help="Soft things reduce the echo."
        value={run.furnishing}
        options={FURNISHINGS}
        onPick={(furnishing) => onChange({ furnishing })}
      />
    </div>
  );
}

function YouPage({ run, problems, onChange }: FieldsProps) {
  return (
    <div className="grid max-w-sm gap-4">
      <TextField
        label="Your height"
        placeholder={run.units === "imperial" ? "5' 8\"" : "1.72 m"}
        value={run.stature}
        problem={problems.stature}
        onText={(stature) => onChange({ stature })}
      />
      <Choice
        label="Where you talk"
        help={assumed(run, "where")}
        value={run.where}
        options={PLACES_TO_TALK}
        onPick={(where) => onChange({ where })}
      />
    </div>
  );
}

function ShotPage({ run, onChange }: FieldsProps) {
  return (
    <div className="grid gap-4">
      <div className="max-w-sm">
        <Choice
          label="What it is for"
          help={assumed(run, "purpose")}
          value={run.purpose}
          options={PURPOSES}
          onPick={(purpose) => onChange({ purpose })}
        />
      </div>
      <OneOf
        label="Camera"
        things={CAMERAS}
        value={run.camera}
        none="None of these"
        onValue={(camera) => onChange({ camera })}
      />
      <p className="text-faint text-sm">
        {run.camera === "none"
          ? "Then borrow a phone: the corner is laid out with one, and Money tells whether a camera is worth buying."
          : "A tripod is assumed (for a webcam the desk), and a stand for each lamp. You can remove them later."}
      </p>
    </div>
  );
}

function MoneyPage({ run, problems, onChange }: FieldsProps) {
  return (
    <div className="max-w-sm">
      <TextField
        label="Budget, EUR"
        help={assumed(run, "budget")}
        value={run.budget}
        problem={problems.budget}
        onText={(budget) => onChange({ budget })}
      />
    </div>
  );
}
