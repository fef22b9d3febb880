// Where distances and focal lengths stand on the chart: distances evenly, focal lengths by octaves.
import { scaleLinear, scaleLog, type ScaleLinear, type ScaleLogarithmic } from "d3-scale";

/** Pixels of the plotting area. */
export interface Frame {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

export interface Scale {
  x: ScaleLinear<number, number>;
  y: ScaleLogarithmic<number, number>;
}

/** The chart's scale; `distances` and `focals` are least and most. */
export const scaleOf = (frame: Frame, distances: number[], focals: number[]): Scale => ({
  x: scaleLinear(distances, [frame.left, frame.right]).clamp(false),
  y: scaleLog(focals, [frame.bottom, frame.top]).base(2),
});

/** Focal length that frames a height from a distance, mm: f = u s / (S + s), as the core has it. */
export const focalFor = (distance_m: number, frame_m: number, image_mm: number): number =>
  (distance_m * 1000 * image_mm) / (frame_m * 1000 + image_mm);

const FOCALS = [4, 5, 7, 10, 12, 16, 20, 24, 28, 35, 50, 70, 85, 105, 135, 200];

/** Focal lengths to label, at least `gap` pixels apart. */
export function focalTicks(focals: number[], scale: Scale, gap: number): number[] {
  const [short = 10, long = 100] = focals;
  const kept: number[] = [];
  for (const focal of FOCALS.filter((f) => f >= short && f <= long)) {
    const last = kept.at(-1);
    if (last === undefined || scale.y(last) - scale.y(focal) >= gap) kept.push(focal);
  }
  return kept;
}
