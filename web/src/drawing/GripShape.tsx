// How a grip looks by what it holds: a thing, what it is aimed at, the picture's edge, a stand's foot.
import type { Grip } from "../table/handles";

export function GripShape({ grip, at: [x, y], size }: { grip: Grip; at: [number, number]; size: number }) {
  switch (grip) {
    case "zoom":
      return (
        <path
          d={`M ${x - size} ${y} l ${size * 0.7} ${-size * 0.8} v ${size * 1.6} Z M ${x + size} ${y} l ${-size * 0.7} ${-size * 0.8} v ${size * 1.6} Z`}
        />
      );
    case "aim":
      return <path d={`M ${x} ${y - size} l ${size} ${size} l ${-size} ${size} l ${-size} ${-size} Z`} />;
    case "foot":
      return <rect x={x - size} y={y - size} width={2 * size} height={2 * size} />;
    case "place":
    case "shot":
    case "frame":
      return <circle cx={x} cy={y} r={size} />;
  }
}
