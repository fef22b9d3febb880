// What is recorded: how long, how wide, what is read.
import type { Plan } from "../api/client";
import { limits } from "../api/limits";
import { withRecording } from "../table/edits";
import { useTable } from "../table/useTable";
import { OptionalBox } from "../ui/boxes";
import { Tick } from "../ui/fields";
import { Section } from "../ui/Section";

const FIELDS = [
  ["session_min", "Length of a session", "min", "not given"],
  ["delivered_width_px", "Delivered width", "px", "1920"],
  ["slow_motion_hz", "Slow-motion inserts at", "Hz", "none"],
  ["script_words", "Words in the script", "", "none"],
  ["words_per_minute", "Words a minute", "", "150"],
] as const;

export function Recording({ plan }: { plan: Plan }) {
  const table = useTable();
  const recording = plan.brief.recording ?? {};
  return (
    <Section title="What is recorded">
      <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2 sm:grid-cols-3">
        {FIELDS.map(([field, label, unit, without]) => (
          <OptionalBox
            key={field}
            label={label}
            unit={unit}
            value={recording[field] ?? null}
            without={without}
            within={limits[`Recording.${field}`]}
            onCommit={(value) => table.edit((p) => withRecording(p, { [field]: value }))}
          />
        ))}
        <Tick
          label="Also cut to 9:16"
          checked={recording.vertical_cut ?? false}
          onTick={(vertical_cut) => table.act((p) => withRecording(p, { vertical_cut }))}
        />
      </div>
    </Section>
  );
}
