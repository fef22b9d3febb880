// One view drawn from the server's shapes: strokes as they come, then lettered marks, then words where they
// meet nothing.
import { useMemo } from "react";

import type { View } from "../api/client";
import { placeLabels } from "./labels";

interface Props {
  view: View;
  /** Spoken name of the drawing. */
  title: string;
  /** Height of the words, in parts of the drawing's width. */
  textSize: number;
  className?: string;
  style?: React.CSSProperties;
}

export function Drawing({ view, title, textSize, className = "", style }: Props) {
  const [left = 0, top = 0, right = 1, bottom = 1] = view.bounds;
  const size = textSize * (right - left);
  const placed = useMemo(
    () => placeLabels(view.labels, [left, top, right, bottom], size),
    [view.labels, left, top, right, bottom, size],
  );
  return (
    <svg
      className={`drawing ${className}`}
      style={style}
      viewBox={`${left} ${top} ${right - left} ${bottom - top}`}
      role="img"
      aria-label={title}
    >
      {view.strokes.map((stroke, index) => {
        const points = stroke.points.map((p) => p.join(",")).join(" ");
        return stroke.closed ? (
          <polygon
            key={index}
            points={points}
            className={`ink-${stroke.ink}`}
            data-thing={stroke.thing ?? undefined}
          />
        ) : (
          <polyline key={index} points={points} className={`ink-${stroke.ink} open`} />
        );
      })}
      {placed.badges.map((badge) => (
        <g key={`${badge.letter}${badge.x}${badge.y}`}>
          <circle cx={badge.x} cy={badge.y} r={size * 0.72} className={`badge badge-${badge.ink}`} />
          <text
            x={badge.x}
            y={badge.y + size * 0.35}
            fontSize={size * 0.95}
            textAnchor="middle"
            className="letter"
          >
            {badge.letter}
          </text>
        </g>
      ))}
      {placed.words.map((word) => (
        <text key={`${word.text}${word.x}${word.y}`} x={word.x} y={word.y} fontSize={size}>
          {word.text}
        </text>
      ))}
    </svg>
  );
}
