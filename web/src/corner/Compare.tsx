// Two layouts or two saves side by side: pictures, plans, and which readings changed. Nothing is kept by looking.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api, planOf, type Corner, type Judged, type Plan, type Reading, type Schemas } from "../api/client";
import { Drawing } from "../drawing/Drawing";
import { Choice } from "../ui/fields";
import { Standing } from "../ui/Standing";
import { Trouble, Waiting } from "../ui/states";
import { fixed, type UnitSystem } from "../units/length";
import { useProposals, useTake } from "./Alternatives";
import { heldBy, PARTS, partsThatDiffer, withPart, type Part } from "./parts";
import { sentence, STANDING_MARKS } from "./show";
import type { Table } from "./useWorktable";

interface Props {
  corner: Corner;
  plan: Plan;
  table: Table;
  units: UnitSystem;
}

interface Option {
  id: string;
  words: string;
}

const TIME = new Intl.DateTimeFormat(undefined, { dateStyle: "short", timeStyle: "short" });

export function Compare({ corner, plan, table, units }: Props) {
  const found = useProposals(plan.name, plan.brief);
  const saves = useQuery({
    queryKey: ["revisions", corner.id, corner.revision],
    queryFn: () => api.revisions(corner.id),
  });
  const [sides, setSides] = useState<[string, string | null]>(["now", null]);
  const options: Option[] = [
    { id: "now", words: "As it is now" },
    ...(found.data?.proposals ?? []).map((p, i) => ({
      id: `found-${i}`,
      words: `Found ${i + 1}: ${p.title}`,
    })),
    ...(saves.data ?? []).map((save) => ({
      id: `save-${save.revision}`,
      words: `Revision ${save.revision}, ${TIME.format(save.at_ms)}`,
    })),
  ];
  const other = sides[1] ?? options[2]?.id ?? options[1]?.id ?? "now";
  const left = useSide(sides[0], corner, plan, found.data?.proposals);
  const right = useSide(other, corner, plan, found.data?.proposals);
  return (
    <div className="compare">
      <h2 className="heading">Compare</h2>
      <div className="compare-pair">
        <Choice
          label="On the left"
          value={sides[0]}
          onChange={(id) => setSides([id, other])}
          options={options.map((o) => [o.id, o.words] as const)}
        />
        <Choice
          label="On the right"
          value={other}
          onChange={(id) => setSides([sides[0], id])}
          options={options.map((o) => [o.id, o.words] as const)}
        />
      </div>
      <div className="compare-pair">
        <Side side={left} plan={plan} table={table} name="left" found={found.data} />
        <Side side={right} plan={plan} table={table} name="right" found={found.data} />
      </div>
      {left.judged && right.judged && <Changed left={left.judged} right={right.judged} units={units} />}
    </div>
  );
}

interface OneSide {
  plan: Plan | null;
  judged: Judged | undefined;
  error: unknown;
  retry: () => void;
}

/** A side's plan, judged and drawn. */
function useSide(id: string, corner: Corner, now: Plan, proposals: { plan: Plan }[] | undefined): OneSide {
  const [kind, number] = id.split("-");
  const save = useQuery({
    queryKey: ["revision", corner.id, number],
    queryFn: () => api.revision(corner.id, Number(number)),
    enabled: kind === "save",
    staleTime: Infinity,
  });
  const once = kind === "save" && save.data ? planOf({ ...corner, ...save.data }) : null;
  const plan = kind === "now" ? now : kind === "found" ? (proposals?.[Number(number)]?.plan ?? null) : once;
  const judged = useQuery({
    queryKey: ["compared", plan],
    queryFn: () => (plan ? api.assess(plan, { text_scale: 1.9, frame_text_scale: 1.7, fixes: false }) : null),
    enabled: plan !== null,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  return {
    plan,
    judged: judged.data ?? undefined,
    error: save.error ?? judged.error,
    retry: () => void judged.refetch(),
  };
}

interface SideProps {
  side: OneSide;
  plan: Plan;
  table: Table;
  name: string;
  found: Schemas["Proposals"] | undefined;
}

function Side({ side, plan, table, name, found }: SideProps) {
  const take = useTake(table);
  if (side.error) return <Trouble error={side.error} onRetry={side.retry} />;
  const other = side.plan;
  if (!side.judged || !other) return <Waiting what="Working it out" />;
  const { verdict, score } = side.judged.assessment;
  const takePart = (part: Part) =>
    part === "all" ? take(other, found) : table.edit((p) => withPart(p, other, part));
  const differing = partsThatDiffer(plan, other);
  const held = heldBy(plan, other.layout);
  return (
    <section className="flex flex-col gap-3" aria-label={`On the ${name}`}>
      <p className="flex flex-wrap items-center gap-3">
        <Standing ready={verdict.ready} words={verdict.sentence} />
        <span className="text-faint">{fixed(100 * score, 0)} points of 100</span>
      </p>
      <div className="compare-drawn">
        <Drawing
          view={side.judged.drawing.frame}
          title={`The picture on the ${name}`}
          className="frame-drawing show-thirds"
        />
        <Drawing view={side.judged.drawing.plan} title={`The plan on the ${name}`} />
      </div>
      {differing.length === 0 ? (
        <p className="text-faint">This is how the corner is now.</p>
      ) : held !== null ? (
        <p>Unlock {held} to take this one.</p>
      ) : (
        <p className="flex flex-wrap gap-2">
          {PARTS.filter(([part]) => differing.includes(part)).map(([part, words]) => (
            <button key={part} type="button" className="button button-small" onClick={() => takePart(part)}>
              Take {words.charAt(0).toLowerCase() + words.slice(1)}
            </button>
          ))}
        </p>
      )}
    </section>
  );
}

/** Readings that differ, those whose standing changed first. */
function Changed({ left, right, units }: { left: Judged; right: Judged; units: UnitSystem }) {
  const was = new Map(left.assessment.readings.map((r) => [r.id, r]));
  const is = new Map(right.assessment.readings.map((r) => [r.id, r]));
  const ids = [...new Set([...was.keys(), ...is.keys()])];
  const value = (r: Reading | undefined) =>
    r ? `${sentence(r.value, r.unit, units, r.id)} ${STANDING_MARKS[r.standing]}`.trim() : "–";
  const rows = ids
    .map((id) => ({ id, from: was.get(id), to: is.get(id) }))
    .filter(({ from, to }) => value(from) !== value(to))
    .sort((a, b) => Number(stands(b)) - Number(stands(a)));
  return (
    <section aria-labelledby="changed">
      <h3 id="changed" className="subheading">
        What changed
      </h3>
      {rows.length === 0 ? (
        <p>Every reading is the same.</p>
      ) : (
        <div className="table-wide" tabIndex={0} role="group" aria-label="Changed readings, a table">
          <table className="takes">
            <thead>
              <tr>
                <th>Reading</th>
                <th>Left</th>
                <th>Right</th>
              </tr>
            </thead>
            <tbody>
              {rows.map(({ id, from, to }) => (
                <tr key={id}>
                  <td className="compare-label">{(to ?? from)?.label}</td>
                  <td>{value(from)}</td>
                  <td className={stands({ from, to }) ? "font-bold" : ""}>{value(to)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      <p className="text-faint mt-2 text-sm">
        ✓ good, ○ fair, ▲ poor. {ids.length - rows.length} readings are the same.
      </p>
    </section>
  );
}

const stands = ({ from, to }: { from: Reading | undefined; to: Reading | undefined }) =>
  from?.standing !== to?.standing;
