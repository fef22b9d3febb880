// The light as a workplace: the head with its stops, now and as it was held, what each lamp gives the face, and what the same
// key would do nearer.
import { useState } from "react";

import type { Judged, PatchStep, Schemas } from "../api/client";
import { sentence } from "../corner/show";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { Head } from "./Head";

interface Props {
  judged: Judged;
  units: UnitSystem;
  selected: string | null;
  onSelect: (thing: string) => void;
  onApply: (patch: PatchStep[]) => void;
}

interface Held {
  face: Schemas["FaceSeen"];
  readings: Schemas["Reading"][];
}

/** Readings that say what a change of light does, in the order that they are told. */
const COMPARED = [
  "light.face.illuminance_lx",
  "light.face.exposure_stops",
  "light.face.ratio",
  "light.key.azimuth_deg",
  "light.key.elevation_deg",
  "light.key.angular_size_deg",
  "light.face.socket_stops",
  "light.background.stops",
  "light.face.cct_k",
];

export const softness = (degrees: number) =>
  degrees < 5 ? "hard" : degrees < 20 ? "medium" : degrees < 40 ? "soft" : "very soft";

export function LightPlace({ judged, units, selected, onSelect, onApply }: Props) {
  const [held, setHeld] = useState<Held | null>(null);
  const { face, assessment, same_lamp: same } = judged;
  if (!face) return null;
  return (
    <section aria-labelledby="face-light">
      <div className="mb-1 flex flex-wrap items-center gap-2">
        <h3 id="face-light" className="subheading mr-auto">
          The light on your face
        </h3>
        {held ? (
          <button type="button" className="button button-small" onClick={() => setHeld(null)}>
            Put the earlier light away
          </button>
        ) : (
          <button
            type="button"
            className="button button-small"
            onClick={() => setHeld({ face, readings: assessment.readings })}
          >
            Keep this in sight while I change it
          </button>
        )}
      </div>
      <div className={`bg-surround p-3 ${held ? "heads" : ""}`}>
        {held && (
          <figure>
            <figcaption>Before</figcaption>
            <Head face={held.face} spoken="Before. " />
          </figure>
        )}
        <figure>
          {held && <figcaption>Now</figcaption>}
          <Head face={face} />
        </figure>
      </div>
      <p className="text-faint mt-1 text-sm">
        Stops against a surface at the eyes that faces the lens, {fixed(face.reference_lx, 0)} lx; right and
        left are the camera's.
      </p>
      {held && <Differences before={held.readings} now={assessment.readings} units={units} />}
      {same && (
        <div className="sheet mt-3 p-3">
          <p className="font-semibold">The same lamp, moved: it costs nothing.</p>
          <ul className="text-sm">
            {COMPARED.flatMap((id) => same.changes.filter((c) => c.reading === id)).map((c) => (
              <li key={c.reading}>
                {c.label}: {sentence(c.from, c.unit, units, c.reading)} →{" "}
                {sentence(c.to, c.unit, units, c.reading)}
              </li>
            ))}
          </ul>
          <button type="button" className="button mt-2 w-full text-left" onClick={() => onApply(same.patch)}>
            {same.label}
          </button>
        </div>
      )}
      <table className="takes mt-3">
        <thead>
          <tr>
            <th>Gives the face</th>
            <th>Light</th>
            <th>Stops</th>
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
              <td>{inStops(lamp.part)}</td>
              <td>{fixed(100 * lamp.part, 0)} %</td>
            </tr>
          ))}
          {face.windows_lx > 0 && (
            <tr>
              <td>windows, overcast</td>
              <td>{fixed(face.windows_lx, 0)} lx</td>
              <td>{inStops(face.windows_lx / face.reference_lx)}</td>
              <td>{fixed((100 * face.windows_lx) / face.reference_lx, 0)} %</td>
            </tr>
          )}
          <tr>
            <td>walls, floor, ceiling</td>
            <td>{fixed(face.bounce_lx, 0)} lx</td>
            <td>{inStops(face.bounce_lx / face.reference_lx)}</td>
            <td>{face.reference_lx > 0 ? fixed((100 * face.bounce_lx) / face.reference_lx, 0) : 0} %</td>
          </tr>
        </tbody>
      </table>
    </section>
  );
}

/** A part of all light, in stops under the whole. */
const inStops = (part: number) =>
  part > 1e-4 ? `−${fixed(Math.abs(Math.log2(Math.min(part, 1))), 1)}` : "–";

function Differences({
  before,
  now,
  units,
}: Record<"before" | "now", Schemas["Reading"][]> & { units: UnitSystem }) {
  const value = (readings: Schemas["Reading"][], id: string) => readings.find((r) => r.id === id);
  const rows = COMPARED.flatMap((id) => {
    const [a, b] = [value(before, id), value(now, id)];
    return a && b ? [[a, b] as const] : [];
  });
  return (
    <table className="takes mt-2">
      <thead>
        <tr>
          <th>Reading</th>
          <th>Before</th>
          <th>Now</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([a, b]) => {
          const [was, is] = [sentence(a.value, a.unit, units, a.id), sentence(b.value, b.unit, units, b.id)];
          return (
            <tr key={a.id}>
              <td className="compare-label">{b.label}</td>
              <td>{was}</td>
              <td className={was === is ? "text-faint" : "font-bold"}>{is}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
