// The room as typed so far, to scale, while it is being typed.
import type { Brief } from "../api/client";
import { briefOf, type Draft } from "./draft";
import { formatLength } from "../units/length";

interface Props {
  draft: Draft;
  /** Size of its words against the usual. */
  textScale?: number;
}

export function RoomSketch({ draft, textScale = 1 }: Props) {
  const { brief } = briefOf(draft);
  const [width = 0, depth = 0] = brief.room.floor_m[2] ?? [];
  if (!(width > 0) || !(depth > 0)) {
    return <p className="text-faint text-sm">Type the width and depth of the room to see it drawn.</p>;
  }
  const units = brief.units ?? "metric";
  const walls: [number, number, number, number, number][] = [
    [0, 0, 1, 0, width],
    [width, 0, 0, 1, depth],
    [width, depth, -1, 0, width],
    [0, depth, 0, -1, depth],
  ];
  const flip = (y: number) => depth - y;
  const text = Math.max(width, depth) * 0.045 * textScale;
  const margin = text * 2;
  return (
    <svg
      className="drawing"
      viewBox={`${-margin} ${-margin} ${width + 2 * margin} ${depth + 2 * margin}`}
      role="img"
      aria-label={`Room ${formatLength(width, units)} wide, ${formatLength(depth, units)} deep, seen from above`}
    >
      <rect
        x={0}
        y={0}
        width={width}
        height={depth}
        className="ink-floor"
        style={{ stroke: "var(--color-ink)", strokeWidth: 5 }}
      />
      {Object.entries(brief.room.furniture ?? {}).map(([id, piece]) => {
        const [x = 0, y = 0] = piece.position_m;
        const [w = 0, d = 0] = piece.size_m;
        return (
          <g key={id} transform={`rotate(${piece.bearing_deg ?? 0} ${x} ${flip(y)})`}>
            <rect
              x={x - w / 2}
              y={flip(y) - d / 2}
              width={w}
              height={d}
              className="ink-furniture"
              strokeDasharray={piece.fixed ? undefined : "5 4"}
            />
            <text
              x={x}
              y={flip(y) + text * 0.3}
              fontSize={text * 0.8}
              textAnchor="middle"
              transform={`rotate(${-(piece.bearing_deg ?? 0)} ${x} ${flip(y)})`}
            >
              {id}
            </text>
          </g>
        );
      })}
      {Object.entries(brief.room.openings ?? {}).map(([id, o]) => {
        const [x = 0, y = 0, dx = 0, dy = 0] = walls[o.wall] ?? [];
        const [ax, ay] = [x + dx * o.from_m, y + dy * o.from_m];
        const [bx, by] = [ax + dx * o.width_m, ay + dy * o.width_m];
        // Facing a wall from inside, it runs from right to left: a left hinge is at the far end.
        const hinge = o.swing === "in-left" ? ([bx, by, -1] as const) : ([ax, ay, 1] as const);
        const swings = o.kind === "door" && (o.swing === "in-left" || o.swing === "in-right");
        const leaf = Array.from({ length: 9 }, (_, step) => {
          const turn = (step / 8) * (Math.PI / 2);
          const [along, inwards] = [hinge[2] * Math.cos(turn), Math.sin(turn)];
          const px = hinge[0] + (dx * along - dy * inwards) * o.width_m;
          const py = hinge[1] + (dy * along + dx * inwards) * o.width_m;
          return `${px},${flip(py)}`;
        });
        return (
          <g key={id}>
            {swings && (
              <polygon points={[`${hinge[0]},${flip(hinge[1])}`, ...leaf].join(" ")} className="ink-swing" />
            )}
            <line
              x1={ax}
              y1={flip(ay)}
              x2={bx}
              y2={flip(by)}
              stroke={o.kind === "door" ? "var(--color-paper)" : "#9fb8c4"}
              strokeWidth={o.kind === "door" ? 6 : 4}
            />
          </g>
        );
      })}
      {stands(brief).map(([letter, x, y]) => (
        <g key={letter}>
          <circle cx={x} cy={flip(y)} r={text * 0.75} className="badge badge-person" />
          <text x={x} y={flip(y) + text * 0.35} fontSize={text} textAnchor="middle" className="letter">
            {letter}
          </text>
        </g>
      ))}
      <text x={width / 2} y={depth + text * 1.4} fontSize={text} textAnchor="middle">
        back wall, {formatLength(width, units)}
      </text>
      <text x={width / 2} y={-text * 0.6} fontSize={text} textAnchor="middle">
        front wall
      </text>
      <text
        x={-text * 0.6}
        y={depth / 2}
        fontSize={text}
        textAnchor="middle"
        transform={`rotate(-90 ${-text * 0.6} ${depth / 2})`}
      >
        left wall, {formatLength(depth, units)}
      </text>
      <text
        x={width + text * 0.6}
        y={depth / 2}
        fontSize={text}
        textAnchor="middle"
        transform={`rotate(90 ${width + text * 0.6} ${depth / 2})`}
      >
        right wall
      </text>
    </svg>
  );
}

/** What stands today, by letter, where it was given. */
function stands({ today }: Brief): [string, number, number][] {
  const key = Object.values(today?.lights ?? {}).find((l) => l.role === "key");
  const all: [string, number[] | undefined][] = [
    ["S", today?.seat?.position_m],
    ["C", today?.camera?.position_m],
    ["K", key?.position_m],
    ["M", today?.microphone?.position_m],
  ];
  return all.flatMap(([letter, at]) =>
    at && ((at[0] ?? 0) > 0 || (at[1] ?? 0) > 0) ? [[letter, at[0] ?? 0, at[1] ?? 0]] : [],
  );
}
