// One view drawn from the server's shapes: floor, what is computed at every place, strokes from back to front, then marks and
// words where the server has put them so that none covers another.
import { memo, useId } from "react";

import type { Schemas, View } from "../api/client";
import type { Area, FieldName } from "./field";

interface Props {
  view: View;
  /** Spoken name of the drawing. */
  title: string;
  className?: string;
  /** Not taller than this length of CSS: what lies beyond the drawing's edge is never shown. */
  tallest?: string;
  /** What is computed at every place, to lay under the things. */
  field?: { of: FieldName; areas: Area[] } | undefined;
  /** The light to lay over it, and the lamp whose light that is. */
  over?: Schemas["LightSheet"] | undefined;
  lamp?: string | null;
  /** The ways of the voice, to lay over it. */
  ways?: View["strokes"] | undefined;
  /** Outlines on which the sun lies. */
  sun?: [number, number][][] | undefined;
}

const points = (line: readonly (readonly number[])[]) => line.map((p) => p.join(",")).join(" ");

export function Drawing({
  view,
  title,
  className = "",
  tallest,
  field,
  over,
  lamp = null,
  ways,
  sun,
}: Props) {
  const [left = 0, top = 0, right = 1, bottom = 1] = view.bounds;
  const size = view.text_size;
  const clip = useId();
  const floor = view.strokes.find((stroke) => stroke.ink === "floor");
  const rest = view.strokes.filter((stroke) => stroke !== floor);
  return (
    <svg
      className={`drawing ${className}`}
      style={tallest ? { maxWidth: `calc(${tallest} * ${(right - left) / (bottom - top)})` } : undefined}
      viewBox={`${left} ${top} ${right - left} ${bottom - top}`}
      role="img"
      aria-label={title}
    >
      {floor && <Line stroke={floor} />}
      {field && floor && (
        <>
          <clipPath id={clip}>
            <polygon points={points(floor.points)} />
          </clipPath>
          <g clipPath={`url(#${clip})`}>
            {field.areas.map((area) => (
              <path
                key={area.level}
                d={area.rings.map((ring) => `M${ring.map((p) => p.join(" ")).join("L")}Z`).join("")}
                fillRule="evenodd"
                className={`area area-${field.of} ${area.level === 0 ? "area-edge" : ""}`}
              />
            ))}
          </g>
        </>
      )}
      {rest.map((stroke, index) => (
        <Line key={index} stroke={stroke} />
      ))}
      {over?.strokes
        .filter((stroke) => !stroke.thing || stroke.thing === lamp)
        .map((stroke, index) => (
          <Line key={`over-${String(index)}`} stroke={stroke} />
        ))}
      {sun?.map((outline, index) => (
        <polygon key={`sun-${String(index)}`} points={points(outline)} className="sun-patch" />
      ))}
      {ways?.map((stroke, index) => (
        <Line key={`way-${String(index)}`} stroke={stroke} />
      ))}
      {over?.words
        .filter((word) => word.thing === lamp)
        .map((word, index) => (
          <text
            key={`over-${String(index)}`}
            x={word.at[0]}
            y={word.at[1]}
            fontSize={size * 0.9}
            textAnchor="middle"
            className="word reach"
          >
            {word.text}
          </text>
        ))}
      {view.words.map(({ leader }, index) =>
        leader ? <polyline key={index} points={points(leader)} className="leader" /> : null,
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
  return stroke.closed ? (
    <polygon
      points={points(stroke.points)}
      className={`ink-${stroke.ink}`}
      data-thing={stroke.thing ?? undefined}
    />
  ) : (
    <polyline points={points(stroke.points)} className={`ink-${stroke.ink} open`} />
  );
});
