// Where practitioners disagree: every school with its default and reason, and what each choice would change here with
// everything where it stands.
import { useQuery } from "@tanstack/react-query";

import { api, type Plan, type Schemas } from "../api/client";
import { Trouble, Waiting } from "../ui/states";
import { fixed, type UnitSystem } from "../units/length";
import { withSchool } from "./edits";
import { SCHOOL_NAMES } from "./Schools";
import { sentence } from "./show";
import type { Table } from "./useWorktable";

type Effect = Schemas["ChoiceEffect"];

export function SchoolsPage({ plan, table, units }: { plan: Plan; table: Table; units: UnitSystem }) {
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
    <div className="schools">
      <h2 className="heading">Schools</h2>
      <p className="max-w-2xl">
        Where practitioners disagree, one choice is the default and says why. Below each choice stands what it
        would change on this corner as it is, with nothing moved. Lay out again to let it move things.
      </p>
      <ul className="grid gap-4 lg:grid-cols-2">
        {schools.data.map((school) => (
          <li key={school.id} className="sheet p-4">
            <h3 className="subheading mt-0">{SCHOOL_NAMES[school.id] ?? school.id}</h3>
            <p className="text-sm">{school.reason}</p>
            <p className="text-faint mb-2 text-xs">Source: {school.source}.</p>
            <ul>
              {school.choices.map((choice, index) => {
                const effect = effects.data.find((e) => e.school === school.id && e.choice === choice.id);
                return (
                  <li key={choice.id} className="school-choice">
                    <div className="flex flex-wrap items-center gap-x-3">
                      <strong>{choice.label}</strong>
                      {index === 0 && <span className="text-faint text-xs">default</span>}
                      <span className="ml-auto">
                        {effect?.chosen ? (
                          <span className="flex min-h-8 items-center font-semibold">✓ chosen</span>
                        ) : (
                          <button
                            type="button"
                            className="button button-small"
                            onClick={() => table.edit((p) => withSchool(p, school.id, choice.id))}
                          >
                            Choose
                          </button>
                        )}
                      </span>
                    </div>
                    {effect && !effect.chosen && (
                      <p className="text-sm">{words(effect, effects.data, units)}</p>
                    )}
                  </li>
                );
              })}
            </ul>
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What a choice would change, in a sentence or two. */
function words(effect: Effect, all: Effect[], units: UnitSystem): string {
  const now = all.find((e) => e.school === effect.school && e.chosen);
  const points = Math.round(100 * (effect.score - (now?.score ?? effect.score)));
  const parts: string[] = [];
  if (effect.comes.length > 0) parts.push(effect.comes.slice(0, 2).join(" "));
  if (effect.goes.length > 0) parts.push(`No longer: ${effect.goes.slice(0, 2).join(" ")}`);
  const moved = effect.changes.filter((c) => c.from !== c.to).slice(0, 3);
  if (moved.length > 0)
    parts.push(
      `${moved.map((c) => `${c.label} ${sentence(c.from, c.unit, units, c.reading)} to ${sentence(c.to, c.unit, units, c.reading)}`).join(", ")}.`,
    );
  if (points !== 0)
    parts.push(
      `${fixed(Math.abs(points), 0)} ${Math.abs(points) === 1 ? "point" : "points"} ${points > 0 ? "more" : "less"}.`,
    );
  if (parts.length === 0) return "Nothing changes while everything stays where it is.";
  return parts.join(" ");
}
