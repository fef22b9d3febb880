// Where distances and focal lengths stand on the chart: distances evenly, focal lengths by octaves.

export interface Frame {
  /** Pixels of the plotting area. */
  left: number;
  top: number;
  right: number;
  bottom: number;
}

export interface Scale {
  x: (distance: number) => number;
  y: (focal: number) => number;
  distance: (x: number) => number;
  focal: (y: number) => number;
}

/** The chart's scale; `distances` and `focals` are least and most. */
export function scaleOf(frame: Frame, distances: number[], focals: number[]): Scale {
  const [near = 0.3, far = 3] = distances;
  const [short = 10, long = 100] = focals;
  const [low, high] = [Math.log2(short), Math.log2(long)];
  const width = frame.right - frame.left;
  const height = frame.bottom - frame.top;
  return {
    x: (distance) => frame.left + ((distance - near) / (far - near)) * width,
    y: (focal) => frame.bottom - ((Math.log2(focal) - low) / (high - low)) * height,
    distance: (x) => near + ((x - frame.left) / width) * (far - near),
    focal: (y) => 2 ** (low + ((frame.bottom - y) / height) * (high - low)),
  };
}

/** Focal length that frames a height from a distance, mm: f = u s / (S + s), as the core has it. */
export const focalFor = (distance_m: number, frame_m: number, image_mm: number): number =>
  (distance_m * 1000 * image_mm) / (frame_m * 1000 + image_mm);

/** Round numbers for an axis, about `count` of them. */
export function ticks(from: number, to: number, count: number): number[] {
  const raw = (to - from) / count;
  const step = [0.1, 0.2, 0.25, 0.5, 1, 2, 5].find((s) => s >= raw) ?? 10;
  const first = Math.ceil(from / step - 1e-9);
  return Array.from({ length: Math.floor(to / step + 1e-9) - first + 1 }, (_, i) => (first + i) * step);
}

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
