// Where practitioners disagree: every school with its default and reason, and what each choice would change here with
// everything where it stands.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api, type Plan, type Schemas } from "../api/client";
import { withSchool } from "../table/edits";
import { changed } from "../table/show";
import { useTable } from "../table/useTable";
import { Button } from "../ui/button";
import { SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import type { UnitSystem } from "../units/length";
import { count } from "../units/text";
import { SCHOOL_NAMES, SEEN } from "./names";
import { Seen } from "./Seen";

type Effect = Schemas["ChoiceEffect"];

export function SchoolsPage({ plan, units }: { plan: Plan; units: UnitSystem }) {
  const schools = useQuery({ queryKey: ["schools"], queryFn: api.schools, staleTime: Infinity });
  const effects = useQuery({
    queryKey: ["choices", plan],
    queryFn: () => api.choices(plan),
    placeholderData: (before) => before,
  });
  if (schools.isError) return <Trouble error={schools.error} onRetry={() => void schools.refetch()} />;
  if (effects.isError) return <Trouble error={effects.error} onRetry={() => void effects.refetch()} />;
  if (!schools.data || !effects.data) return <Waiting what="Trying every school" />;
  return (
    <>
      <p className="mb-4 max-w-2xl">
        Practitioners disagree. One choice is the default, with the reason why. Below each other choice you
        see what it would change here, with nothing moved.
      </p>
      <ul className="grid gap-4 lg:grid-cols-2">
        {schools.data.map((school) => (
          <School key={school.id} plan={plan} school={school} effects={effects.data} units={units} />
        ))}
      </ul>
    </>
  );
}

interface SchoolProps {
  plan: Plan;
  school: Awaited<ReturnType<typeof api.schools>>[number];
  effects: Effect[];
  units: UnitSystem;
}

function School({ plan, school, effects, units }: SchoolProps) {
  const table = useTable();
  const [seen, setSeen] = useState<(typeof school.choices)[number] | null>(null);
  return (
    <li className={`${SHEET} p-4`}>
      <h3 className="mb-1 font-bold">{SCHOOL_NAMES[school.id] ?? school.id}</h3>
      <p className="text-sm">{school.reason}</p>
      <p className="text-faint mb-2 text-xs">Source: {school.source}.</p>
      <ul>
        {school.choices.map((choice, index) => {
          const effect = effects.find((e) => e.school === school.id && e.choice === choice.id);
          return (
            <li key={choice.id} className="border-line border-t py-2">
              <div className="flex flex-wrap items-center gap-x-3">
                <strong>{choice.label}</strong>
                {index === 0 && <span className="text-faint text-xs">default</span>}
                <span className="ml-auto flex gap-2">
                  {effect && !effect.chosen && SEEN.includes(school.id) && (
                    <Button size="small" look="quiet" onClick={() => setSeen(choice)}>
                      See it
                    </Button>
                  )}
                  {effect?.chosen ? (
                    <span className="flex min-h-8 items-center font-semibold">✓ chosen</span>
                  ) : (
                    <Button
                      size="small"
                      onClick={() => table.act((p) => withSchool(p, school.id, choice.id))}
                    >
                      Choose
                    </Button>
                  )}
                </span>
              </div>
              {effect && !effect.chosen && <p className="text-sm">{words(effect, effects, units)}</p>}
            </li>
          );
        })}
      </ul>
      {seen && (
        <Seen
          plan={plan}
          school={school.id}
          choice={seen.id}
          label={seen.label}
          onClose={() => setSeen(null)}
        />
      )}
    </li>
  );
}

/** What a choice would change, in a sentence or two. */
function words(effect: Effect, all: Effect[], units: UnitSystem): string {
  const now = all.find((e) => e.school === effect.school && e.chosen);
  const points = Math.round(100 * (effect.score - (now?.score ?? effect.score)));
  const parts: string[] = [];
  if (effect.comes.length > 0) parts.push(effect.comes.slice(0, 2).join(" "));
  if (effect.goes.length > 0) parts.push(`No longer true: “${effect.goes.slice(0, 2).join(" ")}”`);
  const moved = effect.changes.map((change) => changed(change, units)).filter((words) => words !== null);
  parts.push(...moved.slice(0, 3).map((words) => `${words}.`));
  if (points !== 0) parts.push(`${count(Math.abs(points), "point")} ${points > 0 ? "more" : "less"}.`);
  if (parts.length === 0) return "Nothing changes while everything stays where it is.";
  return parts.join(" ");
}
