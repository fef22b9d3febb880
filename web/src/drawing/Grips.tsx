// Places to take hold of on a drawing: drag with the pointer, nudge with the arrow keys (1 cm, with Shift 10 cm). The
// drawing below is a picture; this layer over it is what hands and screen readers meet.
import { useRef } from "react";

import type { Handle, Move, View } from "../api/client";
import { placeOf, sum, type Table, type Vector } from "../corner/useWorktable";
import { hold } from "./hold";

export type Sheet = NonNullable<Move["sheet"]>;
type Grip = NonNullable<Move["grip"]>;

interface Props {
  view: View;
  /** The drawing's box while a drag goes on: it does not shift under the hand. */
  bounds: number[];
  sheet: Sheet;
  handles: Handle[];
  selected: string | null;
  /** A thing has the focus. */
  onSelect: (thing: string) => void;
  /** A hand takes it, by pointer or keys. */
  onTake: (thing: string) => void;
  table: Table;
  /** Told when a drag begins and ends. */
  onHold: (held: boolean) => void;
  /** Radius of a grip, m. */
  radius: number;
}

const dot = (a: number[], b: number[]) =>
  (a[0] ?? 0) * (b[0] ?? 0) + (a[1] ?? 0) * (b[1] ?? 0) + (a[2] ?? 0) * (b[2] ?? 0);
const along = (right: Vector, x: number, down: Vector, y: number): Vector => [
  right[0] * x + down[0] * y,
  right[1] * x + down[1] * y,
  right[2] * x + down[2] * y,
];

const STEP_M = 0.01;
/** A pointer that moves less than this only points, m. */
const STILL_M = 0.008;
const ARROWS: Record<string, [number, number]> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

export function Grips({
  view,
  bounds,
  sheet,
  handles,
  selected,
  onSelect,
  onTake,
  table,
  onHold,
  radius,
}: Props) {
  const svg = useRef<SVGSVGElement>(null);
  const projection = view.projection;
  if (!projection) return null;
  const [right, down] = [projection.right as Vector, projection.down as Vector];
  const [left = 0, top = 0, rightEdge = 1, bottom = 1] = bounds;
  const flat = (p: Vector): [number, number] => {
    const off: Vector = [
      p[0] - (projection.origin_m[0] ?? 0),
      p[1] - (projection.origin_m[1] ?? 0),
      p[2] - (projection.origin_m[2] ?? 0),
    ];
    return [dot(right, off), dot(down, off)];
  };
  /** Where a grip is drawn: round the letter, which may have stepped aside from the thing itself. */
  const shownAt = (handle: Handle, grip: Grip): [number, number] => {
    const mark = grip === "place" ? view.marks.find((m) => m.thing === handle.id) : undefined;
    return mark ? [mark.at[0] ?? 0, mark.at[1] ?? 0] : flat(placeOf(handle, grip));
  };
  /** The pointer in the drawing's metres. */
  const pointer = (event: { clientX: number; clientY: number }): [number, number] | null => {
    const matrix = svg.current?.getScreenCTM()?.inverse();
    if (!matrix) return null;
    const at = new DOMPoint(event.clientX, event.clientY).matrixTransform(matrix);
    return [at.x, at.y];
  };
  /** Takes hold of a thing until the pointer is let go or Escape breaks it off. */
  const seize = (event: React.PointerEvent, handle: Handle, grip: Grip) => {
    onTake(handle.id);
    const { plan } = table;
    const point = pointer(event);
    if (event.button !== 0 || handle.locked || !handle.movable || !plan || !point) return;
    const from = placeOf(handle, grip);
    let moved = false;
    const drag = (at: PointerEvent, live: boolean) => {
      const now = pointer(at);
      if (!now) return moved;
      const [x, y] = [now[0] - point[0], now[1] - point[1]];
      if (!moved && Math.hypot(x, y) < STILL_M) return false;
      if (!moved) onHold(true);
      moved = true;
      const to_m = sum(from, along(right, x, down, y));
      void table.move({ thing: handle.id, grip, to_m, sheet, snap: true, anyway: at.altKey }, plan, live);
      return true;
    };
    hold({ drag, onBreak: () => table.cancel(plan), onEnd: (held) => held && onHold(false) });
  };
  const keys = (event: React.KeyboardEvent, handle: Handle, grip: Grip) => {
    const arrow = ARROWS[event.key];
    if (arrow || event.key === "Enter") onTake(handle.id);
    if (!arrow || handle.locked || !handle.movable) return;
    event.preventDefault();
    const step = STEP_M * (event.shiftKey ? 10 : 1);
    void table.nudge(handle.id, grip, along(right, arrow[0] * step, down, arrow[1] * step));
  };
  // What has no mark, as furniture, lies under what has one: both may be in one place.
  const onSheet = handles
    .filter((h) => (sheet === "plan" ? true : h.lifts || h.id === "seat"))
    .sort((a, b) => Number(a.letter !== "") - Number(b.letter !== ""));
  const one = (handle: Handle, grip: Grip, name: string, size: number) => {
    const [x, y] = shownAt(handle, grip);
    const state = handle.locked ? ", locked" : handle.movable ? "" : ", fixed";
    return (
      <g
        key={`${handle.id}-${grip}`}
        role="button"
        tabIndex={0}
        aria-label={`${name}${state}. Arrow keys move it a small step, with Shift a large one.`}
        aria-pressed={handle.id === selected}
        data-grip={`${sheet}-${handle.id}-${grip}`}
        className={`grip ${handle.id === selected ? "grip-selected" : ""} ${handle.locked || !handle.movable ? "grip-fixed" : ""}`}
        onPointerDown={(event) => seize(event, handle, grip)}
        onFocus={() => onSelect(handle.id)}
        onKeyDown={(event) => keys(event, handle, grip)}
      >
        {grip === "zoom" ? (
          <path
            d={`M ${x - size} ${y} l ${size * 0.7} ${-size * 0.8} v ${size * 1.6} Z M ${x + size} ${y} l ${-size * 0.7} ${-size * 0.8} v ${size * 1.6} Z`}
          />
        ) : grip === "aim" ? (
          <path d={`M ${x} ${y - size} l ${size} ${size} l ${-size} ${size} l ${-size} ${-size} Z`} />
        ) : grip === "foot" ? (
          <rect x={x - size} y={y - size} width={2 * size} height={2 * size} />
        ) : (
          <circle cx={x} cy={y} r={size} />
        )}
      </g>
    );
  };
  return (
    <svg
      ref={svg}
      className="grips"
      viewBox={`${left} ${top} ${rightEdge - left} ${bottom - top}`}
      role="group"
      aria-label={sheet === "plan" ? "Things on the plan" : "Things on the side view"}
    >
      {onSheet.map((handle) => one(handle, "place", handle.name, radius))}
      {onSheet
        .filter((h) => h.id === selected)
        .map((handle) => {
          // On top of its neighbours, so that the pointer can always take it; keys have their place above.
          const [x, y] = shownAt(handle, "place");
          return (
            <circle
              key="top"
              className="grip-top"
              aria-hidden="true"
              cx={x}
              cy={y}
              r={radius}
              onPointerDown={(event) => seize(event, handle, "place")}
            />
          );
        })}
      {onSheet
        .filter((h) => h.id === selected && !h.locked)
        .flatMap((h) => [
          ...(h.aim_m ? [one(h, "aim", `Aim of ${h.name}`, radius * 0.8)] : []),
          ...(h.edge_m && sheet === "plan"
            ? [one(h, "zoom", "Edge of the picture: zooms", radius * 0.8)]
            : []),
          ...(h.foot_m && sheet === "plan" && offFoot(h)
            ? [one(h, "foot", `Foot of the stand of ${h.name}`, radius * 0.7)]
            : []),
        ])}
    </svg>
  );
}

/** The stand's foot is apart from what it carries. */
function offFoot(handle: Handle): boolean {
  const [x = 0, y = 0] = handle.position_m;
  const [fx = x, fy = y] = handle.foot_m ?? [];
  return Math.hypot(x - fx, y - fy) > 0.3;
}
