// The worktable: the order of the work, the drawings to take hold of, and the step at hand.
import { lazy, Suspense, useEffect, useMemo, useRef, useState } from "react";
import { useNavigate } from "react-router";

import type { Corner, Judged, Step } from "../api/client";
import { CardSheet } from "../card/CardSheet";
import type { Paper } from "../card/paper";
import { Notes } from "../drawing/Notes";
import { Sheets } from "../drawing/Sheets";
import { SunlightContext, type Looked } from "../drawing/sunlight";
import { Picture } from "../picture/Picture";
import { Pad } from "../things/Pad";
import type { Left } from "../table/left";
import { addressOf, PLACES, type Place } from "../table/place";
import { SelectionContext, type Selection } from "../table/selection";
import { seenPlan } from "../table/state";
import type { Table } from "../table/table";
import { TableContext, useOpenTable } from "../table/useTable";
import { PageTitle, Shell } from "../ui/Shell";
import { Trouble, Waiting } from "../ui/states";
import { Banners } from "./Banners";
import { Bar } from "./Bar";
import { NothingFits } from "./NothingFits";
import { Overview } from "./Overview";
import { PICTURE_STEPS, WANTED } from "./parts";
import { StepPage } from "./StepPage";
import { Thread } from "./Thread";
import { useRoom } from "./useRoom";

const Beside = lazy(() => import("./Beside"));

interface Props {
  corner: Corner;
  place: Place;
  left: Left[];
}

export function Worktable({ corner, place, left }: Props) {
  const { step, tab, beside } = place;
  const { narrow, middle, room } = useRoom(step);
  const asked = useMemo(() => ({ wanted: step ? WANTED[step] : null, room }), [step, room]);
  const { table, view, judged, trouble, again } = useOpenTable(corner, asked);
  const selection = useTaking(corner.id, step, judged);
  const [paper, setPaper] = useState<Paper>(corner.brief.units === "imperial" ? "letter" : "a4");
  const frame = useRef<HTMLIFrameElement>(null);
  const [looked, look] = useState<Looked | null>(null);
  const sunlight = useMemo(() => ({ looked, look }), [looked]);
  const navigate = useNavigate();
  useUndoKeys(table);
  const plan = seenPlan(view);
  if (!plan)
    return (
      <Shell title={corner.name}>
        <NothingFits name={corner.name} brief={corner.brief} id={corner.id} />
      </Shell>
    );
  const units = plan.brief.units ?? "metric";
  const onPrint = () => {
    if (frame.current) frame.current.contentWindow?.print();
    else void navigate(addressOf(corner.id, "card"), { state: { arrived: true } });
  };
  const told = judged?.steps.find((one) => one.step === step) ?? null;
  const sheets = judged && (
    <>
      <Sheets judged={judged} step={step} room={room.sheet} />
      <Notes />
    </>
  );
  const card = step === "card" && judged && (
    <CardSheet
      id={corner.id}
      revision={view.kept.revision}
      paper={paper}
      room={{ width: room.sheet.width, height: room.sheet.height + 60 }}
      frame={frame}
    />
  );
  const title = told?.title ?? PLACES.find(([key]) => key === beside)?.[1];
  return (
    <TableContext value={table}>
      <SelectionContext value={selection}>
        <SunlightContext value={sunlight}>
          <PageTitle of={title ? `${title}: ${plan.name}` : plan.name} />
          <div className="worktable" style={{ ["--middle" as string]: `${middle}px` }}>
            <Bar corner={view.kept} plan={plan} judged={judged} view={view} beside={beside} />
            {judged && (
              <Thread id={corner.id} steps={judged.steps} step={step} isTake={beside === "take"}>
                {(beside !== null || (step !== null && !PICTURE_STEPS.includes(step))) && (
                  <Picture judged={judged} plan={plan} size="docked" />
                )}
              </Thread>
            )}
            <main id="content" tabIndex={-1} className="table-main outline-none">
              <div className="col-span-full">
                <Banners view={view} left={left} />
                {trouble && (
                  <div className="px-4 py-2">
                    <Trouble error={trouble} onRetry={again} />
                  </div>
                )}
              </div>
              {!judged && !trouble && (
                <div className="px-4">
                  <Waiting what="Working it out" />
                </div>
              )}
              {judged && beside && (
                <div className="col-span-full overflow-y-auto p-4" data-scrolls>
                  <Suspense fallback={<Waiting what="Opening it" />}>
                    <Beside beside={beside} corner={view.kept} plan={plan} units={units} />
                  </Suspense>
                </div>
              )}
              {judged && !beside && (
                <>
                  {!narrow && <div className="table-drawings">{card || sheets}</div>}
                  <div className="table-right" data-scrolls>
                    {told ? (
                      <StepPage
                        corner={view.kept}
                        plan={plan}
                        judged={judged}
                        told={told}
                        tab={tab}
                        units={units}
                        print={{ paper, onPaper: setPaper, onPrint }}
                      >
                        {narrow &&
                          (card || (
                            <Folded>
                              {sheets}
                              {!PICTURE_STEPS.includes(told.step) && (
                                <Picture judged={judged} plan={plan} size="docked" />
                              )}
                            </Folded>
                          ))}
                      </StepPage>
                    ) : (
                      <Overview
                        corner={view.kept}
                        plan={plan}
                        judged={judged}
                        units={units}
                        onPrint={onPrint}
                      />
                    )}
                    {narrow && !told && <div className="px-3">{sheets}</div>}
                    {narrow && <InHand judged={judged} selected={selection.selected} />}
                  </div>
                </>
              )}
            </main>
          </div>
        </SunlightContext>
      </SelectionContext>
    </TableContext>
  );
}

/** On a phone: plan and side view, opened when they are wanted. */
function Folded({ children }: { children: React.ReactNode }) {
  return (
    <details className="border-line bg-paper rounded-lg border px-3 py-1">
      <summary className="min-h-8 cursor-pointer py-1 text-sm font-semibold">Plan and side view</summary>
      {children}
    </details>
  );
}

/** On a phone: steps for what is in hand, under the thumb. */
function InHand({ judged, selected }: { judged: Judged; selected: string | null }) {
  const held = judged.handles.find((handle) => handle.id === selected);
  if (!held) return null;
  return (
    <div className="border-line bg-paper sticky bottom-16 z-10 m-3 flex flex-wrap items-center gap-2 rounded-lg border p-2">
      <span className="mr-auto text-sm font-semibold">
        {held.name}
        {held.locked ? ", locked" : ""}
      </span>
      <Pad handle={held} still={held.locked || !held.movable} />
    </div>
  );
}

/** Which thing is in hand; what is taken hold of opens its step, unless the whole is being looked at. */
function useTaking(id: number, step: Step | null, judged: Judged | null): Selection {
  const [selected, setSelected] = useState<string | null>(null);
  const navigate = useNavigate();
  const steps = judged?.steps;
  return useMemo(
    () => ({
      selected,
      select: (thing) => setSelected(thing === "" ? null : thing),
      take: (thing) => {
        setSelected(thing);
        if (step === null || step === "card") return;
        const own = steps?.find((one) => one.things.includes(thing))?.step;
        if (own && own !== step) void navigate(addressOf(id, own), { replace: true });
      },
    }),
    [selected, step, steps, id, navigate],
  );
}

/** One step back and forth by keys, wherever nothing is typed. */
function useUndoKeys(table: Table): void {
  useEffect(() => {
    const keys = (event: KeyboardEvent) => {
      const { target } = event;
      const typing =
        target instanceof HTMLElement &&
        // A box in which nothing is typed has nothing of its own to undo.
        target.closest("input:not([type=checkbox], [type=radio], [type=range], [data-untouched]), textarea");
      if (!(event.ctrlKey || event.metaKey) || typing) return;
      const key = event.key.toLowerCase();
      if (key !== "z" && key !== "y") return;
      event.preventDefault();
      table.step(key === "y" || event.shiftKey ? "redo" : "undo").catch(() => undefined);
    };
    window.addEventListener("keydown", keys);
    return () => window.removeEventListener("keydown", keys);
  }, [table]);
}
