// Places to take hold of on a drawing: drag with the pointer, nudge with the arrow keys (1 cm, with Shift 10 cm). The drawing
// below is a picture; this layer over it is what hands and screen readers meet.
import { useRef, useState } from "react";

import type { Handle, Move, View } from "../api/client";
import { placeOf, sum, type Grip } from "../table/handles";
import { useSelection } from "../table/selection";
import type { Boxes } from "../table/state";
import { useTable } from "../table/useTable";
import { GripShape } from "./GripShape";
import { along, flat } from "./projection";
import { useHolding } from "./useHolding";

export type Sheet = NonNullable<Move["sheet"]>;

interface Props {
  view: View;
  /** The drawing's box while a drag goes on: it does not shift under the hand. */
  bounds: number[];
  boxes: Boxes;
  sheet: Sheet;
  handles: Handle[];
  /** Radius of a grip, m. */
  radius: number;
}

interface Held {
  handle: Handle;
  grip: Grip;
}

const STEP_M = 0.01;
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

const isStill = (handle: Handle) => handle.locked || !handle.movable;

export function Grips({ view, bounds, boxes, sheet, handles, radius }: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const table = useTable();
  const { selected, select, take } = useSelection();
  const [pointed, setPointed] = useState<string | null>(null);
  const from = useRef(table.view().plan);
  const { projection } = view;
  const [left = 0, top = 0, right = 1, bottom = 1] = bounds;
  const bind = useHolding<Held>({
    onHold: ({ handle }) => {
      if (isStill(handle)) return;
      from.current = table.view().plan;
      table.hold(boxes);
    },
    onMove: ({ handle, grip }, [x, y], { live, anyway }) => {
      const width = svg.current?.getBoundingClientRect().width;
      const plan = from.current;
      if (isStill(handle) || !projection || !width || !plan) return;
      const metre = width / (right - left);
      const to_m = sum(placeOf(handle, grip), along(projection, x / metre, y / metre));
      const by = { thing: handle.id, grip, to_m, sheet, snap: true, anyway };
      void (live ? table.drag(by, plan) : table.drop(by, plan));
    },
    onBreak: table.letGo,
  });
  if (!projection) return null;
  /** Where a grip is drawn: round the letter, which may have stepped aside from the thing itself. */
  const shownAt = (handle: Handle, grip: Grip): [number, number] => {
    const mark = grip === "place" ? view.marks.find((m) => m.thing === handle.id) : undefined;
    return mark ? [mark.at[0] ?? 0, mark.at[1] ?? 0] : flat(projection, placeOf(handle, grip));
  };
  const keys = (event: React.KeyboardEvent, { handle, grip }: Held) => {
    const arrow = ARROWS[event.key];
    const presses = event.key === "Enter" || event.key === " ";
    if (!arrow && !presses) return;
    event.preventDefault();
    take(handle.id);
    if (!arrow || isStill(handle)) return;
    const step = STEP_M * (event.shiftKey ? 10 : 1);
    void table
      .nudge(handle.id, grip, along(projection, arrow[0] * step, arrow[1] * step))
      .catch(() => undefined);
  };
  // What has no mark, as furniture, lies under what has one: both may be in one place.
  const onSheet = handles
    .filter((h) => (sheet === "plan" ? true : h.lifts || h.id === "seat"))
    .sort((a, b) => Number(a.letter !== "") - Number(b.letter !== ""));
  const one = (held: Held, name: string, size: number) => {
    const { handle, grip } = held;
    const state = handle.locked ? ", locked" : handle.movable ? "" : ", fixed";
    return (
      <g
        key={`${handle.id}-${grip}`}
        {...bind(held)}
        role="button"
        tabIndex={0}
        aria-label={`${name}${state}. Arrow keys move it a small step, with Shift a large one.`}
        aria-pressed={handle.id === selected}
        data-grip={`${sheet}-${handle.id}-${grip}`}
        className={`grip ${handle.id === selected ? "grip-selected" : ""} ${isStill(handle) ? "grip-fixed" : ""}`}
        onPointerDownCapture={(event) => event.isPrimary && take(handle.id)}
        onPointerEnter={() => setPointed(handle.id)}
        onPointerLeave={() => setPointed(null)}
        onFocus={() => {
          select(handle.id);
          setPointed(handle.id);
        }}
        onBlur={() => setPointed(null)}
        onKeyDown={(event) => keys(event, held)}
      >
        <GripShape grip={grip} at={shownAt(handle, grip)} size={size} />
      </g>
    );
  };
  const hand = onSheet.find((h) => h.id === selected);
  const label = onSheet.find((h) => h.id === pointed);
  return (
    <svg
      ref={svg}
      className="grips"
      viewBox={`${left} ${top} ${right - left} ${bottom - top}`}
      role="group"
      aria-label={sheet === "plan" ? "Things on the plan" : "Things on the side view"}
    >
      {onSheet.map((handle) => one({ handle, grip: "place" }, handle.name, radius))}
      {/* On top of its neighbours, so that a pointer can always take what is in hand; keys have their place above. */}
      {hand && (
        <g {...bind({ handle: hand, grip: "place" })} className="grip-top" aria-hidden="true">
          <GripShape grip="place" at={shownAt(hand, "place")} size={radius} />
        </g>
      )}
      {hand &&
        !hand.locked &&
        extras(hand, sheet).map(([grip, name, size]) => one({ handle: hand, grip }, name, radius * size))}
      {label && (
        <PointedLabel
          words={label.name}
          at={shownAt(label, "place")}
          above={radius * 1.3}
          size={view.text_size}
          right={right}
          top={top}
        />
      )}
    </svg>
  );
}

/** What else of a thing in hand can be taken hold of. */
function extras(handle: Handle, sheet: Sheet): [Grip, string, number][] {
  const all: [Grip, string, number][] = [];
  if (handle.aim_m) all.push(["aim", `Aim of ${handle.name}`, 0.8]);
  if (handle.edge_m && sheet === "plan") all.push(["zoom", "Edge of the picture: zooms", 0.8]);
  if (handle.foot_m && sheet === "plan" && isFootApart(handle))
    all.push(["foot", `Foot of the stand of ${handle.name}`, 0.7]);
  return all;
}

/** The stand's foot is apart from what it carries. */
function isFootApart(handle: Handle): boolean {
  const [x = 0, y = 0] = handle.position_m;
  const [fx = x, fy = y] = handle.foot_m ?? [];
  return Math.hypot(x - fx, y - fy) > 0.3;
}

interface LabelProps {
  words: string;
  at: [number, number];
  above: number;
  size: number;
  right: number;
  top: number;
}

/** What a thing is called, while it is pointed at or has the focus. */
function PointedLabel({ words, at: [x, y], above, size, right, top }: LabelProps) {
  const wide = size * (0.56 * words.length + 1);
  const from = Math.min(x - wide / 2, right - wide);
  const over = y - above - size * 1.7 > top ? y - above - size * 1.7 : y + above;
  return (
    <g className="pointed" aria-hidden="true">
      <rect x={from} y={over} width={wide} height={size * 1.6} rx={size * 0.3} />
      <text x={from + wide / 2} y={over + size * 1.12} fontSize={size} textAnchor="middle">
        {words}
      </text>
    </g>
  );
}
