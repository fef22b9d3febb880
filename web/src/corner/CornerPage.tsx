// The worktable: the order of the work, the drawings to take hold of, the picture, and what the step at hand opens.
import { useQuery } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useState } from "react";
import { useNavigate, useParams } from "react-router";

import { api, Refused, type Corner, type PatchStep } from "../api/client";
import { CardSheet } from "../card/CardSheet";
import { Notes, Sheets, sheetScale } from "../drawing/Sheets";
import { ShelfPage } from "../shelf/ShelfPage";
import { Chart } from "../shot/Chart";
import { Picture } from "../shot/Picture";
import { Shell } from "../ui/Shell";
import { NotFound, Trouble, Waiting } from "../ui/states";
import { useWindowSize } from "../ui/useWindowSize";
import { Obstacles } from "./Alternatives";
import { Bar } from "./Bar";
import { Compare } from "./Compare";
import { Glance } from "./Glance";
import { opened } from "./leaving";
import { SchoolsPage } from "./SchoolsPage";
import { StepSheet } from "./StepSheet";
import { Pad } from "./Things";
import { Thread } from "./Thread";
import { knots, STEPS, stepOfThing, type Step } from "./thread";
import { useWorktable, type ScalesFor } from "./useWorktable";

export function CornerPage() {
  const { id, step } = useParams();
  const corner = useQuery({ queryKey: ["corner", Number(id)], queryFn: () => opened(Number(id)) });
  const view = VIEWS.find((v) => v === step) ?? null;
  if (step !== undefined && view === null && !STEPS.some(([s]) => s === step)) return <NotFound />;
  if (corner.isPending) return <Shell title="Corner">{<Waiting what="Opening the corner" />}</Shell>;
  if (corner.isError)
    return (
      <Shell title="Corner">{<Trouble error={corner.error} onRetry={() => void corner.refetch()} />}</Shell>
    );
  return (
    <Worktable
      key={corner.data.id}
      corner={corner.data}
      step={view === null ? ((step as Step | undefined) ?? null) : null}
      view={view}
    />
  );
}

/** Pages of a corner that are no step of the work. */
const VIEWS = ["compare", "schools", "shelf"] as const;
type View = (typeof VIEWS)[number];

/** Words on drawings are about so high, px. */
const WORDS_PX = 13;
/** Height of words at scale 1: part of the room's longest side, and of the frame's width. */
const [SHEET_TEXT, FRAME_TEXT] = [0.03, 0.027];

const stepped = (scale: number) => Math.min(4, Math.max(0.5, Math.round(scale * 20) / 20));

/** Pixels for the drawings, and how large their words must be to be read. */
function useSheetRoom(corner: Corner) {
  const { width, height } = useWindowSize();
  const narrow = width < 768;
  const middle = narrow ? width - 24 : Math.round((Math.min(width, 1760) - 192) * 0.45);
  const room = useMemo(
    () => ({ width: middle - (narrow ? 0 : 32), height: narrow ? 900 : Math.max(height - 148, 420) }),
    [middle, narrow, height],
  );
  const longest = Math.max(...corner.brief.room.floor_m.flat());
  const picture = narrow ? width - 24 : Math.min(width, 1760) - 192 - middle - 24;
  const scalesFor: ScalesFor = useCallback(
    (judged) => {
      const drawing = judged?.drawing;
      const scale = drawing
        ? sheetScale(drawing.plan.bounds, drawing.side.bounds, room)
        : room.width / (longest + 0.4);
      return {
        text: stepped(WORDS_PX / (SHEET_TEXT * longest * scale)),
        frame: stepped(WORDS_PX / (FRAME_TEXT * picture)),
      };
    },
    [longest, picture, room],
  );
  return { narrow, middle, room, chartWidth: Math.max(picture, 300), scalesFor };
}

/** What a step asks for beside the judgement. */
const WANTED: Partial<Record<Step, "chart" | "light" | "sound">> = {
  light: "light",
  sound: "sound",
  shot: "chart",
  room: "chart",
};

function Worktable({ corner, step, view }: { corner: Corner; step: Step | null; view: View | null }) {
  const { narrow, middle, room, chartWidth, scalesFor } = useSheetRoom(corner);
  const wanted = step === null ? null : (WANTED[step] ?? null);
  const table = useWorktable(corner, scalesFor, wanted);
  const [selected, setSelected] = useState<string | null>(null);
  const navigate = useNavigate();
  const { plan, judged } = table;
  const { step: walk } = table;
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      const typing = event.target instanceof HTMLElement && event.target.closest("input, textarea, select");
      if (!(event.ctrlKey || event.metaKey) || typing) return;
      const key = event.key.toLowerCase();
      if (key !== "z" && key !== "y") return;
      event.preventDefault();
      void walk(key === "y" || event.shiftKey ? "redo" : "undo");
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  }, [walk]);

  if (!plan)
    return (
      <Shell title={corner.name}>
        <Obstacles name={corner.name} brief={corner.brief} id={corner.id} />
      </Shell>
    );
  const units = plan.brief.units ?? "metric";
  const onApply = (patch: PatchStep[]) => table.edit((p) => api.apply(p, patch));
  const take = (thing: string) => {
    setSelected(thing);
    // What is taken hold of opens its step, unless the whole is being looked at.
    if (step !== null && step !== "card") {
      const own = stepOfThing(thing, judged?.handles ?? []);
      if (own !== step) void navigate(`/corners/${corner.id}/${own}`, { replace: true });
    }
  };
  const conflict = table.trouble instanceof Refused && table.trouble.status === 412;
  const held = judged?.handles.find((h) => h.id === selected);
  return (
    <div className="worktable">
      <Bar corner={corner} plan={plan} judged={judged} table={table} units={units} />
      {judged && <Thread id={corner.id} knots={knots(plan.brief, plan.layout, judged)} step={step} />}
      <main
        id="content"
        className="table-main"
        style={narrow ? undefined : { ["--middle" as string]: `${middle}px` }}
      >
        {table.trying && (
          <p className="trying" role="status">
            <span className="mr-auto">You are trying things out: nothing is kept.</span>
            <button
              type="button"
              className="button button-small button-act"
              onClick={() => table.endTrial(true)}
            >
              Keep it
            </button>
            <button type="button" className="button button-small" onClick={() => table.endTrial(false)}>
              Go back
            </button>
          </p>
        )}
        {table.trouble !== null && (
          <div className="table-trouble">
            <Trouble
              error={table.trouble}
              retryWords={conflict ? "Show what was kept there" : "Try again"}
              onRetry={() => (conflict ? void table.takeKept() : table.tryAgain())}
            />
          </div>
        )}
        {!judged && !table.trouble && <Waiting what="Working it out" />}
        {judged && step === "card" && (
          <CardSheet id={corner.id} revision={corner.revision} imperial={units === "imperial"} />
        )}
        {judged && view === "compare" && <Compare corner={corner} plan={plan} table={table} units={units} />}
        {judged && view === "shelf" && <ShelfPage plan={plan} table={table} />}
        {judged && view === "schools" && <SchoolsPage plan={plan} table={table} units={units} />}
        {judged && step !== "card" && view === null && (
          <>
            <div className="table-drawings">
              <Sheets
                judged={judged}
                table={table}
                selected={selected}
                onSelect={setSelected}
                onTake={take}
                room={room}
              />
              <Notes table={table} />
              {narrow && held && (
                <div className="hand-bar">
                  <span className="mr-auto font-semibold">
                    {held.name}
                    {held.locked ? ", locked" : ""}
                  </span>
                  <Pad handle={held} hands={table.hands} still={held.locked || !held.movable} />
                </div>
              )}
              <p className="legend">
                S seat, C camera, K key, F fill, B back light, G background light, P practical lamp, M
                microphone, D screen, H backdrop, 2 to 4 second angles. Shaded: what the lens sees; darker:
                what is sharp. Dotted circles: feet of stands. Dashed quarter: door swing. Small letters: the
                room’s corners. Drag a letter, or take it with Tab and move it with the arrow keys.
                {step === "light" &&
                  " Round lines: light of the lamp in hand (else the key), a stop apart, 0 through your eyes; wedge: its size from there; dashed edge: what lights keep out of."}
                {step === "sound" &&
                  " Thick line: your voice to the microphone; thin lines: what walls, ceiling, floor and desk throw back first; dotted circle: within it you are louder than the room; dashed edge: what the microphone keeps out of; striped: what hangs or lies against the echo."}
              </p>
            </div>
            <div className="table-right">
              {step === "shot" && judged.chart && (
                <Chart
                  chart={judged.chart}
                  table={table}
                  units={units}
                  width={chartWidth}
                  imageHeightMm={judged.chart.image_height_mm}
                  locked={plan.layout.camera.locked ?? false}
                />
              )}
              <Picture judged={judged} plan={plan} switches={step === "shot"} />
              {step === null ? (
                <Glance corner={corner} plan={plan} judged={judged} units={units} onApply={onApply} />
              ) : (
                <StepSheet
                  step={step}
                  corner={corner}
                  plan={plan}
                  judged={judged}
                  table={table}
                  units={units}
                  selected={selected}
                  onSelect={setSelected}
                  onApply={onApply}
                />
              )}
            </div>
          </>
        )}
      </main>
    </div>
  );
}
