// The schools of microphones side by side in this room.
import type { Schemas } from "../api/client";
import { fixed, formatLength, type UnitSystem } from "../units/length";

export function Choices({ choices, units }: { choices: Schemas["MicrophoneChoice"][]; units: UnitSystem }) {
  return (
    <section aria-labelledby="microphones">
      <h3 id="microphones" className="subheading">
        Microphones side by side, here
      </h3>
      <table className="takes takes-words">
        <thead>
          <tr>
            <th>Where it would be</th>
            <th className="wide-only">Mouth to it</th>
            <th>Voice over room</th>
            <th>Over noise</th>
            <th>STI</th>
          </tr>
        </thead>
        <tbody>
          {choices.map((choice) => (
            <tr key={choice.kind} aria-current={choice.chosen || undefined}>
              <td>
                <span className="font-semibold">{choice.label}</span>
                {choice.chosen && <span className="text-faint"> – as planned</span>}
                {choice.in_picture && <span className="text-faint"> – shows in the picture</span>}
                <span className="text-faint block text-xs">
                  {choice.pattern}, reaches {fixed(choice.distance_factor, 1)} times as far as a round one.{" "}
                  {choice.remark}
                </span>
              </td>
              <td className="wide-only">{formatLength(choice.distance_m, units)}</td>
              <td>
                {fixed(choice.direct_to_reverberant_db, 0)} dB
                <span className="text-faint block text-xs">{choice.direct_words}</span>
              </td>
              <td>
                {fixed(choice.snr_db, 0)} dB
                <span className="text-faint block text-xs">{choice.snr_words}</span>
              </td>
              <td>
                {fixed(choice.sti, 2)}
                <span className="text-faint block text-xs">{choice.sti_words}</span>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="text-faint text-sm">
        Your own where the shelf has one of the kind, else a usual one. None is wrong: a microphone in the
        picture beats bad sound.
      </p>
    </section>
  );
}
