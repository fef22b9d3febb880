// The shot over distance: which focal length frames what from where, and where lens and room end it. The dot is the
// camera: drag it, or move it with the arrow keys (left and right along the wanted frame, up and down zooms).
import { useRef } from "react";

import type { ChartData, Move } from "../api/client";
import type { Table } from "../corner/useWorktable";
import { hold } from "../drawing/hold";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { focalFor, focalTicks, scaleOf, ticks, type Scale } from "./scale";
import { Strips } from "./Strips";

interface Props {
  chart: ChartData;
  table: Table;
  units: UnitSystem;
  /** Pixels across. */
  width: number;
  /** Height of the picture on the sensor, mm. */
  imageHeightMm: number;
  locked: boolean;
}

const HEIGHT = 224;
const MARGIN = { left: 100, right: 64, top: 22, bottom: 26 };
const STEP_M = 0.02;
const STEP_ZOOM = 1.02;

export function Chart({ chart, table, units, width, imageHeightMm, locked }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const frame = {
    left: MARGIN.left,
    top: MARGIN.top,
    right: width - MARGIN.right,
    bottom: HEIGHT - MARGIN.bottom,
  };
  const scale = scaleOf(frame, chart.distance_m, chart.focal_length_mm);
  const { now } = chart;
  const shot = (to: { distance_m?: number; focal_length_mm?: number }, anyway = false): Move => ({
    thing: "camera",
    grip: "shot",
    snap: true,
    anyway,
    sheet: "plan",
    ...to,
  });
  const drag = useDrag(svg, scale, chart, table, shot);
  const keys = (event: React.KeyboardEvent) => {
    const many = event.shiftKey ? 5 : 1;
    const along = { ArrowLeft: -STEP_M, ArrowRight: STEP_M }[event.key];
    const zoom = { ArrowUp: STEP_ZOOM, ArrowDown: 1 / STEP_ZOOM }[event.key];
    if (locked || (along === undefined && zoom === undefined)) return;
    event.preventDefault();
    const to =
      along !== undefined
        ? { distance_m: now.distance_m + along * many }
        : { distance_m: now.distance_m, focal_length_mm: now.focal_length_mm * (zoom ?? 1) ** many };
    void table.move({ ...shot(to), snap: false }, null, false);
  };
  const dot = [scale.x(now.distance_m), scale.y(now.focal_length_mm)] as const;
  return (
    <figure className="chart" aria-label="The shot over distance">
      <svg ref={svg} width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} className="chart-plot">
        <Ground chart={chart} scale={scale} frame={frame} units={units} />
        <Curves chart={chart} scale={scale} frame={frame} imageHeightMm={imageHeightMm} />
        <line x1={dot[0]} x2={dot[0]} y1={frame.top} y2={frame.bottom} className="chart-hair" />
        <line x1={frame.left} x2={frame.right} y1={dot[1]} y2={dot[1]} className="chart-hair" />
        <g
          role="button"
          tabIndex={0}
          data-grip="chart-camera"
          className={`chart-dot ${locked ? "chart-dot-locked" : ""}`}
          aria-label={`Camera on the chart, ${formatLength(now.distance_m, units)} from the eyes at ${fixed(now.focal_length_mm, 0)} mm${locked ? ", locked" : ""}. Left and right arrow keys move it along the wanted frame, up and down zoom.`}
          onPointerDown={(event) => !locked && drag(event)}
          onKeyDown={keys}
        >
          <circle cx={dot[0]} cy={dot[1]} r={15} className="chart-touch" />
          <circle cx={dot[0]} cy={dot[1]} r={9} className="badge-camera chart-badge" />
          <text x={dot[0]} y={dot[1] + 4} textAnchor="middle" className="chart-letter">
            C
          </text>
        </g>
      </svg>
      <Strips chart={chart} scale={scale} width={width} left={frame.left} right={frame.right} units={units} />
    </figure>
  );
}

/** Takes hold of the dot until it is let go or Escape breaks it off. */
function useDrag(
  svg: React.RefObject<SVGSVGElement | null>,
  scale: Scale,
  chart: ChartData,
  table: Table,
  shot: (to: { distance_m?: number; focal_length_mm?: number }, anyway?: boolean) => Move,
) {
  return (event: React.PointerEvent) => {
    const { plan } = table;
    const box = svg.current?.getBoundingClientRect();
    if (event.button !== 0 || !plan || !box) return;
    event.preventDefault();
    // The scale as it was when the drag began: nothing shifts under the hand.
    const [near = 0.3, far = 3] = chart.distance_m;
    const [short = 5, long = 200] = chart.focal_length_mm;
    const start = [event.clientX, event.clientY] as const;
    let moved = false;
    const drag = (at: PointerEvent, live: boolean) => {
      if (!moved && Math.hypot(at.clientX - start[0], at.clientY - start[1]) < 3) return false;
      moved = true;
      const distance = Math.min(Math.max(scale.distance(at.clientX - box.left), near), far);
      const focal = Math.min(Math.max(scale.focal(at.clientY - box.top), short), long);
      void table.move(shot({ distance_m: distance, focal_length_mm: focal }, at.altKey), plan, live);
      return true;
    };
    hold({ drag, onBreak: () => table.cancel(plan) });
  };
}

interface Plotted {
  chart: ChartData;
  scale: Scale;
  frame: { left: number; top: number; right: number; bottom: number };
}

/** Zones of perspective, lenses, the room's end, axes. */
function Ground({ chart, scale, frame, units }: Plotted & { units: UnitSystem }) {
  const height = frame.bottom - frame.top;
  const end = Math.min(scale.x(chart.room_m), frame.right);
  return (
    <g>
      <defs>
        <pattern
          id="chart-hatch"
          width="7"
          height="7"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <line x1="0" y1="0" x2="0" y2="7" className="chart-hatch" />
        </pattern>
      </defs>
      {chart.zones.map((zone, index) => {
        const [from, to] = [scale.x(zone.from_m), Math.min(scale.x(zone.to_m), frame.right)];
        return (
          <g key={zone.name}>
            <rect
              x={from}
              y={frame.top}
              width={Math.max(to - from, 0)}
              height={height}
              className={index % 2 === 0 ? "chart-zone" : "chart-zone chart-zone-other"}
            />
            {to - from > zone.name.length * 6.5 && (
              <text x={(from + to) / 2} y={frame.top - 7} textAnchor="middle" className="chart-note">
                {zone.name}
              </text>
            )}
          </g>
        );
      })}
      {chart.lenses.map((lens) => {
        const [top, bottom] = [scale.y(lens.focal_max_mm), scale.y(lens.focal_min_mm)];
        const thin = bottom - top < 4;
        return (
          <rect
            key={lens.id}
            x={frame.left}
            y={thin ? (top + bottom) / 2 - 2 : top}
            width={frame.right - frame.left}
            height={thin ? 4 : bottom - top}
            className={lens.in_use ? "chart-lens chart-lens-used" : "chart-lens"}
          >
            <title>{lens.label}</title>
          </rect>
        );
      })}
      {end < frame.right - 1 && (
        <rect x={end} y={frame.top} width={frame.right - end} height={height} fill="url(#chart-hatch)" />
      )}
      <line x1={end} x2={end} y1={frame.top} y2={frame.bottom} className="chart-wall">
        <title>{`Here ${chart.ends_at} ends it`}</title>
      </line>
      {ticks(chart.distance_m[0] ?? 0, chart.distance_m[1] ?? 3, (frame.right - frame.left) / 62).map(
        (distance) => (
          <g key={distance}>
            <line
              x1={scale.x(distance)}
              x2={scale.x(distance)}
              y1={frame.bottom}
              y2={frame.bottom + 4}
              className="chart-tick"
            />
            <text x={scale.x(distance)} y={frame.bottom + 17} textAnchor="middle" className="chart-number">
              {formatLength(distance, units)}
            </text>
          </g>
        ),
      )}
      {focalTicks(chart.focal_length_mm, scale, 20).map((focal) => (
        <g key={focal}>
          <line
            x1={frame.left - 4}
            x2={frame.left}
            y1={scale.y(focal)}
            y2={scale.y(focal)}
            className="chart-tick"
          />
          <text x={frame.left - 7} y={scale.y(focal) + 4} textAnchor="end" className="chart-number">
            {fixed(focal, 0)}
          </text>
          <text x={frame.right + 7} y={scale.y(focal) + 4} className="chart-number chart-equal">
            {fixed(focal * chart.crop_factor, 0)}
          </text>
        </g>
      ))}
      <text x={frame.left - 7} y={frame.top - 7} textAnchor="end" className="chart-note">
        mm
      </text>
      <text x={frame.right + 7} y={frame.top - 7} className="chart-note chart-equal">
        equiv.
      </text>
    </g>
  );
}

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const apart = (a: Box, b: Box) =>
  a.right < b.left || b.right < a.left || a.bottom < b.top || b.bottom < a.top;

/** Shot sizes: the wanted one strong and named, the others thin. */
function Curves({ chart, scale, frame, imageHeightMm }: Plotted & { imageHeightMm: number }) {
  const [near = 0.3, far = 3] = chart.distance_m;
  const [short = 5, long = 200] = chart.focal_length_mm;
  const path = (height: number) =>
    Array.from({ length: 40 }, (_, i) => near + ((far - near) * i) / 39)
      .map((distance) => [distance, focalFor(distance, height, imageHeightMm)] as const)
      .filter(([, focal]) => focal >= short && focal <= long)
      .map(([distance, focal]) => `${scale.x(distance).toFixed(1)},${scale.y(focal).toFixed(1)}`)
      .join(" ");
  // The wanted one first: names stand under their curve, as far right as none covers another.
  const [dotX, dotY] = [scale.x(chart.now.distance_m), scale.y(chart.now.focal_length_mm)];
  const taken: Box[] = [{ left: dotX - 14, right: dotX + 14, top: dotY - 14, bottom: dotY + 14 }];
  const inOrder = [...chart.shots].sort((a, b) => Number(b.wanted) - Number(a.wanted));
  const named = inOrder.map((shot) => {
    const width = shot.label.length * (shot.wanted ? 7 : 6.4) + 4;
    const end = Math.min(scale.x(chart.room_m), frame.right) - 6;
    for (let right = end; right - width > frame.left; right -= 10) {
      const y = scale.y(focalFor(scale.distance(right - width / 2), shot.frame_height_m, imageHeightMm)) + 17;
      const box = { left: right - width, right, top: y - 13, bottom: y + 3 };
      if (y < frame.bottom - 4 && box.top > frame.top && taken.every((b) => apart(b, box))) {
        taken.push(box);
        return { shot, at: [right, y] as const };
      }
    }
    return { shot, at: null };
  });
  return (
    <g>
      {named.map(({ shot, at }) => (
        <g key={shot.label} className={shot.wanted ? "chart-wanted" : "chart-other"}>
          <polyline points={path(shot.frame_height_m)} className="chart-curve" />
          {at && (
            <text x={at[0]} y={at[1]} textAnchor="end" className="chart-name">
              {shot.label}
            </text>
          )}
        </g>
      ))}
    </g>
  );
}
