// How long the room rings, band by band, against what is good, and what takes the sound out of it.
import type { Plan, Schemas } from "../api/client";
import type { Table } from "../corner/useWorktable";
import { fixed } from "../units/length";
import { sentence } from "../corner/show";
import { Grid } from "./Grid";
import { hertz } from "./Impulse";
import { Surfaces } from "./Surfaces";

type Seen = Schemas["SoundSeen"];

const WIDTH = 520;
const HEIGHT = 190;
const LEFT = 44;
const RIGHT = 12;
const TOP = 14;
const BOTTOM = 26;

export function Reverberation({ seen, plan, table }: { seen: Seen; plan: Plan; table: Table }) {
  const units = plan.brief.units ?? "metric";
  const { rt60_s: times, bands_hz: bands, good_s: good, best_s: best } = seen;
  const high = Math.max(0.6, Math.ceil(Math.max(...times) * 5) / 5);
  const y = (s: number) => TOP + (1 - s / high) * (HEIGHT - TOP - BOTTOM);
  const slot = (WIDTH - LEFT - RIGHT) / bands.length;
  const total = (index: number) =>
    seen.parts.reduce((sum, part) => sum + (part.absorption_m2[index] ?? 0), 0);
  const middle = (part: Schemas["PartSeen"]) =>
    ((part.absorption_m2[2] ?? 0) + (part.absorption_m2[3] ?? 0)) / 2;
  const all = (total(2) + total(3)) / 2;
  const step = high > 1.2 ? 0.4 : 0.2;
  return (
    <section aria-labelledby="rings">
      <h3 id="rings" className="subheading">
        How long the room rings
      </h3>
      <p>
        {seen.rt_words === "good" ? "Good for a voice" : capital(seen.rt_words)}
        {seen.shape_words ? `; ${seen.shape_words}` : ""}.
        {seen.assumed && " Not every surface is told: taken for a furnished room."}
      </p>
      <svg
        className="rings"
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Reverberation time: ${bands.map((hz, i) => `${String(hz)} hertz ${fixed(times[i] ?? 0, 2)} seconds`).join(", ")}`}
      >
        <rect
          x={LEFT}
          width={WIDTH - LEFT - RIGHT}
          y={y(good[1] ?? 0)}
          height={y(good[0] ?? 0) - y(good[1] ?? 0)}
          className="rings-good"
        />
        <rect
          x={LEFT}
          width={WIDTH - LEFT - RIGHT}
          y={y(best[1] ?? 0)}
          height={y(best[0] ?? 0) - y(best[1] ?? 0)}
          className="rings-best"
        />
        <Grid
          left={LEFT}
          right={WIDTH - RIGHT}
          lines={Array.from({ length: Math.round(high / step) + 1 }, (_, i) => [
            y(i * step),
            i === 0 ? "0 s" : fixed(i * step, 1),
          ])}
          under={bands.map((hz, i) => [LEFT + slot * (i + 0.5), `${hertz(hz)} Hz`])}
          foot={HEIGHT - 8}
        />
        {bands.map((hz, i) => (
          <g key={hz}>
            <rect
              x={LEFT + slot * (i + 0.22)}
              width={slot * 0.56}
              y={y(times[i] ?? 0)}
              height={y(0) - y(times[i] ?? 0)}
              className="rings-bar"
            />
            <text
              x={LEFT + slot * (i + 0.5)}
              y={y(times[i] ?? 0) - 4}
              textAnchor="middle"
              className="plot-name"
            >
              {fixed(times[i] ?? 0, 2)}
            </text>
          </g>
        ))}
      </svg>
      <p className="text-faint text-sm">
        Wide strip: good for a voice before a microphone, {fixed(good[0] ?? 0, 2)} to {fixed(good[1] ?? 0, 2)}{" "}
        s; inner strip: best. For {sentence(seen.volume_m3, "m³", units)} standards give{" "}
        {fixed(seen.standards_s[0] ?? 0, 2)} s (control rooms, BS.1116-3) and{" "}
        {fixed(seen.standards_s[1] ?? 0, 2)} s (speech, DIN 18041
        {seen.volume_m3 < 30 ? `, stated from ${sentence(30, "m³", units)} on` : ""}), both from memory. By
        Sabine instead: {seen.sabine_s.map((s) => fixed(s, 2)).join(", ")} s.
      </p>
      <Surfaces plan={plan} table={table} />
      <details>
        <summary>What takes the sound out of it</summary>
        <table className="takes takes-words">
          <thead>
            <tr>
              <th>At 500 Hz and 1 kHz</th>
              <th>Area</th>
              <th>Absorbs</th>
              <th>Part</th>
            </tr>
          </thead>
          <tbody>
            {seen.parts.map((part) => (
              <tr key={part.what}>
                <td>
                  {part.what}
                  {part.from === "assumed" && <span className="text-faint"> (assumed)</span>}
                  <Bands values={part.absorption_m2} totals={bands.map((_, i) => total(i))} />
                </td>
                <td>{part.area_m2 == null ? "" : sentence(part.area_m2, "m²", units)}</td>
                <td>{sentence(middle(part), "m²", units)}</td>
                <td>{fixed((100 * middle(part)) / all, 0)} %</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </section>
  );
}

/** Its part in each band, as six small columns. */
function Bands({ values, totals }: { values: number[]; totals: number[] }) {
  return (
    <svg className="band-parts" viewBox="0 0 60 12" aria-hidden="true">
      {values.map((value, i) => {
        const part = value / Math.max(totals[i] ?? 1, 1e-9);
        return <rect key={i} x={i * 10} width={8} y={12 - 12 * part} height={12 * part} />;
      })}
    </svg>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
