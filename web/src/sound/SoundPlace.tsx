// The sound as a workplace: hear it, see why, and what would help.
import type { Judged, Plan, Schemas } from "../api/client";
import type { Table } from "../corner/useWorktable";
import { Choice } from "../ui/fields";
import { fixed, type UnitSystem } from "../units/length";
import { Choices } from "./Choices";
import { DistanceChart } from "./DistanceChart";
import { Listen } from "./Listen";
import { Noises } from "./Noises";
import { Reverberation } from "./Reverberation";
import { Treatment } from "./Treatment";

interface Props {
  plan: Plan;
  judged: Judged;
  table: Table;
  units: UnitSystem;
}

/** What comes first: hearing it, and the numbers over distance. */
export function SoundPlace({ plan, judged, table, units }: Props) {
  const { sound } = judged;
  if (!sound) return null;
  return (
    <>
      <Listen plan={plan} />
      <section aria-labelledby="nearer">
        <h3 id="nearer" className="subheading">
          Nearer and farther
        </h3>
        <DistanceChart chart={sound.chart} units={units} />
      </section>
      <Choices choices={sound.choices} units={units} />
      <Reverberation seen={sound} plan={plan} table={table} />
      <Treatment advice={sound.advice} plan={plan} table={table} />
    </>
  );
}

/** What comes after the readings: noises, the room's own tones, where it is recorded. */
export function SoundRest({ plan, judged, table, units }: Props) {
  const { sound } = judged;
  if (!sound) return null;
  return (
    <>
      <Noises plan={plan} heard={sound.noises} table={table} units={units} />
      {(sound.modes_hz.length > 0 || sound.flutter.length > 0) && <Own sound={sound} />}
      <RecordPath record={sound.record} />
      <Voice plan={plan} table={table} />
    </>
  );
}

const VOICES = [
  ["relaxed", "relaxed, as to somebody beside you"],
  ["normal", "normal, as in a conversation"],
  ["raised", "raised, as to a group"],
  ["loud", "loud, as on a stage"],
] as const;

function Voice({ plan, table }: { plan: Plan; table: Table }) {
  const told = plan.brief.person.voice;
  return (
    <Choice
      label={`How you speak${told ? "" : " (assumed)"}`}
      value={told ?? "normal"}
      options={VOICES}
      onChange={(voice) =>
        table.edit((p) => ({
          ...p,
          brief: { ...p.brief, person: { ...p.brief.person, voice: voice as Schemas["Effort"] } },
        }))
      }
    />
  );
}

/** What the room sings by itself. */
function Own({ sound }: { sound: Schemas["SoundSeen"] }) {
  return (
    <section aria-labelledby="own-tones">
      <h3 id="own-tones" className="subheading">
        What the room adds by itself
      </h3>
      {sound.flutter.length > 0 && (
        <p>
          A clap flutters between {sound.flutter.join("; and between ")}: hang something on one of each pair.
        </p>
      )}
      {sound.modes_words.map((words) => (
        <p key={words}>{words}</p>
      ))}
      {sound.modes_hz.length > 0 && (
        <p className="text-faint text-sm">
          Its lowest tones: {sound.modes_hz.map((hz) => fixed(hz, 0)).join(", ")} Hz.
        </p>
      )}
    </section>
  );
}

function RecordPath({ record }: { record: Schemas["Record"] }) {
  return (
    <section aria-labelledby="record">
      <h3 id="record" className="subheading">
        Where it is recorded
      </h3>
      <p>{record.reason}</p>
      {record.drift_ms != null && (
        <p>
          Two clocks run apart by about {fixed(record.drift_ms, 0)} ms over a session,{" "}
          {fixed(record.drift_frames ?? 0, 1)} frames: {record.drift_words}.
        </p>
      )}
      {record.cable_words && <p>{record.cable_words}</p>}
      <p className="mt-2 font-semibold">Before every take: this fails without a sound</p>
      <ol className="places">
        {record.before_each_take.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ol>
    </section>
  );
}
