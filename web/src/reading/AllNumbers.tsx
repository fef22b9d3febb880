// Every reading of a step in rows, by group; a press opens the working.
import { memo } from "react";

import type { Reading, StepTold } from "../api/client";
import { shown, STANDING_MARKS } from "../table/show";
import type { UnitSystem } from "../units/length";
import { Show } from "../ui/dialog";
import { Explained } from "../ui/terms";
import type { OnMeasured } from "./onMeasured";
import { Working } from "./Working";

interface Props {
  groups: StepTold["groups"];
  readings: Reading[];
  units: UnitSystem;
  onMeasured: OnMeasured;
}

export function AllNumbers({ groups, readings, units, onMeasured }: Props) {
  const byId = new Map(readings.map((reading) => [reading.id, reading]));
  if (groups.length === 0) return <p className="text-faint">No reading belongs to this step.</p>;
  return (
    <div className="gap-x-6 sm:columns-2">
      {groups.map(({ name, readings: ids }) => (
        <section key={name} className="mb-4 break-inside-avoid" aria-label={name || "Readings"}>
          {name && <h3 className="mb-1 text-sm font-bold">{name}</h3>}
          <ul className="border-line border-t">
            {ids.map((id) => {
              const reading = byId.get(id);
              return (
                reading && (
                  <li key={id}>
                    <Row reading={reading} units={units} onMeasured={onMeasured} />
                  </li>
                )
              );
            })}
          </ul>
        </section>
      ))}
    </div>
  );
}

interface RowProps {
  reading: Reading;
  units: UnitSystem;
  onMeasured: OnMeasured;
}

const Row = memo(function Row({ reading, units, onMeasured }: RowProps) {
  const { numeral, unit } = shown(reading.value, reading.unit, units, reading.id);
  const { standing } = reading;
  return (
    <Explained of={reading.id}>
      <span className="block">
        <Show
          title={reading.label}
          trigger={
            <button
              type="button"
              className="border-line hover:border-ink flex min-h-9 w-full cursor-pointer items-center gap-1.5 border-b py-1 text-left text-sm"
              data-reading={reading.id}
            >
              <span className="mr-auto">{reading.label}</span>
              {reading.from !== "computed" && <span className="text-faint text-xs">{reading.from}</span>}
              <span className="numeral font-bold">{numeral}</span>
              <span className="text-faint">{unit}</span>
              {standing !== "plain" && (
                <span className={standing === "poor" ? "text-ember" : ""}>
                  <span aria-hidden="true">{STANDING_MARKS[standing]}</span>
                  <span className="sr-only">{standing}</span>
                </span>
              )}
            </button>
          }
        >
          <Working reading={reading} units={units} onMeasured={onMeasured} />
        </Show>
      </span>
    </Explained>
  );
});
