// One step on one screen: how it stands in a sentence, what is best done next, and its parts behind tabs.
import { useCallback, useEffect, useRef, useState } from "react";
import { useLocation } from "react-router";

import {
  api,
  type Corner,
  type Judged,
  type PatchStep,
  type Plan,
  type StepTold,
  type Tab,
} from "../api/client";
import { CardNow } from "../card/CardStep";
import type { Paper } from "../card/paper";
import { Differences } from "../light/Differences";
import { MoneyNext, MoneyState } from "../money/MoneyNext";
import { Findings } from "../reading/Findings";
import { NextStep } from "../reading/NextStep";
import { Tiles } from "../reading/Tiles";
import { withMeasured } from "../table/edits";
import { TABS, useGo } from "../table/place";
import { readingsOf, type StepProps } from "../table/step";
import { useTable } from "../table/useTable";
import type { UnitSystem } from "../units/length";
import { Button } from "../ui/button";
import { Tabbed } from "../ui/tabs";
import { PICTURE_STEPS, STEP_PARTS } from "./parts";
import { Stage } from "./Stage";

interface Props {
  corner: Corner;
  plan: Plan;
  judged: Judged;
  told: StepTold;
  tab: Tab;
  units: UnitSystem;
  print: { paper: Paper; onPaper: (paper: Paper) => void; onPrint: () => void };
  /** Before the parts, on a phone. */
  children?: React.ReactNode;
}

export function StepPage({ corner, plan, judged, told, tab, units, print, children }: Props) {
  const table = useTable();
  const go = useGo();
  const heading = useArrival(told.step, tab);
  const [before, setBefore] = useState<{ judged: Judged; plan: Plan } | null>(null);
  const { step } = told;
  const onMeasured = useCallback(
    (id: string, value: number | null) => table.act((p) => withMeasured(p, id, value)),
    [table],
  );
  const onApply = useCallback((patch: PatchStep[]) => table.act((p) => api.apply(p, patch)), [table]);
  const findings = told.findings.flatMap(
    (id) => judged.assessment.findings.find((finding) => finding.id === id) ?? [],
  );
  const isPicture = PICTURE_STEPS.includes(step);
  const part: StepProps = { corner, plan, judged, told, units };
  const Part = STEP_PARTS[step][tab];
  const next = (
    <NextStep
      next={told.next}
      finding={findings.find((finding) => finding.id === told.next.finding)}
      plan={plan}
      units={units}
      onApply={onApply}
      onOpen={go}
      onPrint={print.onPrint}
    />
  );
  const count = (key: Tab) => {
    if (key === "numbers") return told.groups.reduce((sum, group) => sum + group.readings.length, 0);
    return key === "by-hand" ? told.things.length : null;
  };
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] content-start gap-2 p-3 md:px-4">
      <div>
        <h2 ref={heading} tabIndex={-1} className="text-lg leading-snug font-bold outline-none">
          <span className="sr-only">{told.title}: </span>
          {step === "money" ? <MoneyState plan={plan} otherwise={told.sentence} /> : told.sentence}
        </h2>
        {told.detail && <p className="text-faint text-sm">{told.detail}</p>}
      </div>
      {/* After its heading for who listens, above it for who looks. */}
      {isPicture && (
        <div className="-order-1">
          <Stage
            judged={judged}
            plan={plan}
            told={told}
            units={units}
            onMeasured={onMeasured}
            before={step === "light" ? before : null}
          />
        </div>
      )}
      {step === "money" ? <MoneyNext plan={plan}>{next}</MoneyNext> : next}
      {children}
      <Tabbed
        label={`Parts of ${told.title}`}
        tabs={TABS.map(([key, name]) => [key, name, count(key)] as const)}
        value={tab}
        onValue={(key) => go(step, key as Tab)}
      >
        <div className="grid grid-cols-[minmax(0,1fr)] gap-3">
          {step === "card" && tab === "now" ? (
            <CardNow {...part} {...print} />
          ) : (
            <Part {...part} onMeasured={onMeasured} />
          )}
          {tab === "now" && (
            <>
              {(step === "light" || step === "room" || !isPicture) && (
                <Tiles readings={readingsOf(judged, told.tiles)} units={units} onMeasured={onMeasured} />
              )}
              <Findings
                findings={findings.filter((finding) => finding.id !== told.next.finding)}
                plan={plan}
                onApply={onApply}
                units={units}
              />
            </>
          )}
          {step === "light" && tab === "now" && (
            <>
              <p>
                <Button size="small" onClick={() => setBefore(before ? null : { judged, plan })}>
                  {before ? "Stop comparing" : "Compare with this"}
                </Button>
              </p>
              {before && (
                <Differences
                  before={before.judged.assessment.readings}
                  now={judged.assessment.readings}
                  units={units}
                />
              )}
            </>
          )}
        </div>
      </Tabbed>
    </div>
  );
}

/** Whoever comes to a step by a link begins at its heading; a hand on the drawing keeps the focus where it is. */
function useArrival(step: string, tab: string) {
  const heading = useRef<HTMLHeadingElement>(null);
  const { state } = useLocation() as { state: { arrived?: boolean } | null };
  const arrived = state?.arrived === true;
  useEffect(() => {
    heading.current?.closest("[data-scrolls]")?.scrollTo({ top: 0 });
    if (arrived && !document.activeElement?.matches("[role=tab]"))
      heading.current?.focus({ preventScroll: true });
  }, [step, tab, arrived]);
  return heading;
}
