// Where practitioners disagree: the schools that bear on a step, each with the reason of its default.
import { useQuery } from "@tanstack/react-query";

import { api, type Plan } from "../api/client";
import { withSchool } from "../table/edits";
import { useTable } from "../table/useTable";
import { Choice } from "../ui/fields";
import { Section } from "../ui/Section";
import { SCHOOL_NAMES } from "./names";

export function Schools({ ids, plan }: { ids: string[]; plan: Plan }) {
  const table = useTable();
  const schools = useQuery({ queryKey: ["schools"], queryFn: api.schools, staleTime: Infinity }).data ?? [];
  const shown = schools.filter((s) => ids.includes(s.id));
  if (shown.length === 0) return null;
  const chosen = (plan.brief.schools ?? {}) as Record<string, string | undefined>;
  return (
    <Section
      title={
        shown.length === 1 ? "Where practitioners disagree" : "Where practitioners disagree: your schools"
      }
    >
      <div className="grid gap-3 sm:grid-cols-2">
        {shown.map((school) => (
          <Choice
            key={school.id}
            label={SCHOOL_NAMES[school.id] ?? school.id}
            help={`Default: ${school.choices[0]?.label.toLowerCase() ?? ""}. ${school.reason}`}
            value={chosen[school.id] ?? school.choices[0]?.id ?? ""}
            onPick={(choice) => table.act((p) => withSchool(p, school.id, choice))}
            options={school.choices.map((c) => [c.id, c.label] as const)}
          />
        ))}
      </div>
    </Section>
  );
}
