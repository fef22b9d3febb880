// The schools of microphones side by side in this room.
import type { Schemas } from "../api/client";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { capital } from "../units/text";
import { Section } from "../ui/Section";
import { Table } from "../ui/Table";

interface Props {
  choices: Schemas["MicrophoneChoice"][];
  units: UnitSystem;
}

export default function Microphones({ choices, units }: Props) {
  return (
    <Section title="Microphones side by side, in this room">
      <Table label="Microphones">
        <thead>
          <tr>
            <th>Where it would be</th>
            <th className="wide-only">Mouth to it</th>
            <th>Voice over room</th>
            <th>Voice over noise</th>
            <th>STI</th>
          </tr>
        </thead>
        <tbody>
          {choices.map((choice) => (
            <tr key={choice.kind} aria-current={choice.chosen || undefined}>
              <td>
                <span className="font-semibold">{choice.label}</span>
                {choice.chosen && <span className="text-faint">, as planned</span>}
                {choice.in_picture && <span className="text-faint">, shows in the picture</span>}
                <span className="text-faint block text-xs">
                  {patternOf(choice)}. {choice.remark}
                </span>
              </td>
              <td className="wide-only whitespace-nowrap">{formatLength(choice.distance_m, units)}</td>
              <Judged value={`${fixed(choice.direct_to_reverberant_db, 0)} dB`} words={choice.direct_words} />
              <Judged value={`${fixed(choice.snr_db, 0)} dB`} words={choice.snr_words} />
              <Judged value={fixed(choice.sti, 2)} words={choice.sti_words} />
            </tr>
          ))}
        </tbody>
      </Table>
      <p className="text-faint mt-1 text-xs">
        Your own where the shelf has one of the kind, else a usual one. A microphone in the picture beats bad
        sound.
      </p>
    </Section>
  );
}

/** Its directional pattern, and what that is worth. */
function patternOf({ pattern, distance_factor: times }: Schemas["MicrophoneChoice"]): string {
  if (times < 1.05) return `${capital(pattern)}: hears all around`;
  return `${capital(pattern)}: may be ${fixed(times, 1)} times as far away as an omnidirectional one`;
}

function Judged({ value, words }: { value: string; words: string }) {
  return (
    <td>
      {value}
      <span className="text-faint block text-xs">{words}</span>
    </td>
  );
}
