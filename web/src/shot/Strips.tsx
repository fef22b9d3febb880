// What the wanted frame gives at each distance: thin strips under the chart, on its distance axis.
import { least } from "d3-array";
import { scaleLinear } from "d3-scale";
import { line } from "d3-shape";

import type { ChartData } from "../api/client";
import { fixed, formatLength, signed, type UnitSystem } from "../units/length";
import type { Scale } from "./scale";

type Station = ChartData["along"][number];

interface Strip {
  name: string;
  of: (s: Station) => number | null;
  words: (value: number, units: UnitSystem) => string;
}

const STRIPS: Strip[] = [
  { name: "nose larger", of: (s) => s.nose_percent ?? null, words: (v) => `${signed(v, 0)} %` },
  { name: "blur", of: (s) => s.blur_percent, words: (v) => `${fixed(v, 1)} %` },
  { name: "wall in view", of: (s) => s.background_width_m, words: (v, units) => formatLength(v, units) },
  { name: "mic on camera", of: (s) => s.on_camera_db, words: (v) => `${signed(v, 0)} dB` },
];

const HEIGHT = 18;

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
  const nearest = least(chart.along, (s) => Math.abs(s.distance_m - chart.now.distance_m));
  return (
    <div role="table" aria-label="What the wanted frame gives at this distance">
      {STRIPS.map((strip) => {
        const all = chart.along.map(strip.of).filter((v): v is number => v !== null);
        const y = scaleLinear([Math.min(...all, 0), Math.max(...all, 1e-6)], [HEIGHT - 3, 3]);
        const path = line<Station>(
          (s) => scale.x(s.distance_m),
          (s) => y(strip.of(s) ?? 0),
        ).defined((s) => strip.of(s) !== null)(chart.along);
        const value = nearest ? strip.of(nearest) : null;
        return (
          <div key={strip.name} className="relative text-xs leading-tight" role="row" style={{ width }}>
            <span
              className="text-faint absolute top-0.5 left-0 text-right whitespace-nowrap"
              role="rowheader"
              style={{ width: left - 10 }}
            >
              {strip.name}
            </span>
            <svg
              width={width}
              height={HEIGHT}
              viewBox={`0 0 ${width} ${HEIGHT}`}
              className="chart block"
              aria-hidden="true"
            >
              <line x1={left} x2={right} y1={HEIGHT - 0.5} y2={HEIGHT - 0.5} className="strip-base" />
              <path d={path ?? ""} className="strip-line" />
              <line x1={here} x2={here} y1={0} y2={HEIGHT} className="chart-hair" />
            </svg>
            <span className="absolute top-0.5 font-bold" role="cell" style={{ left: right + 7 }}>
              {value === null ? "–" : strip.words(value, units)}
            </span>
          </div>
        );
      })}
    </div>
  );
}
