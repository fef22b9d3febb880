// The face as an instrument: a head in planes, each as bright as its light makes it, with its stops beside it.
import type { Schemas } from "../api/client";
import { fixed } from "../units/length";

type Facet = Schemas["Facet"];
type Spot = Facet["spot"];

/** Planes of a head seen from the lens, 200 wide; the left half is mirrored from the right. */
const RIGHT: [Spot, number[][]][] = [
  [
    "shoulder-right",
    [
      [116, 210],
      [132, 215],
      [172, 228],
      [186, 256],
      [100, 256],
      [100, 224],
      [114, 222],
    ],
  ],
  [
    "cheek-right",
    [
      [142, 80],
      [136, 84],
      [132, 104],
      [107, 106],
      [115, 140],
      [112, 156],
      [126, 176],
      [139, 150],
      [144, 112],
    ],
  ],
  [
    "socket-right",
    [
      [106, 84],
      [136, 84],
      [132, 104],
      [107, 106],
    ],
  ],
  [
    "nose-right",
    [
      [100, 84],
      [106, 84],
      [107, 106],
      [115, 140],
      [100, 145],
    ],
  ],
];
const MIDDLE: [Spot, number[][]][] = [
  [
    "crown",
    [
      [60, 50],
      [66, 32],
      [82, 20],
      [118, 20],
      [134, 32],
      [140, 50],
      [128, 56],
      [72, 56],
    ],
  ],
  [
    "forehead",
    [
      [60, 50],
      [72, 56],
      [128, 56],
      [140, 50],
      [142, 80],
      [136, 84],
      [64, 84],
      [58, 80],
    ],
  ],
  [
    "chin",
    [
      [85, 140],
      [100, 145],
      [115, 140],
      [112, 156],
      [126, 176],
      [116, 196],
      [106, 203],
      [94, 203],
      [84, 196],
      [74, 176],
      [88, 156],
    ],
  ],
];
const mirrored = (name: Spot) => name.replace("right", "left") as Spot;
const PLANES: [Spot, number[][]][] = [
  ...RIGHT,
  ...RIGHT.map(([spot, points]): [Spot, number[][]] => [
    mirrored(spot),
    points.map(([x, y]) => [200 - (x ?? 0), y ?? 0]),
  ]),
  ...MIDDLE,
];

const NAMES: Record<Spot, string> = {
  crown: "Crown",
  forehead: "Forehead",
  "socket-right": "Eye",
  "socket-left": "Eye",
  "nose-right": "Nose",
  "nose-left": "Nose",
  "cheek-right": "Cheek",
  "cheek-left": "Cheek",
  chin: "Chin",
  "shoulder-right": "Shoulder",
  "shoulder-left": "Shoulder",
};
/** Words beside the head: where they stand and what they point to. */
const WORDS: [Spot, number, number, number, number][] = [
  ["crown", 1, 30, 124, 34],
  ["forehead", 1, 62, 128, 66],
  ["socket-right", 1, 94, 124, 95],
  ["nose-right", 1, 126, 107, 122],
  ["cheek-right", 1, 158, 130, 136],
  ["shoulder-right", 1, 236, 160, 236],
  ["socket-left", -1, 94, 76, 95],
  ["nose-left", -1, 126, 93, 122],
  ["cheek-left", -1, 158, 70, 136],
  ["chin", -1, 190, 92, 184],
  ["shoulder-left", -1, 236, 40, 236],
];

/** Grey of a skin of 0.35 under so many stops, as a screen shows it; white is 1.5 stops over the face. */
function grey(stops: number | null | undefined): string {
  const linear = stops == null ? 0 : Math.min(1, 0.35 * 2 ** stops);
  const shown = linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055;
  const level = Math.round(255 * shown);
  return `rgb(${level} ${level} ${level})`;
}

export const stopsWords = (stops: number | null | undefined) =>
  stops == null ? "dark" : `${stops > 0.05 ? "+" : stops < -0.05 ? "−" : ""}${fixed(Math.abs(stops), 1)}`;

export function Head({ face, spoken = "" }: { face: Schemas["FaceSeen"]; spoken?: string }) {
  const of = (spot: Spot) => face.facets.find((f) => f.spot === spot);
  const told = WORDS.map(([spot]) => `${NAMES[spot]} ${stopsWords(of(spot)?.stops)}`).join(", ");
  return (
    <svg
      viewBox="-86 10 372 250"
      className="head"
      role="img"
      aria-label={`${spoken}Stops on the head: ${told}`}
    >
      <polygon points="86,194 114,194 116,224 84,224" fill={grey((of("chin")?.stops ?? 0) - 1)} />
      {PLANES.map(([spot, points]) => (
        <polygon
          key={spot}
          points={points.map((p) => p.join(",")).join(" ")}
          fill={grey(of(spot)?.stops)}
          className="plane"
        />
      ))}
      {WORDS.map(([spot, side, y, toX, toY]) => (
        <g key={spot}>
          <line x1={side > 0 ? 196 : 4} y1={y} x2={toX} y2={toY} className="leader" />
          <text x={side > 0 ? 200 : 0} y={y} textAnchor={side > 0 ? "start" : "end"} className="spot">
            {NAMES[spot]} <tspan className="stops">{stopsWords(of(spot)?.stops)}</tspan>
          </text>
        </g>
      ))}
    </svg>
  );
}
