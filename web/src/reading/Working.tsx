// How a reading came about; and, where a person can measure it, the place to type the measured value.
import type { Reading } from "../api/client";
import { goodRange, inputWords, sentence, shown } from "../table/show";
import { useMeaning } from "../ui/terms";
import type { UnitSystem } from "../units/length";
import { Measured } from "./Measured";
import type { OnMeasured } from "./onMeasured";

interface Props {
  reading: Reading;
  units: UnitSystem;
  onMeasured: OnMeasured;
}

export function Working({ reading, units, onMeasured }: Props) {
  const { numeral, unit } = shown(reading.value, reading.unit, units, reading.id);
  const meaning = useMeaning(reading.id);
  return (
    <>
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
            , {reading.from}
            {reading.band ? `, ${goodRange(reading, units)}` : ""}
          </span>
        </p>
        {meaning && <p className="mt-1 text-sm">{meaning}</p>}
      </div>
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
              <td className="py-1 pl-4">{input.from}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {reading.working.note && <p className="mb-2 text-sm">{reading.working.note}</p>}
      <p className="text-faint text-sm">Source: {reading.working.source}.</p>
    </>
  );
}
