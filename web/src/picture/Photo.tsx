// The picture as a photograph, its guides drawn over it. Until there is one, and where there is none, the line drawing stands.
import { useEffect, useRef } from "react";

import type { Frame } from "../api/viewer";
import type { View } from "../api/client";
import { Drawing } from "../drawing/Drawing";
import { signed } from "./signed";

interface Props {
  frame: Frame | null;
  view: View;
  title: string;
  tallest: string;
  className?: string;
  /** Stops at places on the face are written over it. */
  showsSpots?: boolean;
  /** The frame stands on the canvas. */
  onDrawn: (frame: Frame) => void;
  /** A place was pointed at, parts of the picture from its upper left. */
  onLook?: ((at: [number, number]) => void) | undefined;
}

export function Photo({
  frame,
  view,
  title,
  tallest,
  className = "",
  showsSpots = false,
  onDrawn,
  onLook,
}: Props) {
  const [left = 0, top = 0, right = 1, bottom = 1] = view.bounds;
  if (!frame)
    return (
      <Drawing view={view} title={title} tallest={tallest} className={`frame-drawing mx-auto ${className}`} />
    );
  const aspect = frame.width / frame.height;
  const part = (from: number, to: number, whole: number) => `${(100 * (to - from)) / whole}%`;
  return (
    <div
      className="relative mx-auto overflow-hidden rounded-sm"
      style={{
        maxWidth: `calc(${tallest} * ${(right - left) / (bottom - top)})`,
        aspectRatio: `${right - left} / ${bottom - top}`,
      }}
      data-photo={frame.last ? "finished" : frame.samples}
    >
      <div
        className="absolute"
        style={{
          left: part(left, 0, right - left),
          top: part(top, 0, bottom - top),
          width: part(0, aspect, right - left),
          height: part(0, 1, bottom - top),
        }}
      >
        <Canvas frame={frame} title={title} onDrawn={onDrawn} onLook={onLook} />
        {showsSpots &&
          frame.told.spots.map(([which, x, y, stops]) => (
            <span
              key={which}
              className={`numeral pointer-events-none absolute rounded bg-black/60 px-1 text-xs ${BESIDE[which] ?? ""}`}
              style={{ left: `${100 * x}%`, top: `${100 * y}%` }}
            >
              {signed(stops)}
            </span>
          ))}
      </div>
      <div className="pointer-events-none absolute inset-0">
        <Drawing view={view} title={`Guides over the picture`} className={`over-photo ${className}`} />
      </div>
    </div>
  );
}

/** Words stand off the face: forehead above, the person's left cheek to the right, the right one to the left, chin below. */
const BESIDE = [
  "-translate-x-1/2 -translate-y-[180%]",
  "translate-x-[60%] -translate-y-1/2",
  "-translate-x-[160%] -translate-y-1/2",
  "-translate-x-1/2 translate-y-[80%]",
];

interface CanvasProps {
  frame: Frame;
  title: string;
  onDrawn: (frame: Frame) => void;
  onLook: Props["onLook"];
}

function Canvas({ frame, title, onDrawn, onLook }: CanvasProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    context?.putImageData(new ImageData(frame.pixels, frame.width, frame.height), 0, 0);
    onDrawn(frame);
  }, [frame, onDrawn]);
  return (
    <canvas
      ref={canvas}
      width={frame.width}
      height={frame.height}
      role="img"
      aria-label={title}
      className={`size-full ${onLook ? "cursor-crosshair" : ""}`}
      onClick={(event) => {
        const box = event.currentTarget.getBoundingClientRect();
        onLook?.([(event.clientX - box.left) / box.width, (event.clientY - box.top) / box.height]);
      }}
    />
  );
}
