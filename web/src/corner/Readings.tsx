// Every reading as a large numeral over its band; a press opens the working.
import { Dialog } from "radix-ui";

import type { Reading } from "../api/client";
import { fixed, type UnitSystem } from "../units/length";
import { goodRange, sentence, shown, STANDING_MARKS, STANDING_WORDS } from "./show";

const GROUPS: [string, string][] = [
  ["sound", "Sound"],
  ["light", "Light"],
  ["shot", "Shot"],
  ["room", "Room"],
  ["person", "You"],
];

export function Readings({ readings, units }: { readings: Reading[]; units: UnitSystem }) {
  return (
    <section className="mt-7" aria-labelledby="readings">
      <h2 id="readings" className="heading mb-3">
        Readings
      </h2>
      {GROUPS.map(([module, title]) => {
        const own = readings.filter((r) => r.id.startsWith(`${module}.`));
        if (own.length === 0) return null;
        return (
          <div key={module} className="mb-5">
            <h3 className="text-faint mb-2 text-sm font-semibold">{title}</h3>
            <ul className="grid grid-cols-2 gap-2 sm:grid-cols-3 lg:grid-cols-4 xl:grid-cols-6">
              {own.map((reading) => (
                <li key={reading.id}>
                  <One reading={reading} units={units} />
                </li>
              ))}
            </ul>
          </div>
        );
      })}
    </section>
  );
}

function One({ reading, units }: { reading: Reading; units: UnitSystem }) {
  const { numeral, unit } = shown(reading.value, reading.unit, units);
  const poor = reading.standing === "poor";
  return (
    <Dialog.Root>
      <Dialog.Trigger
        className={`sheet hover:border-ink flex h-full w-full flex-col p-3 text-left ${poor ? "border-ember border-2" : ""}`}
      >
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
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 bg-black/45" />
        <Dialog.Content className="sheet text-ink fixed top-1/2 left-1/2 max-h-[88vh] w-[min(94vw,38rem)] -translate-x-1/2 -translate-y-1/2 overflow-auto p-5">
          <Dialog.Title className="heading">{reading.label}</Dialog.Title>
          <Dialog.Description className="mb-3">
            <span className="text-2xl font-bold">{numeral}</span> {unit}
            {reading.uncertainty !== null && reading.uncertainty !== undefined && (
              <span className="text-faint"> ± {sentence(reading.uncertainty, reading.unit, units)}</span>
            )}
            <span className="text-faint">, {goodRange(reading, units)}</span>
          </Dialog.Description>
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
                  <td className="py-1 text-right">
                    {input.unit === "m"
                      ? sentence(input.value, "m", units)
                      : `${fixed(input.value, Math.abs(input.value) >= 100 ? 0 : 3)} ${input.unit}`}
                  </td>
                  <td className="py-1 pl-4">{input.from}</td>
                </tr>
              ))}
            </tbody>
          </table>
          {reading.working.note && <p className="mb-2 text-sm">{reading.working.note}</p>}
          <p className="text-faint text-sm">Source: {reading.working.source}.</p>
          <Dialog.Close className="button mt-4">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** The band as a strip: good dark, fair light, the value a tick. */
function BandStrip({ reading }: { reading: Reading }) {
  const { band, value } = reading;
  if (!band || value === null || value === undefined) return <span className="my-2 block h-2" />;
  const known = [...band, value].filter((v): v is number => v !== null && v !== undefined);
  const span = Math.max(...known) - Math.min(...known) || 1;
  const [low, high] = [Math.min(...known) - span * 0.15, Math.max(...known) + span * 0.15];
  const at = (v: number) => (100 * (v - low)) / (high - low);
  const [a, b, c, d] = band.map((v) => (v === null || v === undefined ? null : at(v)));
  const [fairFrom, fairTo] = [a ?? b ?? 0, d ?? c ?? 100];
  const [goodFrom, goodTo] = [b ?? fairFrom, c ?? fairTo];
  return (
    <span className="bg-desk relative my-2 block h-2 rounded-sm" aria-hidden="true">
      <span
        className="bg-line absolute inset-y-0"
        style={{ left: `${fairFrom}%`, width: `${fairTo - fairFrom}%` }}
      />
      <span
        className="bg-faint absolute inset-y-0"
        style={{ left: `${goodFrom}%`, width: `${goodTo - goodFrom}%` }}
      />
      <span className="bg-ink absolute -inset-y-1 w-[3px]" style={{ left: `calc(${at(value)}% - 1.5px)` }} />
    </span>
  );
}
