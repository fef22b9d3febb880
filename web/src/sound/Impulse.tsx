// The picture of a clap: what arrives when and how loud, from which surface, and how each band dies away.
import { useQuery } from "@tanstack/react-query";

import { api, type Plan, type Schemas } from "../api/client";
import { fixed } from "../units/length";
import { Grid } from "./Grid";

type Seen = Schemas["ImpulseSeen"];

const WIDTH = 520;
const HEIGHT = 170;
const LEFT = 44;
const RIGHT = 12;
const TOP = 16;
const BOTTOM = 26;
const LOWEST = -60;
/** Reflections named in the picture; the table tells all. */
const NAMED = 6;

export function Impulse({
  plan,
  variant,
  title,
}: {
  plan: Plan;
  variant: Schemas["Variant"];
  title: string;
}) {
  const { data: seen } = useQuery({
    queryKey: ["impulse", plan, variant],
    queryFn: () => api.impulse(plan, variant),
    staleTime: Infinity,
    gcTime: 60_000,
    placeholderData: (before: Seen | undefined) => before,
    retry: false,
  });
  if (!seen) return null;
  return (
    <figure className="impulse">
      <figcaption className="text-sm">
        A clap at your mouth, {title}: level against the direct sound.
        {!seen.is_box && " Not a rectangular room: single reflections, then a statistical tail."}
      </figcaption>
      <Picture seen={seen} />
      <details>
        <summary>How each band dies away, and what comes back first</summary>
        <Decays seen={seen} />
        <table className="takes takes-words">
          <thead>
            <tr>
              <th>Comes back from</th>
              <th>Later</th>
              <th>Softer</th>
            </tr>
          </thead>
          <tbody>
            {seen.reflections.map((r) => (
              <tr key={r.words + String(r.delay_ms)}>
                <td>{r.words}</td>
                <td>{fixed(r.delay_ms, 1)} ms</td>
                <td>{fixed(-r.level_db, 1)} dB</td>
              </tr>
            ))}
          </tbody>
        </table>
      </details>
    </figure>
  );
}

function Picture({ seen }: { seen: Seen }) {
  const x = (ms: number) =>
    LEFT + ((ms - seen.from_ms) / (seen.to_ms - seen.from_ms)) * (WIDTH - LEFT - RIGHT);
  const step = (seen.to_ms - seen.from_ms) / seen.levels_db.length;
  const lines = seen.levels_db
    .map((db, index) =>
      db == null
        ? ""
        : `M${fixed(x(seen.from_ms + (index + 0.5) * step), 1)} ${y(LOWEST)}V${fixed(y(Math.min(db, 0)), 1)}`,
    )
    .join("");
  const named = withRoom(seen).map((r) => ({ ...r, at: x(r.delay_ms) }));
  return (
    <svg
      className="impulse-plot"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`Impulse response: ${String(seen.reflections.length)} first reflections within ${fixed(seen.to_ms, 0)} ms`}
    >
      <Grid
        left={LEFT}
        right={WIDTH - RIGHT}
        lines={LEVELS}
        under={[0, 20, 40, 60, 80, 100].map((ms) => [x(ms), ms === 0 ? "0 ms" : String(ms)])}
        foot={HEIGHT - 8}
      />
      <path d={lines} className="impulse-line" />
      {named.map((r) => (
        <g key={r.words}>
          <line x1={r.at} x2={r.at} y1={y(r.level_db)} y2={TOP - 2} className="impulse-hit" />
          <text x={r.at + 2} y={TOP - 4} className="impulse-name">
            {r.words}
          </text>
        </g>
      ))}
    </svg>
  );
}

const y = (db: number) => TOP + (db / LOWEST) * (HEIGHT - TOP - BOTTOM);
const LEVELS = [0, -20, -40, -60].map((db) => [y(db), db === 0 ? "0 dB" : `−${String(-db)}`] as const);

/** The loudest reflections whose names find room beside each other, earliest first. */
function withRoom(seen: Seen): Seen["reflections"] {
  const perMs = (WIDTH - LEFT - RIGHT) / (seen.to_ms - seen.from_ms);
  const loudest = [...seen.reflections].sort((a, b) => b.level_db - a.level_db).slice(0, NAMED);
  const kept: Seen["reflections"] = [];
  for (const one of loudest) {
    const wide = (r: Seen["reflections"][number]) => (6.2 * r.words.length + 10) / perMs;
    const free = kept.every(
      (other) => one.delay_ms + wide(one) < other.delay_ms || other.delay_ms + wide(other) < one.delay_ms,
    );
    if (free && one.delay_ms < seen.to_ms) kept.push(one);
  }
  return kept.sort((a, b) => a.delay_ms - b.delay_ms);
}

function Decays({ seen }: { seen: Seen }) {
  const end = Math.max(...seen.rt60_s) * 1.05;
  const x = (s: number) => LEFT + (s / end) * (WIDTH - LEFT - RIGHT);
  return (
    <svg
      className="impulse-plot"
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      role="img"
      aria-label={`Decay by band: ${seen.bands_hz.map((hz, i) => `${String(hz)} hertz ${fixed(seen.rt60_s[i] ?? 0, 2)} seconds`).join(", ")}`}
    >
      <Grid
        left={LEFT}
        right={WIDTH - RIGHT}
        lines={LEVELS}
        under={[0, 0.25, 0.5, 0.75].map((part) => [x(end * part), part === 0 ? "0 s" : fixed(end * part, 2)])}
        foot={HEIGHT - 8}
      />
      {seen.decays_db.map((curve, band) => {
        const points = curve
          .map((db, i) => [seen.decay_s[i] ?? 0, db] as const)
          .filter(([s, db]) => s <= end && db >= LOWEST);
        const key = WIDTH - RIGHT - 66;
        const row = TOP + 10 + 15 * band;
        return (
          <g key={seen.bands_hz[band]}>
            <polyline
              points={points.map(([s, db]) => `${fixed(x(s), 1)},${fixed(y(db), 1)}`).join(" ")}
              className={`decay decay-${String(band)}`}
            />
            <line x1={key} x2={key + 26} y1={row} y2={row} className={`decay decay-${String(band)}`} />
            <text x={key + 32} y={row + 4}>
              {hertz(seen.bands_hz[band] ?? 0)}
            </text>
          </g>
        );
      })}
    </svg>
  );
}

/** A band in few letters. */
export const hertz = (hz: number) => (hz >= 1000 ? `${String(hz / 1000)}k` : String(hz));
