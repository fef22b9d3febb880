// The light as a workplace: the head with its stops, and what each lamp gives the face.
import type { Schemas } from "../api/client";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { Head } from "./Head";

interface Props {
  face: Schemas["FaceSeen"];
  units: UnitSystem;
  selected: string | null;
  onSelect: (thing: string) => void;
}

const softness = (degrees: number) =>
  degrees < 5 ? "hard" : degrees < 20 ? "medium" : degrees < 40 ? "soft" : "very soft";

export function LightPlace({ face, units, selected, onSelect }: Props) {
  return (
    <section aria-labelledby="face-light">
      <h3 id="face-light" className="subheading">
        The light on your face
      </h3>
      <div className="bg-surround p-3">
        <Head face={face} />
      </div>
      <p className="text-faint mt-1 text-sm">
        Stops against a surface at the eyes that faces the lens, {fixed(face.reference_lx, 0)} lx; right and
        left are the camera's.
      </p>
      <table className="takes mt-3">
        <thead>
          <tr>
            <th>Gives the face</th>
            <th>Light</th>
            <th>Part</th>
          </tr>
        </thead>
        <tbody>
          {face.lamps.map((lamp) => (
            <tr key={lamp.id} aria-current={lamp.id === selected || undefined}>
              <td>
                <button type="button" className="button button-small" onClick={() => onSelect(lamp.id)}>
                  {lamp.id.replaceAll("-", " ")}
                </button>
                <span className="text-faint block text-xs whitespace-normal">
                  {softness(lamp.angular_size_deg)}, {fixed(lamp.angular_size_deg, 0)}° wide from{" "}
                  {formatLength(lamp.distance_m, units)}
                  {lamp.unhidden < 0.98 &&
                    `; ${fixed(100 * (1 - lamp.unhidden), 0)} % hidden by what stands between`}
                </span>
              </td>
              <td>{fixed(lamp.illuminance_lx, 0)} lx</td>
              <td>{fixed(100 * lamp.part, 0)} %</td>
            </tr>
          ))}
          <tr>
            <td>walls, floor, ceiling</td>
            <td>{fixed(face.bounce_lx, 0)} lx</td>
            <td>{face.reference_lx > 0 ? fixed((100 * face.bounce_lx) / face.reference_lx, 0) : 0} %</td>
          </tr>
        </tbody>
      </table>
    </section>
  );
}
