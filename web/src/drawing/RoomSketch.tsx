// The room as typed so far, to scale, while it is being typed.
import type { Brief } from "../api/client";
import { isRectangle, LETTERS } from "../table/floor";
import { formatLength, type UnitSystem } from "../units/length";

interface Props {
  brief: Brief | null;
  /** Size of its words against the usual. */
  textScale?: number;
}

export function RoomSketch({ brief, textScale = 1 }: Props) {
  const floor = (brief?.room.floor_m ?? []).map(([x = 0, y = 0]) => [x, y] as const);
  const [width, depth] = [Math.max(0, ...floor.map((p) => p[0])), Math.max(0, ...floor.map((p) => p[1]))];
  if (!brief || !(width > 0) || !(depth > 0))
    return <p className="text-faint text-sm">Type the width and depth of the room to see it drawn.</p>;
  const units = brief.units ?? "metric";
  const rectangle = isRectangle(brief.room.floor_m);
  // Each wall: where it begins, its direction, its length.
  const walls = floor.map(([x, y], i) => {
    const [nx, ny] = floor[(i + 1) % floor.length] ?? [0, 0];
    const long = Math.hypot(nx - x, ny - y) || 1;
    return [x, y, (nx - x) / long, (ny - y) / long, long] as const;
  });
  const points = (outline: (readonly [number, number])[]) =>
    outline.map(([x, y]) => `${x},${flip(y)}`).join(" ");
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
      <polygon
        points={points(floor)}
        className="ink-floor"
        style={{ stroke: "var(--color-ink)", strokeWidth: 5 }}
      />
      {Object.entries(brief.room.slopes ?? {}).map(([id, slope]) => {
        const [x = 0, y = 0, dx = 0, dy = 0, long = 0] = walls[slope.wall] ?? [];
        const from = slope.from_m ?? 0;
        const to = from + (slope.length_m ?? long - from);
        const at = (along: number, off: number) =>
          [x + dx * along - dy * off, y + dy * along + dx * off] as const;
        const outline = [at(from, 0), at(to, 0), at(to, slope.run_m), at(from, slope.run_m)];
        return <polygon key={id} points={points(outline)} className="ink-overhead" />;
      })}
      {Object.entries(brief.room.beams ?? {}).map(([id, beam]) => {
        const [[x0 = 0, y0 = 0], [x1 = 0, y1 = 0]] = [beam.from_m, beam.to_m];
        const long = Math.hypot(x1 - x0, y1 - y0) || 1;
        const [sx, sy] = [(-(y1 - y0) / long) * (beam.width_m / 2), ((x1 - x0) / long) * (beam.width_m / 2)];
        const outline = [
          [x0 - sx, y0 - sy],
          [x1 - sx, y1 - sy],
          [x1 + sx, y1 + sy],
          [x0 + sx, y0 + sy],
        ] as const;
        return <polygon key={id} points={points([...outline])} className="ink-overhead" />;
      })}
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
      {rectangle ? (
        <Sides width={width} depth={depth} text={text} units={units} />
      ) : (
        walls.map(([x, y], i) => {
          // Outside the corner, on the bisector of its two walls.
          const [, , ax = 0, ay = 0] = walls[(i + walls.length - 1) % walls.length] ?? [];
          const [, , bx = 0, by = 0] = walls[i] ?? [];
          const [ox, oy] = [ay + by, -(ax + bx)];
          const off = (text * 0.9) / (Math.hypot(ox, oy) || 1);
          return (
            <text
              key={i}
              x={x + ox * off}
              y={flip(y + oy * off) + text * 0.35}
              fontSize={text}
              textAnchor="middle"
            >
              {LETTERS[i]}
            </text>
          );
        })
      )}
    </svg>
  );
}

/** The sides of a rectangle by name. */
function Sides({
  width,
  depth,
  text,
  units,
}: {
  width: number;
  depth: number;
  text: number;
  units: UnitSystem;
}) {
  return (
    <>
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
    </>
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
