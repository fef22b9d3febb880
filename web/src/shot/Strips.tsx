// What the wanted frame gives at each distance: thin strips under the chart, on its distance axis.
import type { ChartData } from "../api/client";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import type { Scale } from "./scale";

type Station = ChartData["along"][number];

interface Strip {
  name: string;
  of: (s: Station) => number | null;
  words: (value: number, units: UnitSystem) => string;
}

const signed = (value: number, digits: number) => (value > 0 ? "+" : "") + fixed(value, digits);

const STRIPS: Strip[] = [
  { name: "nose", of: (s) => s.nose_percent ?? null, words: (v) => `${signed(v, 0)} %` },
  { name: "blur", of: (s) => s.blur_percent, words: (v) => `${fixed(v, 1)} %` },
  { name: "wall in view", of: (s) => s.background_width_m, words: (v, units) => formatLength(v, units) },
  { name: "mic on camera", of: (s) => s.on_camera_db, words: (v) => `${signed(v, 0)} dB` },
  { name: "near and wide", of: (s) => s.near_and_wide_percent, words: (v) => `${fixed(v, 0)} %` },
  { name: "far and long", of: (s) => s.far_and_long_percent, words: (v) => `${fixed(v, 0)} %` },
];

const HEIGHT = 21;

interface Props {
  chart: ChartData;
  scale: Scale;
  width: number;
  left: number;
  right: number;
  units: UnitSystem;
}

export function Strips({ chart, scale, width, left, right, units }: Props) {
  const here = scale.x(chart.now.distance_m);
  const nearest = chart.along.reduce((a, b) =>
    Math.abs(b.distance_m - chart.now.distance_m) < Math.abs(a.distance_m - chart.now.distance_m) ? b : a,
  );
  return (
    <div className="strips" role="table" aria-label="What the wanted frame gives at this distance">
      {STRIPS.map((strip) => {
        const values = chart.along.map(strip.of);
        const all = values.filter((v): v is number => v !== null);
        const [low, high] = [Math.min(...all, 0), Math.max(...all)];
        const y = (v: number) => 3 + (1 - (v - low) / (high - low || 1)) * (HEIGHT - 6);
        const line = (of: (number | null)[]) =>
          of
            .map((v, i) => [chart.along[i]?.distance_m ?? 0, v] as const)
            .filter((p): p is readonly [number, number] => p[1] !== null)
            .map(([d, v]) => `${scale.x(d).toFixed(1)},${y(v).toFixed(1)}`)
            .join(" ");
        const value = strip.of(nearest);
        return (
          <div key={strip.name} className="strip" role="row" style={{ width }}>
            <span className="strip-name" role="rowheader" style={{ width: left - 10 }}>
              {strip.name}
            </span>
            <svg width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden="true">
              <line x1={left} x2={right} y1={HEIGHT - 0.5} y2={HEIGHT - 0.5} className="strip-base" />
              <polyline points={line(values)} className="strip-line" />
              <line x1={here} x2={here} y1={0} y2={HEIGHT} className="chart-hair" />
            </svg>
            <span className="strip-value" role="cell" style={{ left: right + 7 }}>
              {value === null ? "–" : strip.words(value, units)}
            </span>
          </div>
        );
      })}
    </div>
  );
}
