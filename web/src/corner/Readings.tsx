// Readings as large numerals over their bands; a press opens the working.
import { Dialog } from "radix-ui";
import { memo } from "react";

import type { Reading } from "../api/client";
import type { UnitSystem } from "../units/length";
import { Explained } from "../ui/terms";
import { BandStrip } from "./BandStrip";
import { shown, STANDING_MARKS, STANDING_WORDS } from "./show";
import { Working } from "./Working";

interface Props {
  readings: Reading[];
  units: UnitSystem;
  onMeasured: (id: string, value: number | null) => void;
}

export function Readings({ readings, units, onMeasured }: Props) {
  if (readings.length === 0) return null;
  return (
    <section aria-labelledby="readings">
      <h3 id="readings" className="subheading">
        Readings
      </h3>
      <ul className="readings">
        {readings.map((reading) => (
          <li key={reading.id}>
            <One reading={reading} units={units} onMeasured={onMeasured} />
          </li>
        ))}
      </ul>
    </section>
  );
}

interface OneProps {
  reading: Reading;
  units: UnitSystem;
  onMeasured: Props["onMeasured"];
}

/** Drawn again only when its reading has changed: a moving hand changes few. */
const One = memo(function One({ reading, units, onMeasured }: OneProps) {
  const { numeral, unit } = shown(reading.value, reading.unit, units);
  const poor = reading.standing === "poor";
  return (
    <Dialog.Root>
      <Explained of={reading.id}>
        <Dialog.Trigger className={`reading ${poor ? "reading-poor" : ""}`} data-reading={reading.id}>
          <span className="text-sm">{reading.label}</span>
          <span className="mt-auto flex items-baseline gap-1.5 pt-1 text-2xl font-bold">
            {numeral}
            <span className="text-sm font-normal">{unit}</span>
          </span>
          <BandStrip reading={reading} />
          <span className="text-faint flex items-center gap-1.5 text-xs">
            {reading.standing !== "plain" && (
              <span className={`font-bold ${poor ? "text-ember" : "text-ink"}`}>
                {STANDING_MARKS[reading.standing]} {STANDING_WORDS[reading.standing]}
              </span>
            )}
            {reading.from !== "computed" && <span>{reading.from}</span>}
            {reading.standing === "plain" && reading.from === "computed" && <span>for information</span>}
          </span>
        </Dialog.Trigger>
      </Explained>
      <Working reading={reading} units={units} onMeasured={(value) => onMeasured(reading.id, value)} />
    </Dialog.Root>
  );
});
