// Two layouts or two saves side by side: pictures, plans, and which readings differ. Nothing is changed by looking.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api, planOf, type Corner, type Plan } from "../api/client";
import { Pair } from "../picture/Pair";
import { useJudged, type JudgedPlan } from "../picture/useJudged";
import { heldBy, PARTS, partsThatDiffer, withPart, type Part } from "../table/parts";
import { useProposals, useTake, type Found } from "../table/proposals";
import { useTable } from "../table/useTable";
import type { UnitSystem } from "../units/length";
import { Button } from "../ui/button";
import { Choice } from "../ui/fields";
import { Changed } from "./Changed";
import { Side } from "./Side";

interface Props {
  corner: Corner;
  plan: Plan;
  units: UnitSystem;
}

const TIME = new Intl.DateTimeFormat(undefined, { dateStyle: "short", timeStyle: "short" });

export function ComparePage({ corner, plan, units }: Props) {
  const found = useProposals(plan.name, plan.brief);
  const saves = useQuery({
    queryKey: ["revisions", corner.id, corner.revision],
    queryFn: () => api.revisions(corner.id),
  });
  const [chosen, setChosen] = useState<[string, string | null]>(["now", null]);
  const options: (readonly [string, string])[] = [
    ["now", "As it is now"],
    ...(found.data?.proposals ?? []).map((p, i) => [`found-${i}`, `Found ${i + 1}: ${p.title}`] as const),
    ...(saves.data ?? []).map(
      (save) =>
        [`save-${save.revision}`, `Save ${String(save.revision)}, ${TIME.format(save.at_ms)}`] as const,
    ),
  ];
  const ids: [string, string] = [chosen[0], chosen[1] ?? options[2]?.[0] ?? options[1]?.[0] ?? "now"];
  const left = useSide(ids[0], corner, plan, found.data);
  const right = useSide(ids[1], corner, plan, found.data);
  return (
    <div className="grid gap-4">
      <div className="grid gap-4 md:grid-cols-2">
        <Choice label="Left" value={ids[0]} onPick={(id) => setChosen([id, ids[1]])} options={options} />
        <Choice label="Right" value={ids[1]} onPick={(id) => setChosen([ids[0], id])} options={options} />
        {left.judged && right.judged && left.plan && right.plan && (
          <div className="md:col-span-2">
            <Pair
              left={{ plan: left.plan, view: left.judged.drawing.frame, name: nameOf(options, ids[0]) }}
              right={{ plan: right.plan, view: right.judged.drawing.frame, name: nameOf(options, ids[1]) }}
            />
          </div>
        )}
        {([left, right] as const).map((side, index) => (
          <Side key={index} side={side} name={index === 0 ? "left" : "right"}>
            <Take other={side.plan} plan={plan} found={found.data} />
          </Side>
        ))}
      </div>
      {left.judged && right.judged && <Changed left={left.judged} right={right.judged} units={units} />}
    </div>
  );
}

const nameOf = (options: readonly (readonly [string, string])[], id: string) =>
  options.find(([key]) => key === id)?.[1] ?? id;

/** A side's plan, judged and drawn. */
function useSide(id: string, corner: Corner, now: Plan, found: Found | undefined) {
  const [kind, number] = id.split("-");
  const save = useQuery({
    queryKey: ["revision", corner.id, number],
    queryFn: () => api.revision(corner.id, Number(number)),
    enabled: kind === "save",
    staleTime: Infinity,
  });
  const once = kind === "save" && save.data ? planOf({ ...corner, ...save.data }) : null;
  const plan =
    kind === "now" ? now : kind === "found" ? (found?.proposals[Number(number)]?.plan ?? null) : once;
  const judged: JudgedPlan = useJudged(plan);
  return { ...judged, plan, error: save.error ?? judged.error };
}

/** Takes the whole of it, or a part. */
function Take({ other, plan, found }: { other: Plan | null; plan: Plan; found: Found | undefined }) {
  const table = useTable();
  const take = useTake();
  if (!other) return null;
  const differing = partsThatDiffer(plan, other);
  const held = heldBy(plan, other.layout);
  const takePart = (part: Part) =>
    part === "all" ? take(other, found) : table.act((p) => withPart(p, other, part));
  if (differing.length === 0) return <p className="text-faint">This is how the corner is now.</p>;
  if (held !== null) return <p>Unlock {held} to use this one.</p>;
  return (
    <p className="flex flex-wrap gap-2">
      {PARTS.filter(([part]) => differing.includes(part)).map(([part, words]) => (
        <Button key={part} size="small" onClick={() => takePart(part)}>
          Use {words}
        </Button>
      ))}
    </p>
  );
}
