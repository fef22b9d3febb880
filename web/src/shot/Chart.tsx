// The shot over distance: which focal length frames what from where, and where lens and room end it. The dot is the camera: drag
// it, or move it with the arrow keys (left and right along the wanted frame, up and down zooms).
import { useRef } from "react";

import type { ChartData, Move } from "../api/client";
import { useHolding } from "../drawing/useHolding";
import { useTable } from "../table/useTable";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { usePending } from "../ui/pending";
import { SHEET } from "../ui/Section";
import { useWidth } from "../ui/useWidth";
import { Curves } from "./Curves";
import { Ground } from "./Ground";
import { scaleOf, type Scale } from "./scale";
import { Strips } from "./Strips";

interface Props {
  chart: ChartData;
  units: UnitSystem;
  locked: boolean;
}

const HEIGHT = 196;
const MARGIN = { left: 92, right: 60, top: 20, bottom: 22 };
const STEP_M = 0.02;
const STEP_ZOOM = 1.02;

interface At {
  distance_m: number;
  focal_length_mm: number;
}

const shot = (to: Partial<At>, snap: boolean, anyway = false): Move => ({
  thing: "camera",
  grip: "shot",
  snap,
  anyway,
  sheet: "plan",
  ...to,
});

/** Along the wanted frame, or zoomed. */
const KEYS: Record<string, [number, number]> = {
  ArrowLeft: [-STEP_M, 1],
  ArrowRight: [STEP_M, 1],
  ArrowUp: [0, STEP_ZOOM],
  ArrowDown: [0, 1 / STEP_ZOOM],
};

export function Chart({ chart, units, locked }: Props) {
  const [area, width] = useWidth(600);
  const table = useTable();
  const frame = {
    left: MARGIN.left,
    top: MARGIN.top,
    right: width - MARGIN.right,
    bottom: HEIGHT - MARGIN.bottom,
  };
  const scale = scaleOf(frame, chart.distance_m, chart.focal_length_mm);
  const { now } = chart;
  const [, push] = usePending<At & { zooms?: boolean }>(now, ({ zooms, ...to }) =>
    table.put(shot(zooms ? to : { distance_m: to.distance_m }, false)),
  );
  const keys = (event: React.KeyboardEvent) => {
    const step = KEYS[event.key];
    if (event.key === " " || event.key === "Enter") event.preventDefault();
    if (locked || !step) return;
    event.preventDefault();
    const many = event.shiftKey ? 5 : 1;
    push((at) => ({
      distance_m: at.distance_m + step[0] * many,
      focal_length_mm: at.focal_length_mm * step[1] ** many,
      zooms: step[1] !== 1,
    })).catch(() => undefined);
  };
  const bind = useChartHand(chart, scale, locked);
  const [x, y] = [scale.x(now.distance_m), scale.y(now.focal_length_mm)];
  return (
    <figure className={`${SHEET} p-2`} aria-label="The shot over distance">
      <div ref={area}>
        <svg
          width={width}
          height={HEIGHT}
          viewBox={`0 0 ${width} ${HEIGHT}`}
          className="chart block overflow-visible"
        >
          <Ground chart={chart} scale={scale} frame={frame} units={units} />
          <Curves chart={chart} scale={scale} frame={frame} />
          <line x1={x} x2={x} y1={frame.top} y2={frame.bottom} className="chart-hair" />
          <line x1={frame.left} x2={frame.right} y1={y} y2={y} className="chart-hair" />
          <g
            {...bind(null)}
            role="button"
            tabIndex={0}
            data-grip="chart-camera"
            className={`grip chart-dot ${locked ? "grip-fixed" : ""}`}
            aria-label={`Camera on the chart, ${formatLength(now.distance_m, units)} from the eyes at ${fixed(now.focal_length_mm, 0)} mm${locked ? ", locked" : ""}. Left and right arrow keys move it along the wanted frame, up and down zoom.`}
            onKeyDown={keys}
          >
            <circle cx={x} cy={y} r={15} />
            <path
              d={`M${x - 8} ${y - 5}h11v10h-11zM${x + 3} ${y - 2}l5 -3v10l-5 -3z`}
              className="chart-camera"
            />
          </g>
        </svg>
        <Strips
          chart={chart}
          scale={scale}
          width={width}
          left={frame.left}
          right={frame.right}
          units={units}
        />
      </div>
    </figure>
  );
}

/** A hand on the dot: by the scale as it was when it took hold, so that nothing shifts under it. */
function useChartHand(chart: ChartData, scale: Scale, locked: boolean) {
  const table = useTable();
  const start = useRef({ chart, scale, plan: table.view().plan });
  return useHolding<null>({
    onHold: () => {
      start.current = { chart, scale, plan: table.view().plan };
      table.hold(null);
    },
    onMove: (_, [dx, dy], { live, anyway }) => {
      const { chart: began, scale: by, plan } = start.current;
      if (locked || !plan) return;
      const within = ([least = 0, most = 1]: number[], value: number) =>
        Math.min(Math.max(value, least), most);
      const to = {
        distance_m: within(began.distance_m, by.x.invert(by.x(began.now.distance_m) + dx)),
        focal_length_mm: within(began.focal_length_mm, by.y.invert(by.y(began.now.focal_length_mm) + dy)),
      };
      const move = shot(to, true, anyway);
      void (live ? table.drag(move, plan) : table.drop(move, plan));
    },
    onBreak: table.letGo,
  });
}
