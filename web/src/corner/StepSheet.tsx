// What a step opens: its findings, its readings, and the controls that belong to it.
import { useCallback } from "react";
import { Link } from "react-router";

import type { Corner, Judged, PatchStep, Plan } from "../api/client";
import type { UnitSystem } from "../units/length";
import { clothsOf } from "../light/LightBoxes";
import { LightPlace } from "../light/LightPlace";
import { OneMore } from "../light/OneMore";
import { PersonPlace } from "../person/PersonPlace";
import { NumberBox } from "../ui/boxes";
import { limits } from "../api/limits";
import { Alternatives } from "./Alternatives";
import { CameraSettings } from "./CameraSettings";
import { Changes } from "./Changes";
import { RoomPlace } from "../room/RoomPlace";
import { SoundPlace, SoundRest } from "../sound/SoundPlace";
import { ShotPlace } from "../shot/ShotPlace";
import { withMeasured } from "./edits";
import { Findings } from "./Findings";
import { Readings } from "./Readings";
import { Schools } from "./Schools";
import { Things } from "./Things";
import { findingsOf, groupsOf, handlesOf, readingsOf, STEPS, type Step } from "./thread";
import type { Table } from "./useWorktable";
import { Windows } from "./Windows";

const SCHOOLS: Partial<Record<Step, string[]>> = {
  shot: ["placement", "lens", "aperture", "camera-height", "frame-rate", "monitor"],
  light: ["lights", "source", "window", "background"],
  sound: ["microphone", "record"],
  money: ["spending"],
};

interface Props {
  step: Step;
  corner: Corner;
  plan: Plan;
  judged: Judged;
  table: Table;
  units: UnitSystem;
  selected: string | null;
  onSelect: (thing: string) => void;
  onApply: (patch: PatchStep[]) => void;
}

export function StepSheet({ step, corner, plan, judged, table, units, selected, onSelect, onApply }: Props) {
  const { findings, readings } = judged.assessment;
  const own = findingsOf(step, findings, judged.handles);
  const title = STEPS.find(([s]) => s === step)?.[1] ?? "";
  const { edit } = table;
  const onMeasured = useCallback(
    (id: string, value: number | null) => edit((p) => withMeasured(p, id, value)),
    [edit],
  );
  const handles = handlesOf(step, judged.handles);
  const things = { layout: plan.layout, hands: table.hands, selected, onSelect, units };
  return (
    <div className="step-sheet">
      <h2 className="sr-only">{title}</h2>
      {own.length > 0 && <Findings findings={own} onApply={onApply} units={units} />}
      {step === "room" && <RoomPlace plan={plan} judged={judged} table={table} units={units} />}
      {step === "light" && (
        <LightPlace judged={judged} units={units} selected={selected} onSelect={onSelect} onApply={onApply} />
      )}
      {step === "light" && (
        <Things handles={handles} {...things} face={judged.face} cloths={clothsOf(plan)} />
      )}
      {step === "light" && <OneMore id={corner.id} plan={plan} table={table} />}
      {step === "shot" && <ShotPlace plan={plan} judged={judged} table={table} units={units} />}
      {step === "sound" && <SoundPlace plan={plan} judged={judged} table={table} units={units} />}
      <Readings
        groups={groupsOf(step, readingsOf(step, readings, judged.handles))}
        units={units}
        onMeasured={onMeasured}
      />
      {step === "you" && <PersonPlace plan={plan} table={table} />}
      {step === "shot" && <CameraSettings plan={plan} table={table} units={units} />}
      {step === "sound" && <SoundRest plan={plan} judged={judged} table={table} units={units} />}
      {step === "day" && <Windows plan={plan} table={table} units={units} />}
      {step !== "light" && <Things handles={handles} {...things} />}
      <Schools ids={SCHOOLS[step] ?? []} plan={plan} table={table} />
      {step === "money" && <Budget plan={plan} table={table} />}
      {step === "money" && <Changes plan={plan} units={units} table={table} onApply={onApply} />}
      {step === "you" && <Alternatives id={corner.id} name={corner.name} plan={plan} table={table} />}
      {(step === "room" || step === "you") && (
        <p>
          <Link to={`/corners/${corner.id}/brief`} className="button">
            Change {step === "room" ? "what was measured" : "what you told of yourself"}
          </Link>
        </p>
      )}
    </div>
  );
}

function Budget({ plan, table }: { plan: Plan; table: Table }) {
  return (
    <div className="max-w-60">
      <NumberBox
        label="What you could spend"
        unit={plan.brief.money?.currency ?? ""}
        value={plan.brief.money?.budget ?? 0}
        within={limits["Money.budget"]}
        digits={2}
        step={10}
        onCommit={(budget) =>
          table.edit((p) => ({ ...p, brief: { ...p.brief, money: { ...p.brief.money, budget } } }))
        }
      />
    </div>
  );
}
