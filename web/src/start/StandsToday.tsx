// How a set-up stands today: where eyes, lens, main light and microphone are.
import { TextField } from "../ui/fields";
import type { FieldsProps } from "./firstRun";

const ROWS = [
  ["seat", "Your eyes, where you talk", "Needed.", false],
  ["lens", "The lens", "Needed. It is assumed to be aimed at your face.", true],
  ["key", "The main light, middle of its face", "Leave it empty if there is none.", true],
  ["microphone", "The microphone", "Leave it empty if there is none.", true],
] as const;

const AXES = [
  ["x", "From the left wall"],
  ["y", "From the back wall"],
  ["z", "Height"],
] as const;

export function StandsToday({ run, problems, onChange }: FieldsProps) {
  return (
    <div className="grid gap-6">
      {ROWS.map(([field, title, lead, solid]) => (
        <fieldset key={field}>
          <legend className="font-bold">{title}</legend>
          <p className="text-faint mb-2 text-sm">{lead}</p>
          <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
            {AXES.filter(([axis]) => solid || axis !== "z").map(([axis, label]) => (
              <TextField
                key={axis}
                label={label}
                value={run[field][axis]}
                problem={problems[`${field}.${axis}`]}
                onText={(text) => onChange({ [field]: { ...run[field], [axis]: text } })}
              />
            ))}
            {field === "lens" && (
              <>
                <TextField
                  label="Focal length, mm"
                  value={run.focal}
                  problem={problems.focal}
                  onText={(focal) => onChange({ focal })}
                />
                <TextField
                  label="f-number"
                  value={run.fNumber}
                  problem={problems.fNumber}
                  onText={(fNumber) => onChange({ fNumber })}
                />
              </>
            )}
          </div>
        </fieldset>
      ))}
    </div>
  );
}
