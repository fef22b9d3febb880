// How a reading came about; and, where a person can measure it, the place to type the measured value.
import { Dialog } from "radix-ui";
import { useState } from "react";

import type { Reading } from "../api/client";
import { formatLength, parseLength, type UnitSystem } from "../units/length";
import { useMeaning } from "../ui/terms";
import { goodRange, inputWords, sentence, shown } from "./show";

const FROM_WORDS = {
  typed: "typed",
  measured: "measured",
  assumed: "assumed",
  computed: "computed",
} as const;

interface Props {
  reading: Reading;
  units: UnitSystem;
  /** Puts a measured value in place of the computed one; null takes it out. */
  onMeasured: (value: number | null) => void;
}

export function Working({ reading, units, onMeasured }: Props) {
  const { numeral, unit } = shown(reading.value, reading.unit, units, reading.id);
  const meaning = useMeaning(reading.id);
  return (
    <Dialog.Portal>
      <Dialog.Overlay className="fixed inset-0 z-20 bg-black/45" />
      <Dialog.Content className="dialog">
        <Dialog.Title className="heading">{reading.label}</Dialog.Title>
        <Dialog.Description asChild>
          <div className="mb-3">
            <p>
              <span className="text-2xl font-bold">{numeral}</span> {unit}
              {reading.uncertainty !== null && reading.uncertainty !== undefined && (
                <span className="text-faint">
                  {" "}
                  ± {sentence(reading.uncertainty, reading.unit, units, reading.id)}
                </span>
              )}
              <span className="text-faint">
                , {FROM_WORDS[reading.from]}
                {reading.band ? `, ${goodRange(reading, units)}` : ""}
              </span>
            </p>
            {meaning && <p className="mt-1 text-sm">{meaning}</p>}
          </div>
        </Dialog.Description>
        {reading.measured_range && (
          <Measured reading={reading} units={units} onMeasured={onMeasured} range={reading.measured_range} />
        )}
        <p className="text-sm font-semibold">How it is worked out</p>
        <p className="mb-3">{reading.working.formula}</p>
        <table className="mb-3 w-full text-sm">
          <thead>
            <tr className="border-line border-b text-left">
              <th className="py-1 font-semibold">With</th>
              <th className="py-1 text-right font-semibold">Value</th>
              <th className="py-1 pl-4 font-semibold">From</th>
            </tr>
          </thead>
          <tbody>
            {reading.working.inputs.map((input, index) => (
              <tr key={index} className="border-line border-b">
                <td className="py-1">{input.name}</td>
                <td className="py-1 text-right">{inputWords(input.value, input.unit, units, reading.id)}</td>
                <td className="py-1 pl-4">{FROM_WORDS[input.from]}</td>
              </tr>
            ))}
          </tbody>
        </table>
        {reading.working.note && <p className="mb-2 text-sm">{reading.working.note}</p>}
        <p className="text-faint text-sm">Source: {reading.working.source}.</p>
        <Dialog.Close className="button mt-4">Close</Dialog.Close>
      </Dialog.Content>
    </Dialog.Portal>
  );
}

function Measured({ reading, units, onMeasured, range }: Props & { range: number[] }) {
  const length = reading.unit === "m";
  const measured = reading.from === "measured";
  const [text, setText] = useState("");
  const [low = 0, high = 0] = range;
  const words = (v: number) => (length ? formatLength(v, units) : `${v} ${reading.unit}`.trim());
  const value = length
    ? parseLength(text, units)
    : text.trim() === ""
      ? null
      : Number(text.replace(",", "."));
  const bad =
    text.trim() !== "" && (value === null || !Number.isFinite(value) || value < low || value > high)
      ? `“${text}” is not accepted: give ${words(low)} to ${words(high)}.`
      : null;
  return (
    <form
      className="bg-desk mb-4 rounded p-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (bad || value === null) return;
        onMeasured(value);
        setText("");
      }}
    >
      <label className="text-sm font-semibold">
        {measured ? "Measured again" : "Measured it yourself?"} {reading.unit !== "m" && reading.unit}
        <span className="mt-1 flex gap-2">
          <input
            className="field min-w-0 font-normal"
            inputMode="decimal"
            autoComplete="off"
            value={text}
            aria-invalid={bad ? true : undefined}
            aria-describedby={bad ? "measured-bad" : undefined}
            onChange={(event) => setText(event.target.value)}
          />
          <button
            type="submit"
            className="button whitespace-nowrap"
            disabled={bad !== null || text.trim() === ""}
          >
            Use it
          </button>
        </span>
      </label>
      {bad && (
        <p id="measured-bad" className="text-ember mt-1 text-sm font-semibold">
          <span aria-hidden="true">▲ </span>
          {bad}
        </p>
      )}
      {measured ? (
        <button type="button" className="button mt-2" onClick={() => onMeasured(null)}>
          Use the computed value
        </button>
      ) : (
        <p className="text-faint mt-1 text-xs">It then stands in place of the computed value.</p>
      )}
    </form>
  );
}
