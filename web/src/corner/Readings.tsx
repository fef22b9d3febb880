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
  /** Groups by name; a group without a name stands alone. */
  groups: [string, Reading[]][];
  units: UnitSystem;
  onMeasured: (id: string, value: number | null) => void;
}

export function Readings({ groups, units, onMeasured }: Props) {
  if (groups.every(([, readings]) => readings.length === 0)) return null;
  return (
    <section aria-labelledby="readings">
      <h3 id="readings" className="subheading">
        Readings
      </h3>
      {groups.map(([name, readings]) => (
        <div key={name} className="reading-group">
          {name && <h4 className="group-name">{name}</h4>}
          <Listed readings={readings.filter((r) => r.band)} className="readings">
            {(reading) => <One reading={reading} units={units} onMeasured={onMeasured} />}
          </Listed>
          <Listed readings={readings.filter((r) => !r.band)} className="reading-rows">
            {(reading) => <Row reading={reading} units={units} onMeasured={onMeasured} />}
          </Listed>
        </div>
      ))}
    </section>
  );
}

function Listed({
  readings,
  className,
  children,
}: {
  readings: Reading[];
  className: string;
  children: (reading: Reading) => React.ReactNode;
}) {
  if (readings.length === 0) return null;
  return (
    <ul className={className}>
      {readings.map((reading) => (
        <li key={reading.id}>{children(reading)}</li>
      ))}
    </ul>
  );
}

interface OneProps {
  reading: Reading;
  units: UnitSystem;
  onMeasured: Props["onMeasured"];
}

/** Drawn again only when its reading has changed: a moving hand changes few. */
const One = memo(function One({ reading, units, onMeasured }: OneProps) {
  const { numeral, unit } = shown(reading.value, reading.unit, units, reading.id);
  const poor = reading.standing === "poor";
  return (
    <Dialog.Root>
      <Explained of={reading.id}>
        <Dialog.Trigger className={`reading ${poor ? "reading-poor" : ""}`} data-reading={reading.id}>
          <span className="text-sm">{reading.label}</span>
          <span className="mt-auto flex items-baseline gap-1.5 pt-1 text-2xl font-bold">
            <span className="numeral">{numeral}</span>
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

/** A reading for information: one line, opened like the others. */
const Row = memo(function Row({ reading, units, onMeasured }: OneProps) {
  const { numeral, unit } = shown(reading.value, reading.unit, units, reading.id);
  return (
    <Dialog.Root>
      <Explained of={reading.id}>
        <Dialog.Trigger className="reading-row" data-reading={reading.id}>
          <span className="mr-auto">{reading.label}</span>
          <span className="numeral font-bold">{numeral}</span>
          <span className="text-faint">{unit}</span>
          {reading.from === "measured" && <span className="text-faint">measured</span>}
        </Dialog.Trigger>
      </Explained>
      <Working reading={reading} units={units} onMeasured={(value) => onMeasured(reading.id, value)} />
    </Dialog.Root>
  );
});
