// The field of the answers that a field which the server refused belongs to, where they show it.
import type { Answers } from "./answers";

const ROWS: readonly (readonly [
  RegExp,
  "openings" | "furniture" | "slopes" | "beams",
  Record<string, string>,
])[] = [
  [
    /openings\.([a-z0-9-]+)\.(\w+)/,
    "openings",
    { wall: "wall", from_m: "from", width_m: "width", sill_m: "sill", height_m: "height" },
  ],
  [
    /furniture\.([a-z0-9-]+)\.(\w+(?:\[\d\])?)/,
    "furniture",
    {
      "position_m[0]": "x",
      "position_m[1]": "y",
      "position_m[2]": "foot",
      "size_m[0]": "width",
      "size_m[1]": "depth",
      "size_m[2]": "height",
    },
  ],
  [
    /slopes\.([a-z0-9-]+)\.(\w+)/,
    "slopes",
    { from_m: "from", length_m: "length", knee_m: "knee", run_m: "run" },
  ],
  [/beams\.([a-z0-9-]+)\.(\w+)/, "beams", { from_m: "fromX", to_m: "toX", width_m: "width", drop_m: "drop" }],
];

const PLAIN: readonly (readonly [RegExp, string])[] = [
  [/room\.height_m/, "height"],
  [/stature_m/, "stature"],
  [/seat_height_m/, "seatHeight"],
  [/lean_m/, "lean"],
  [/budget/, "budget"],
];

export function fieldFor(path: string, answers: Answers): string | null {
  for (const [pattern, list, fields] of ROWS) {
    const [, id, field] = pattern.exec(path) ?? [];
    if (!id || !field) continue;
    const index = answers[list].findIndex((row) => row.id === id);
    const own = fields[field] ?? Object.values(fields)[0];
    return index < 0 || !own ? null : `${list}.${String(index)}.${own}`;
  }
  if (path.includes("floor_m")) return answers.shape === "walk" ? "floor" : "width";
  return PLAIN.find(([pattern]) => pattern.test(path))?.[1] ?? null;
}
