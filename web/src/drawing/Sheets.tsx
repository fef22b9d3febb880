// Plan over side view at one scale, with the grips over each. Two fingers, or the wheel with Ctrl, bring them nearer.
import { usePinch } from "@use-gesture/react";
import { useEffect, useLayoutEffect, useRef, useState } from "react";

import type { Judged, Step, View } from "../api/client";
import { isRectangle } from "../table/floor";
import { useSelection } from "../table/selection";
import { useTableView } from "../table/useTable";
import { Button } from "../ui/button";
import { Drawing } from "./Drawing";
import { FieldScale } from "./FieldScale";
import { Grips, type Sheet } from "./Grips";
import { KeyOf } from "./KeyOf";
import { flat, turnedWords } from "./projection";
import { useSunlight } from "./sunlight";

interface Props {
  judged: Judged;
  step: Step | null;
  /** Pixels that both drawings may take. */
  room: { width: number; height: number };
}

const span = (bounds: number[]) => ({
  width: (bounds[2] ?? 1) - (bounds[0] ?? 0),
  height: (bounds[3] ?? 1) - (bounds[1] ?? 0),
});

/** Pixels of a metre, so that both drawings fit. */
function scaleOf(plan: number[], side: number[], room: Props["room"]): number {
  const [p, s] = [span(plan), span(side)];
  return Math.min(room.width / Math.max(p.width, s.width), room.height / (p.height + s.height));
}

const FIELDS = { light: "light", sound: "sound", shot: "shot" } as const;

/** Nearer than this nothing more is seen. */
const NEAREST = 4;

export function Sheets({ judged, step, room }: Props) {
  const { selected } = useSelection();
  const held = useTableView((view) => view.boxes);
  const holding = useTableView((view) => view.holding);
  const lights = useTableView((view) => view.plan?.layout.lights);
  // Of other rooms the corners carry letters.
  const named = useTableView((view) => view.plan !== null && isRectangle(view.plan.brief.room.floor_m));
  const lies = useSunlight().looked?.lies;
  const [zoom, setZoom] = useState(1);
  const area = useRef<HTMLDivElement>(null);
  usePinch(({ offset: [near] }) => setZoom(near), {
    target: area,
    // A second finger beside one that holds something does nothing.
    enabled: !holding,
    scaleBounds: { min: 1, max: NEAREST },
    eventOptions: { passive: false },
  });
  // The page itself stays as it is under two fingers.
  useEffect(() => {
    const stop = (event: Event) => event.preventDefault();
    document.addEventListener("gesturestart", stop);
    return () => document.removeEventListener("gesturestart", stop);
  }, []);
  useStaying(area, holding);
  const { plan: above, side } = judged.drawing;
  // While something is held, the boxes stay: nothing shifts under the hand.
  const boxes = held ?? { plan: above.bounds, side: side.bounds };
  const scale = scaleOf(boxes.plan, boxes.side, room) * zoom;
  const radius = Math.max(above.mark_radius * 1.25, 13 / scale);
  const lamps = Object.keys(lights ?? {});
  const key = lamps.find((id) => lights?.[id]?.role === "key") ?? null;
  const lamp = selected !== null && lamps.includes(selected) ? selected : key;
  const of = step !== null && step in FIELDS ? FIELDS[step as keyof typeof FIELDS] : null;
  const turned = named && above.projection ? turnedWords(above.projection) : null;
  const draw = (view: View, box: number[], sheet: Sheet, title: string) => {
    const areas = judged.field?.[sheet];
    const size = span(box);
    const { projection } = view;
    return (
      <div
        className="relative max-w-none shrink-0"
        style={{ width: size.width * scale, height: size.height * scale }}
      >
        <Drawing
          view={{ ...view, bounds: box }}
          title={title}
          className={selected === null ? "" : "with-hand"}
          field={of && areas ? { of, areas } : undefined}
          over={of === "light" ? judged.light?.[sheet] : undefined}
          lamp={lamp}
          ways={of === "sound" ? judged.sound_sheets?.[sheet] : undefined}
          sun={
            projection ? lies?.map((outline) => outline.map((corner) => flat(projection, corner))) : undefined
          }
        />
        <Grips
          view={view}
          bounds={box}
          boxes={boxes}
          sheet={sheet}
          handles={judged.handles}
          radius={radius}
        />
      </div>
    );
  };
  return (
    <div
      ref={area}
      className={`sheets flex flex-col items-center overflow-auto ${of ? `sheets-${of}` : ""}`}
      data-held={holding}
      data-pixels-per-metre={Math.round(scale)}
    >
      <SheetTitle name="Plan" words={turned ? `from above, ${turned}` : "from above"}>
        {zoom > 1 && (
          <Button size="small" onClick={() => setZoom(1)}>
            Fit
          </Button>
        )}
        <KeyOf step={step} />
      </SheetTitle>
      {draw(above, boxes.plan, "plan", "Plan, from above")}
      <SheetTitle name="Side" words="along the lens, same scale" />
      {draw(side, boxes.side, "side", "Side view along the lens axis")}
      {of && judged.field && judged.field.plan.length > 0 && <FieldScale of={of} areas={judged.field.plan} />}
    </div>
  );
}

/** While something is held the drawing stays under the hand, whatever grows or shrinks above it on the page. */
function useStaying(area: React.RefObject<HTMLElement | null>, holding: boolean): void {
  const from = useRef<number | null>(null);
  useLayoutEffect(() => {
    const top = area.current?.getBoundingClientRect().top ?? 0;
    if (!holding) from.current = null;
    else if (from.current === null) from.current = top;
    else if (top !== from.current) window.scrollBy(0, top - from.current);
  });
}

function SheetTitle({ name, words, children }: { name: string; words: string; children?: React.ReactNode }) {
  return (
    <div className="flex min-h-7 w-full items-center gap-2 text-sm">
      <span className="font-semibold">{name}</span>
      <span className="text-faint mr-auto text-xs">{words}</span>
      {children}
    </div>
  );
}
