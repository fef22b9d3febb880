// Where the sound is recorded, and what fails silently.
import type { Schemas } from "../api/client";
import { fixed } from "../units/length";
import { Section } from "../ui/Section";

export default function RecordPath({ record }: { record: Schemas["Record"] }) {
  return (
    <Section title="Where it is recorded">
      <p>{record.reason}</p>
      {record.drift_ms != null && (
        <p>
          Two clocks drift apart by about {fixed(record.drift_ms, 0)} ms over a session,{" "}
          {fixed(record.drift_frames ?? 0, 1)} frames: {record.drift_words}.
        </p>
      )}
      {record.cable_words && <p>{record.cable_words}</p>}
      <p className="mt-2 font-semibold">Silent failures: check before every take</p>
      <ol className="list-decimal pl-5 text-sm">
        {record.before_each_take.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ol>
    </Section>
  );
}
