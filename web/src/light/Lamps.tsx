// What gives the face its light: each lamp, the windows, the walls.
import type { Schemas } from "../api/client";
import { useSelection } from "../table/selection";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { capital, spoken } from "../units/text";
import { Table } from "../ui/Table";

/** Softness by size as the face sees it: Fogon's own words. */
export const softness = (degrees: number): string =>
  degrees < 5 ? "hard" : degrees < 20 ? "fairly soft" : degrees < 40 ? "soft" : "very soft";

/** A part of all light, in stops under the whole. */
const inStops = (part: number) => (part > 1e-4 ? fixed(Math.log2(Math.min(part, 1)), 1) : "–");

interface Source {
  name: string;
  lux: number;
  part: number;
}

export function Lamps({ face, units }: { face: Schemas["FaceSeen"]; units: UnitSystem }) {
  const { selected, select } = useSelection();
  const whole = Math.max(face.reference_lx, 1e-9);
  const others: Source[] = [
    { name: "Windows, overcast sky", lux: face.windows_lx },
    { name: "Ceiling light, assumed", lux: face.ceiling_lx },
    { name: "Walls, ceiling, floor", lux: face.bounce_lx },
  ]
    .filter((source) => source.lux > 0.05)
    .map((source) => ({ ...source, part: source.lux / whole }));
  return (
    <Table>
      <thead>
        <tr>
          <th>Source of light</th>
          <th className="wide-only">As your face sees it</th>
          <th>Light</th>
          <th>Stops</th>
          <th>Share</th>
        </tr>
      </thead>
      <tbody>
        {face.lamps.map((lamp) => (
          <tr key={lamp.id} aria-current={lamp.id === selected || undefined}>
            <td>
              <button
                type="button"
                className="min-h-6 min-w-7 cursor-pointer text-left font-semibold underline decoration-dotted underline-offset-4"
                onClick={() => select(lamp.id)}
              >
                {capital(spoken(lamp.id))}
              </button>
            </td>
            <td className="wide-only">
              {softness(lamp.angular_size_deg)}, {fixed(lamp.angular_size_deg, 0)}° from{" "}
              {formatLength(lamp.distance_m, units)}
              {lamp.unhidden < 0.98 && `, ${fixed(100 * (1 - lamp.unhidden), 0)} % hidden`}
            </td>
            <Figures lux={lamp.illuminance_lx} part={lamp.part} />
          </tr>
        ))}
        {others.map((source) => (
          <tr key={source.name}>
            <td>{source.name}</td>
            <td className="wide-only" />
            <Figures {...source} />
          </tr>
        ))}
      </tbody>
    </Table>
  );
}

function Figures({ lux, part }: Pick<Source, "lux" | "part">) {
  return (
    <>
      <td>{fixed(lux, 0)} lx</td>
      <td>{inStops(part)}</td>
      <td>{fixed(100 * part, 0)} %</td>
    </>
  );
}
