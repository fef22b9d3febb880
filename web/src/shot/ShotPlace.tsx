// The shot as a workplace: lens table, the same frame at two focal lengths, what is recorded.
import type { Judged, Plan } from "../api/client";
import { limits } from "../api/limits";
import type { Table } from "../corner/useWorktable";
import { OptionalBox } from "../ui/boxes";
import { Tick } from "../ui/fields";
import type { UnitSystem } from "../units/length";
import { withRecording } from "../corner/edits";
import { Angles } from "./Angles";
import { SideBySide } from "./SideBySide";
import { Takes } from "./Takes";

interface Props {
  plan: Plan;
  judged: Judged;
  table: Table;
  units: UnitSystem;
}

export function ShotPlace({ plan, judged, table, units }: Props) {
  const { chart } = judged;
  const locked = plan.layout.camera.locked ?? false;
  return (
    <>
      {chart && <Takes chart={chart} table={table} units={units} locked={locked} />}
      {chart && <SideBySide chart={chart} plan={plan} units={units} />}
      <Angles plan={plan} judged={judged} table={table} units={units} />
      <Recording plan={plan} table={table} />
    </>
  );
}

const FIELDS = [
  ["session_min", "Length of a session", "min", "not told"],
  ["delivered_width_px", "Delivered width", "px", "1920"],
  ["slow_motion_hz", "Inserts in slow motion at", "Hz", "none"],
  ["script_words", "Words of the script read", "", "none"],
  ["words_per_minute", "Words a minute", "", "150"],
] as const;

function Recording({ plan, table }: { plan: Plan; table: Table }) {
  const recording = plan.brief.recording ?? {};
  return (
    <section aria-labelledby="recording">
      <h3 id="recording" className="subheading">
        What is recorded
      </h3>
      <div className="grid gap-3 sm:grid-cols-2">
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
          label="A 9:16 picture is cut from it"
          checked={recording.vertical_cut ?? false}
          onChange={(vertical_cut) => table.edit((p) => withRecording(p, { vertical_cut }))}
        />
      </div>
    </section>
  );
}
