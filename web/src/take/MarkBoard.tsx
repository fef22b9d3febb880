// A still with its marks to be dragged into place, by pointer, by finger or with the arrow keys.
import { useDrag } from "@use-gesture/react";
import { useRef } from "react";

import { MARKS, within, type MarkName, type Place, type Placed } from "./marks";

/** A press of an arrow key, and of one with Shift, parts of the picture. */
const STEP = 0.002;
const FAR = 0.02;
const ARROWS: Record<string, Place> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface Props {
  address: string;
  placed: Placed;
  onPlaced: (name: MarkName, at: Place) => void;
}

export function MarkBoard({ address, placed, onPlaced }: Props) {
  const board = useRef<HTMLDivElement>(null);
  const names = Object.keys(placed) as MarkName[];
  const line = (from: MarkName, to: MarkName) => {
    const [a, b] = [placed[from], placed[to]];
    return a && b ? <line x1={100 * a[0]} y1={100 * a[1]} x2={100 * b[0]} y2={100 * b[1]} /> : null;
  };
  return (
    <div ref={board} className="bg-surround relative overflow-hidden rounded-lg select-none">
      <img
        src={address}
        alt="The still that was taken at the seat"
        className="block w-full"
        draggable={false}
      />
      <svg
        viewBox="0 0 100 100"
        preserveAspectRatio="none"
        className="pointer-events-none absolute inset-0 h-full w-full"
        stroke="white"
        strokeOpacity="0.75"
        vectorEffect="non-scaling-stroke"
        strokeWidth="0.25"
        aria-hidden="true"
      >
        {line("crown", "chin")}
        {line("chin", "shoulder")}
        {line("edgeTop", "edgeBottom")}
        {line("otherTop", "otherBottom")}
        {line("screenFrom", "screenTo")}
      </svg>
      {names.map((name) => {
        const at = placed[name];
        return at && <Handle key={name} name={name} at={at} board={board} onPlaced={onPlaced} />;
      })}
    </div>
  );
}

interface HandleProps {
  name: MarkName;
  at: Place;
  board: React.RefObject<HTMLDivElement | null>;
  onPlaced: Props["onPlaced"];
}

function Handle({ name, at, board, onPlaced }: HandleProps) {
  const bind = useDrag(
    ({ movement: [x, y], memo }: { movement: [number, number]; memo?: Place }) => {
      const from = memo ?? at;
      const size = board.current?.getBoundingClientRect();
      if (size) onPlaced(name, within([from[0] + x / size.width, from[1] + y / size.height]));
      return from;
    },
    { pointer: { keys: false } },
  );
  const isRight = at[0] > 0.6;
  return (
    <button
      type="button"
      {...bind()}
      aria-label={`${MARKS[name]}: ${(100 * at[0]).toFixed(1)} % from the left, ${(100 * at[1]).toFixed(1)} % from the top; arrow keys move it`}
      data-mark={name}
      className="absolute h-11 w-11 -translate-x-1/2 -translate-y-1/2 cursor-grab touch-none rounded-full active:cursor-grabbing"
      style={{ left: `${String(100 * at[0])}%`, top: `${String(100 * at[1])}%` }}
      onKeyDown={(event) => {
        const way = ARROWS[event.key];
        if (!way) return;
        event.preventDefault();
        const step = event.shiftKey ? FAR : STEP;
        onPlaced(name, within([at[0] + way[0] * step, at[1] + way[1] * step]));
      }}
    >
      <svg viewBox="-22 -22 44 44" className="h-full w-full" aria-hidden="true">
        <circle r="7" fill="none" stroke="black" strokeWidth="3.5" />
        <circle r="7" fill="none" stroke="white" strokeWidth="1.75" />
        <circle r="1.5" fill="white" />
      </svg>
      <span
        className={`pointer-events-none absolute top-1/2 -translate-y-1/2 rounded bg-black/70 px-1 text-xs whitespace-nowrap text-white ${isRight ? "right-8" : "left-8"}`}
      >
        {MARKS[name]}
      </span>
    </button>
  );
}
