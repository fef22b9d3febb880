// The layers of the year, drawn one over the other: which hours they hold, what they are called, how they are marked.
import type { Schemas } from "../api/client";

type Day = Schemas["YearDay"];
type Span = Schemas["Span"];

export interface Layer {
  key: "light" | "golden" | "noisy" | "face" | "lens" | "behind";
  name: string;
  spans: (day: Day) => Span[];
  /** In a square of five. */
  mark: { filled?: boolean; path?: string };
}

export const LAYERS: readonly Layer[] = [
  { key: "light", name: "light holds", spans: (day) => day.light, mark: { filled: true } },
  { key: "golden", name: "low, warm sun", spans: (day) => day.golden, mark: { path: "M0 1.5h5M0 4h5" } },
  { key: "noisy", name: "not quiet", spans: (day) => day.noisy, mark: { path: "M1.5 0v5M4 0v5" } },
  {
    key: "face",
    name: "sun in your eyes",
    spans: (day) => day.on_face,
    mark: { filled: true, path: "M0 5L5 0M-1 1L1 -1M4 6L6 4" },
  },
  {
    key: "lens",
    name: "sun on the lens",
    spans: (day) => day.in_lens,
    mark: { filled: true, path: "M0 0L5 5M5 0L0 5" },
  },
  {
    key: "behind",
    name: "sun behind you",
    spans: (day) => day.behind,
    mark: { path: "M2.5 1.2a1.3 1.3 0 1 0 .01 0" },
  },
];

/** The spans of all days as one outline. */
export function pathOf(
  days: Day[],
  spans: (day: Day) => Span[],
  wide: number,
  y: (minute: number) => number,
) {
  return days
    .flatMap((day, index) =>
      spans(day).map(({ from_min: from, to_min: to }) => {
        const high = y(to) - y(from);
        return `M${(index * wide).toFixed(1)} ${y(from).toFixed(1)}h${wide.toFixed(2)}v${high.toFixed(1)}h${(-wide).toFixed(2)}z`;
      }),
    )
    .join("");
}

/** A minute of the day, as `09:05`. */
export const clockOf = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, "0")}:${String(minute % 60).padStart(2, "0")}`;

/** What a day holds, in words. */
export function onDay(day: Day): string {
  const date = new Date(`${day.date}T12:00:00Z`).toLocaleDateString("en-GB", {
    day: "numeric",
    month: "long",
    timeZone: "UTC",
  });
  const told = LAYERS.filter(({ spans }) => spans(day).length > 0).map(({ name, spans }) => {
    const when = spans(day).map(({ from_min, to_min }) => `${clockOf(from_min)}–${clockOf(to_min)}`);
    return `${name} ${when.join(", ")}`;
  });
  return told.length === 0 ? `${date}: no light that holds.` : `${date}: ${told.join("; ")}.`;
}
