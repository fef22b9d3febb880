// Readings to look at first, as large numerals over their bands; a press opens the working.
import { memo } from "react";

import type { Reading } from "../api/client";
import { shown, STANDING_MARKS, STANDING_WORDS } from "../table/show";
import type { UnitSystem } from "../units/length";
import { SHEET } from "../ui/Section";
import { Show } from "../ui/dialog";
import { Explained } from "../ui/terms";
import { BandStrip } from "./BandStrip";
import type { OnMeasured } from "./onMeasured";
import { Working } from "./Working";

interface Props {
  readings: Reading[];
  units: UnitSystem;
  onMeasured: OnMeasured;
  /** Beside a picture: one under the other. */
  stacked?: boolean;
}

export function Tiles({ readings, units, onMeasured, stacked = false }: Props) {
  if (readings.length === 0) return null;
  const columns = stacked ? "" : readings.length === 3 ? "sm:grid-cols-3" : "sm:grid-cols-4";
  return (
    <ul className={stacked ? "grid content-start gap-2" : `grid grid-cols-2 gap-2 ${columns}`}>
      {readings.map((reading) => (
        <li key={reading.id}>
          <Tile reading={reading} units={units} onMeasured={onMeasured} stacked={stacked} />
        </li>
      ))}
    </ul>
  );
}

interface TileProps {
  reading: Reading;
  units: UnitSystem;
  onMeasured: OnMeasured;
  stacked: boolean;
}

/** Drawn again only when its reading has changed: a moving hand changes few. */
const Tile = memo(function Tile({ reading, units, onMeasured, stacked }: TileProps) {
  const { numeral, unit } = shown(reading.value, reading.unit, units, reading.id);
  const poor = reading.standing === "poor";
  const numerals = (
    <span className="flex items-baseline gap-1 font-bold">
      <span className={`numeral ${stacked ? "text-lg" : "text-xl"}`}>{numeral}</span>
      <span className="text-faint text-sm font-normal">{unit}</span>
    </span>
  );
  const look = `${SHEET} hover:border-ink flex h-full w-full cursor-pointer flex-col px-3 text-left ${stacked ? "py-1" : "py-1.5"} ${poor ? "border-ember" : ""}`;
  return (
    <Explained of={reading.id}>
      <span className="block h-full">
        <Show
          title={reading.label}
          trigger={
            <button type="button" className={look} data-reading={reading.id}>
              {stacked ? (
                <span className="flex w-full items-baseline gap-2">
                  <span className="mr-auto text-xs leading-tight">{reading.label.split(",")[0]}</span>
                  <Mark reading={reading} bare />
                  {numerals}
                </span>
              ) : (
                <>
                  <span className="text-xs leading-snug">{reading.label}</span>
                  <span className="mt-auto">{numerals}</span>
                </>
              )}
              <BandStrip reading={reading} />
              {!stacked && <Mark reading={reading} />}
            </button>
          }
        >
          <Working reading={reading} units={units} onMeasured={onMeasured} />
        </Show>
      </span>
    </Explained>
  );
});

/** How it stands, by shape and word, and where it comes from; what is good and computed goes without saying. */
function Mark({ reading, bare = false }: { reading: Reading; bare?: boolean }) {
  const { standing, from } = reading;
  const words = from === "computed" ? "" : from;
  if (standing === "good" && words === "") return <span className="sr-only">good</span>;
  if (standing === "plain" && words === "") return null;
  return (
    <span className="text-faint flex gap-1.5 text-xs">
      {standing !== "plain" && (
        <span className={`font-bold ${standing === "poor" ? "text-ember" : "text-ink"}`}>
          <span aria-hidden="true">{STANDING_MARKS[standing]}</span>{" "}
          <span className={bare ? "sr-only" : ""}>{STANDING_WORDS[standing]}</span>
        </span>
      )}
      {words && <span>{words}</span>}
    </span>
  );
}
