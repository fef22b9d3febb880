// Voice, room and noise over the distance from the mouth: how far the voice is louder than the room, and where people put
// microphones.
import { max, min } from "d3-array";
import { scaleLinear, scaleLog } from "d3-scale";
import { area, line } from "d3-shape";

import type { Schemas } from "../api/client";
import { formatLength, type UnitSystem } from "../units/length";
import { SHEET } from "../ui/Section";
import { useWidth } from "../ui/useWidth";
import { Grid } from "./Grid";

/** Width of a letter of the chart, px. */
const LETTER_PX = 6.5;

type Point = Schemas["DistancePoint"];

const HEIGHT = 172;
const FRAME = { left: 36, right: 56, top: 30, bottom: 24 };
const TICKS_M = [0.05, 0.1, 0.2, 0.5, 1, 2, 5];
/** Names beside the ends of lines stand so far apart, px. */
const APART_PX = 14;

export function DistanceChart({ chart, units }: { chart: Schemas["DistanceChart"]; units: UnitSystem }) {
  const [box, width] = useWidth(590);
  const { points } = chart;
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) return null;
  const levels = points.flatMap((p) => [p.direct_dba, p.reverberant_dba, p.noise_dba]);
  const [low, high] = [Math.floor((min(levels) ?? 0) / 10) * 10, Math.ceil((max(levels) ?? 0) / 10) * 10];
  const right = width - FRAME.right;
  const bottom = HEIGHT - FRAME.bottom;
  const x = scaleLog([first.distance_m, last.distance_m], [FRAME.left, right]);
  const y = scaleLinear([low, high], [bottom, FRAME.top]);
  const path = (of: (p: Point) => number) =>
    line<Point>(
      (p) => x(p.distance_m),
      (p) => y(of(p)),
    )(points) ?? "";
  const clear = area<Point>()
    .x((p) => x(p.distance_m))
    .y0((p) => y(Math.min(p.direct_dba, p.reverberant_dba)))
    .y1((p) => y(p.direct_dba))
    .defined((p) => p.direct_dba >= p.reverberant_dba)(points);
  const inside = (m: number) => m >= first.distance_m && m <= last.distance_m;
  // Those whose names have room.
  const marks = chart.marks
    .filter((mark) => inside(mark.distance_m))
    .filter((mark, index, all) => {
      const before = all[index - 1];
      if (!before) return true;
      const needed = (LETTER_PX * (mark.label.length + before.label.length)) / 2 + LETTER_PX;
      return x(mark.distance_m) - x(before.distance_m) > needed;
    });
  const here = points.find((p) => p.distance_m >= chart.distance_m) ?? last;
  return (
    <figure className={`${SHEET} p-2`}>
      <figcaption className="text-xs">
        Nearer and farther: level at the microphone, dBA. Up to{" "}
        {formatLength(chart.critical_distance_m, units)} your voice is louder than the room.
      </figcaption>
      <div ref={box}>
        <svg
          width={width}
          height={HEIGHT}
          viewBox={`0 0 ${width} ${HEIGHT}`}
          className="chart block"
          role="img"
          aria-label={`Levels over distance: your voice is as loud as the room at ${formatLength(chart.critical_distance_m, units)}; the microphone is ${formatLength(chart.distance_m, units)} from your mouth`}
        >
          <Grid
            left={FRAME.left}
            right={right}
            lines={y.ticks(4).map((level) => [y(level), String(level)])}
            under={TICKS_M.filter(inside).map((m) => [x(m), formatLength(m, units)])}
            foot={HEIGHT - 6}
          />
          <path d={clear ?? ""} className="plot-clear" />
          {marks.map((mark) => (
            <g key={mark.label}>
              <line
                x1={x(mark.distance_m)}
                x2={x(mark.distance_m)}
                y1={FRAME.top}
                y2={bottom}
                className="plot-mark"
              />
              <text x={x(mark.distance_m)} y={FRAME.top - 6} textAnchor="middle">
                {mark.label}
              </text>
            </g>
          ))}
          <path d={path((p) => p.direct_dba)} className="plot-voice" />
          <path d={path((p) => p.reverberant_dba)} className="plot-room" />
          <path d={path((p) => p.noise_dba)} className="plot-noise" />
          {namesOf(last).map((name) => (
            <text key={name.name} x={right + 6} y={name.at + 4} className="plot-name">
              {name.name}
            </text>
          ))}
          {inside(chart.distance_m) && (
            <g>
              <line
                x1={x(chart.distance_m)}
                x2={x(chart.distance_m)}
                y1={FRAME.top}
                y2={bottom}
                className="plot-here"
              />
              <circle cx={x(chart.distance_m)} cy={y(here.direct_dba)} r={6} className="plot-here-dot" />
            </g>
          )}
        </svg>
      </div>
    </figure>
  );

  /** Names beside the ends of their lines, none over another. */
  function namesOf(end: Point) {
    const names = (
      [
        ["voice", end.direct_dba],
        ["room", end.reverberant_dba],
        ["noise", end.noise_dba],
      ] as const
    )
      .map(([name, dba]) => ({ name, at: y(dba) }))
      .sort((a, b) => a.at - b.at);
    names.forEach((name, i) => {
      const above = names[i - 1];
      if (above && name.at < above.at + APART_PX) name.at = above.at + APART_PX;
    });
    return names;
  }
}
