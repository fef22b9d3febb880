// Voice, room and noise over the distance from the mouth: where the voice drowns in the room, and where people put microphones.
import type { Schemas } from "../api/client";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { Grid } from "./Grid";

type Data = Schemas["DistanceChart"];

const WIDTH = 520;
const HEIGHT = 230;
const LEFT = 44;
const RIGHT = 66;
const TOP = 34;
const BOTTOM = 28;
const TICKS_M = [0.05, 0.1, 0.2, 0.5, 1, 2, 5];

export function DistanceChart({ chart, units }: { chart: Data; units: UnitSystem }) {
  const { points } = chart;
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) return null;
  const levels = points.flatMap((p) => [p.direct_dba, p.reverberant_dba, p.noise_dba]);
  const high = Math.ceil(Math.max(...levels) / 10) * 10;
  const low = Math.floor(Math.min(...levels) / 10) * 10;
  const x = (m: number) =>
    LEFT +
    (Math.log(m / first.distance_m) / Math.log(last.distance_m / first.distance_m)) * (WIDTH - LEFT - RIGHT);
  const y = (dba: number) => TOP + ((high - dba) / (high - low)) * (HEIGHT - TOP - BOTTOM);
  const line = (of: (p: Schemas["DistancePoint"]) => number) =>
    points.map((p) => `${fixed(x(p.distance_m), 1)},${fixed(y(of(p)), 1)}`).join(" ");
  const right = WIDTH - RIGHT;
  const inside = (m: number) => m >= first.distance_m && m <= last.distance_m;
  // Names beside the ends of their lines, none over another.
  const names = (
    [
      ["voice", last.direct_dba],
      ["room", last.reverberant_dba],
      ["noise", last.noise_dba],
    ] as const
  )
    .map(([name, dba]) => ({ name, y: y(dba) }))
    .sort((a, b) => a.y - b.y);
  names.forEach((name, i) => {
    const above = names[i - 1];
    if (above && name.y < above.y + 14) name.y = above.y + 14;
  });
  const step = high - low > 50 ? 20 : 10;
  return (
    <figure className="distance-chart">
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        role="img"
        aria-label={`Levels over distance: the voice is as loud as the room at ${formatLength(chart.critical_distance_m, units)}; the microphone is ${formatLength(chart.distance_m, units)} from the mouth`}
      >
        <Grid
          left={LEFT}
          right={right}
          lines={Array.from({ length: (high - low) / step + 1 }, (_, i) => [
            y(low + i * step),
            String(low + i * step),
          ])}
          under={TICKS_M.filter(inside).map((m) => [x(m), formatLength(m, units)])}
          foot={HEIGHT - 9}
        />
        <text x={LEFT - 6} y={TOP - 14} textAnchor="end">
          dBA
        </text>
        {chart.marks
          .filter((mark) => inside(mark.distance_m))
          .map((mark, i) => (
            <g key={mark.label}>
              <line
                x1={x(mark.distance_m)}
                x2={x(mark.distance_m)}
                y1={TOP}
                y2={HEIGHT - BOTTOM}
                className="plot-mark"
              />
              <text x={x(mark.distance_m)} y={TOP - 4 - 13 * (i % 2)} textAnchor="middle">
                {mark.label}
              </text>
            </g>
          ))}
        {inside(chart.critical_distance_m) && (
          <g>
            <line
              x1={x(chart.critical_distance_m)}
              x2={x(chart.critical_distance_m)}
              y1={TOP}
              y2={HEIGHT - BOTTOM}
              className="plot-critical"
            />
            <circle
              cx={x(chart.critical_distance_m)}
              cy={y(points[0]?.reverberant_dba ?? 0)}
              r={5}
              className="plot-critical-dot"
            />
          </g>
        )}
        <polyline points={line((p) => p.direct_dba)} className="plot-voice" />
        <polyline points={line((p) => p.reverberant_dba)} className="plot-room" />
        <polyline points={line((p) => p.noise_dba)} className="plot-noise" />
        {names.map((name) => (
          <text key={name.name} x={right + 6} y={name.y + 4} className="plot-name">
            {name.name}
          </text>
        ))}
        {inside(chart.distance_m) && (
          <g>
            <line
              x1={x(chart.distance_m)}
              x2={x(chart.distance_m)}
              y1={TOP}
              y2={HEIGHT - BOTTOM}
              className="plot-here"
            />
            <circle
              cx={x(chart.distance_m)}
              cy={HEIGHT - BOTTOM}
              r={9}
              className="badge-microphone chart-badge"
            />
            <text
              x={x(chart.distance_m)}
              y={HEIGHT - BOTTOM + 4}
              textAnchor="middle"
              className="chart-letter"
            >
              M
            </text>
          </g>
        )}
      </svg>
      <figcaption className="text-faint text-sm">
        Where the lines of voice and room cross, {formatLength(chart.critical_distance_m, units)}, both are
        equally loud: nearer is you, farther is the room.
      </figcaption>
    </figure>
  );
}
