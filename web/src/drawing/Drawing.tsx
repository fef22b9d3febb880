// One view drawn from the server's shapes: strokes from back to front, then lettered marks and words where the
// server has put them so that none covers another.
import { memo } from "react";

import type { Schemas, View } from "../api/client";

interface Props {
  view: View;
  /** Spoken name of the drawing. */
  title: string;
  className?: string;
  style?: React.CSSProperties;
  /** The light to lay over it, and the lamp whose light that is. */
  over?: Schemas["LightSheet"] | undefined;
  lamp?: string | null;
  /** The ways of the voice, to lay over it. */
  ways?: View["strokes"] | undefined;
}

export function Drawing({ view, title, className = "", style, over, lamp = null, ways }: Props) {
  const [left = 0, top = 0, right = 1, bottom = 1] = view.bounds;
  const size = view.text_size;
  return (
    <svg
      className={`drawing ${className}`}
      style={style}
      viewBox={`${left} ${top} ${right - left} ${bottom - top}`}
      role="img"
      aria-label={title}
    >
      {view.strokes.map((stroke, index) => (
        <Line key={index} stroke={stroke} />
      ))}
      {over?.strokes
        // Every lamp as large as the face sees it; lines of one.
        .filter((stroke) => !stroke.thing || stroke.thing === lamp || stroke.ink === "cone")
        .map((stroke, index) => (
          <Line key={`over-${index}`} stroke={stroke} />
        ))}
      {ways?.map((stroke, index) => (
        <Line key={`way-${index}`} stroke={stroke} />
      ))}
      {over?.words
        .filter((word) => word.thing === lamp)
        .map((word, index) => (
          <text
            key={`over-${index}`}
            x={word.at[0]}
            y={word.at[1]}
            fontSize={size * 0.9}
            textAnchor="middle"
            className="word reach"
          >
            {word.text}
          </text>
        ))}
      {view.words
        .map((word) => word.leader)
        .map((leader, index) =>
          leader ? (
            <polyline key={index} points={leader.map((p) => p.join(",")).join(" ")} className="leader" />
          ) : null,
        )}
      {view.marks.map((mark, index) => {
        const [x = 0, y = 0] = mark.at;
        return (
          <g key={index}>
            <circle cx={x} cy={y} r={view.mark_radius} className={`badge badge-${mark.ink}`} />
            <text x={x} y={y + size * 0.35} fontSize={size * 0.95} textAnchor="middle" className="letter">
              {mark.letter}
            </text>
          </g>
        );
      })}
      {view.words.map((word, index) => {
        const [x = 0, y = 0] = word.at;
        return (
          <text key={index} x={x} y={y} fontSize={size} className="word">
            {word.text}
          </text>
        );
      })}
    </svg>
  );
}

/** One outline or line; drawn again only when it has changed. */
const Line = memo(function Line({ stroke }: { stroke: View["strokes"][number] }) {
  const points = stroke.points.map((p) => p.join(",")).join(" ");
  return stroke.closed ? (
    <polygon points={points} className={`ink-${stroke.ink}`} data-thing={stroke.thing ?? undefined} />
  ) : (
    <polyline points={points} className={`ink-${stroke.ink} open`} />
  );
});
