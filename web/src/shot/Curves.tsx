// Shot sizes over the chart: the wanted one strong and named, the others thin.
import { line } from "d3-shape";

import type { Plotted } from "./Ground";
import { focalFor } from "./scale";

interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

const apart = (a: Box, b: Box) =>
  a.right < b.left || b.right < a.left || a.bottom < b.top || b.bottom < a.top;

const POINTS = 40;

type Shot = Plotted["chart"]["shots"][number];
/** Distance, m, and focal length, mm. */
type Point = readonly [number, number];

export function Curves(props: Plotted) {
  const { chart, scale } = props;
  const [near = 0.3, far = 3] = chart.distance_m;
  const [short = 5, long = 200] = chart.focal_length_mm;
  const distances = Array.from({ length: POINTS }, (_, i) => near + ((far - near) * i) / (POINTS - 1));
  // The wanted frame is that of the tilted camera, the others those of a level one.
  const points = (shot: Shot): Point[] =>
    shot.wanted
      ? chart.along.map((station) => [station.distance_m, station.focal_length_mm])
      : distances.map((distance) => [
          distance,
          focalFor(distance, shot.frame_height_m, chart.image_height_mm),
        ]);
  const path = line<Point>(
    ([distance]) => scale.x(distance),
    ([, focal]) => scale.y(focal),
  ).defined(([, focal]) => focal >= short && focal <= long);
  return (
    <g>
      {named(props).map(({ shot, at }) => (
        <g key={shot.label} className={shot.wanted ? "chart-wanted" : ""}>
          <path d={path(points(shot)) ?? ""} className="chart-curve" />
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

/** Where the names stand: under their curve, as far right as none covers another; the wanted one first. */
function named({ chart, scale, frame }: Plotted) {
  const [dotX, dotY] = [scale.x(chart.now.distance_m), scale.y(chart.now.focal_length_mm)];
  const taken: Box[] = [{ left: dotX - 14, right: dotX + 14, top: dotY - 14, bottom: dotY + 14 }];
  const inOrder = [...chart.shots].sort((a, b) => Number(b.wanted) - Number(a.wanted));
  return inOrder.map((shot) => {
    const width = shot.label.length * (shot.wanted ? 7 : 6.4) + 4;
    const end = Math.min(scale.x(chart.room_m), frame.right) - 6;
    for (let right = end; right - width > frame.left; right -= 10) {
      const middle = scale.x.invert(right - width / 2);
      const y = scale.y(focalFor(middle, shot.frame_height_m, chart.image_height_mm)) + 17;
      const box = { left: right - width, right, top: y - 13, bottom: y + 3 };
      if (y < frame.bottom - 4 && box.top > frame.top && taken.every((b) => apart(b, box))) {
        taken.push(box);
        return { shot, at: [right, y] as const };
      }
    }
    return { shot, at: null };
  });
}
