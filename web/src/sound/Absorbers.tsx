// What absorbs the sound in a room, and how much of it in each band.
import type { Schemas } from "../api/client";
import { sentence } from "../table/show";
import { fixed, type UnitSystem } from "../units/length";
import { Table } from "../ui/Table";

/** The bands at 500 Hz and 1 kHz. */
const MIDDLE = [2, 3];

export function Absorbers({ seen, units }: { seen: Schemas["SoundSeen"]; units: UnitSystem }) {
  const total = (band: number) => seen.parts.reduce((sum, part) => sum + (part.absorption_m2[band] ?? 0), 0);
  const mean = (of: (band: number) => number) =>
    MIDDLE.reduce((sum, band) => sum + of(band), 0) / MIDDLE.length;
  const all = mean(total);
  return (
    <Table>
      <thead>
        <tr>
          <th>At 500 Hz and 1 kHz</th>
          <th>Area</th>
          <th>Absorption</th>
          <th>Share</th>
        </tr>
      </thead>
      <tbody>
        {seen.parts.map((part) => {
          const absorbs = mean((band) => part.absorption_m2[band] ?? 0);
          return (
            <tr key={part.what}>
              <td>
                {part.what}
                {part.from === "assumed" && <span className="text-faint"> (assumed)</span>}
                <Columns values={part.absorption_m2} totals={seen.bands_hz.map((_, i) => total(i))} />
              </td>
              <td>{part.area_m2 == null ? "" : sentence(part.area_m2, "m²", units)}</td>
              <td>{sentence(absorbs, "m²", units)}</td>
              <td>{fixed((100 * absorbs) / all, 0)} %</td>
            </tr>
          );
        })}
      </tbody>
    </Table>
  );
}

/** Its part in each band, as six small columns. */
function Columns({ values, totals }: { values: number[]; totals: number[] }) {
  return (
    <svg className="fill-faint block h-3 w-15" viewBox="0 0 60 12" aria-hidden="true">
      {values.map((value, i) => {
        const part = value / Math.max(totals[i] ?? 1, 1e-9);
        return <rect key={i} x={i * 10} width={8} y={12 - 12 * part} height={12 * part} />;
      })}
    </svg>
  );
}
