// The face as an instrument: a head in planes, each as bright as its light makes it, with its stops on it.
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
  "socket-right": "Right eye",
  "socket-left": "Left eye",
  "nose-right": "Right of the nose",
  "nose-left": "Left of the nose",
  "cheek-right": "Right cheek",
  "cheek-left": "Left cheek",
  chin: "Chin",
  "shoulder-right": "Right shoulder",
  "shoulder-left": "Left shoulder",
};

/** Where the stops stand on a plane; on the narrow planes of the nose they have no room. */
const AT: [Spot, number, number][] = [
  ["crown", 100, 40],
  ["forehead", 100, 70],
  ["socket-right", 121, 95],
  ["socket-left", 79, 95],
  ["cheek-right", 130, 132],
  ["cheek-left", 70, 132],
  ["chin", 100, 176],
  ["shoulder-right", 150, 241],
  ["shoulder-left", 50, 241],
];

/** Grey of a skin of 0.35 under so many stops, as a screen shows it, 0 to 255; white is 1.5 stops over the face. */
function grey(stops: number | null | undefined): number {
  const linear = stops == null ? 0 : Math.min(1, 0.35 * 2 ** stops);
  const shown = linear <= 0.0031308 ? 12.92 * linear : 1.055 * linear ** (1 / 2.4) - 0.055;
  return Math.round(255 * shown);
}

const rgb = (level: number) => `rgb(${String(level)} ${String(level)} ${String(level)})`;
/** Black or white, whichever is read on a grey (WCAG 2.1: from about here black has the greater contrast). */
const readOn = (level: number) => (level > 118 ? "#000" : "#fff");

export const stopsWords = (stops: number | null | undefined): string =>
  stops == null ? "dark" : `${stops > 0.05 ? "+" : stops < -0.05 ? "−" : ""}${fixed(Math.abs(stops), 1)}`;

export function Head({ face, spoken = "" }: { face: Schemas["FaceSeen"]; spoken?: string }) {
  const of = (spot: Spot) => face.facets.find((f) => f.spot === spot)?.stops;
  const told = PLANES.map(([spot]) => `${NAMES[spot]} ${stopsWords(of(spot))}`).join(", ");
  return (
    <svg
      viewBox="8 14 184 244"
      className="mx-auto block max-h-[25vh] w-full"
      role="img"
      aria-label={`${spoken}Stops on the head: ${told}`}
    >
      <polygon points="86,194 114,194 116,224 84,224" fill={rgb(grey((of("chin") ?? 0) - 1))} />
      {PLANES.map(([spot, points]) => (
        <polygon
          key={spot}
          points={points.map((p) => p.join(",")).join(" ")}
          fill={rgb(grey(of(spot)))}
          stroke="rgb(255 255 255 / 0.25)"
          strokeWidth="0.5"
        >
          <title>{`${NAMES[spot]} ${stopsWords(of(spot))} stops`}</title>
        </polygon>
      ))}
      {AT.map(([spot, x, y]) => (
        <text
          key={spot}
          x={x}
          y={y}
          fill={readOn(grey(of(spot)))}
          fontSize="12"
          fontWeight="700"
          textAnchor="middle"
          dominantBaseline="middle"
          pointerEvents="none"
        >
          {stopsWords(of(spot))}
        </text>
      ))}
    </svg>
  );
}
