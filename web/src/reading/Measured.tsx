// A value that a person has measured, typed in place of the computed one.
import { useState } from "react";

import type { Reading } from "../api/client";
import { formatLength, parseLength, type UnitSystem } from "../units/length";
import { isPart } from "../table/show";
import { Button } from "../ui/button";
import { FIELD } from "../ui/note";
import type { OnMeasured } from "./onMeasured";

interface Props {
  reading: Reading;
  units: UnitSystem;
  onMeasured: OnMeasured;
  range: number[];
}

export function Measured({ reading, units, onMeasured, range }: Props) {
  const length = reading.unit === "m";
  const [times, unit] = isPart(reading.id) ? [100, "%"] : [1, reading.unit];
  const measured = reading.from === "measured";
  const [text, setText] = useState("");
  const [low = 0, high = 0] = range;
  const words = (v: number) => (length ? formatLength(v, units) : `${times * v} ${unit}`.trim());
  const read = () => {
    if (length) return parseLength(text, units);
    return text.trim() === "" ? null : Number(text.replace(",", ".")) / times;
  };
  const value = read();
  const fits = value !== null && Number.isFinite(value) && value >= low && value <= high;
  const bad =
    text.trim() !== "" && !fits ? `“${text}” is not accepted: give ${words(low)} to ${words(high)}.` : null;
  return (
    <form
      className="bg-desk mb-4 rounded-lg p-3"
      onSubmit={(event) => {
        event.preventDefault();
        if (bad || value === null) return;
        onMeasured(reading.id, value);
        setText("");
      }}
    >
      <label className="text-sm font-semibold">
        {measured ? "Measured again" : "Measured it yourself?"}
        <span className="mt-1 flex items-center gap-2">
          <input
            className={FIELD}
            inputMode="decimal"
            autoComplete="off"
            value={text}
            aria-invalid={bad ? true : undefined}
            aria-describedby={bad ? "measured-bad" : undefined}
            onChange={(event) => setText(event.target.value)}
          />
          {!length && <span className="font-normal whitespace-nowrap">{unit}</span>}
          <Button type="submit" className="whitespace-nowrap" disabled={bad !== null || text.trim() === ""}>
            Use it
          </Button>
        </span>
      </label>
      {bad && (
        <p id="measured-bad" className="text-ember mt-1 text-sm font-semibold">
          <span aria-hidden="true">▲ </span>
          {bad}
        </p>
      )}
      {measured ? (
        <div className="mt-2">
          <Button size="small" onClick={() => onMeasured(reading.id, null)}>
            Use the computed value
          </Button>
        </div>
      ) : (
        <p className="text-faint mt-1 text-xs">It is then used in place of the computed value.</p>
      )}
    </form>
  );
}
