// Where practitioners disagree: the schools that bear on a step, each with the reason of its default.
import { useQuery } from "@tanstack/react-query";

import { api, type Plan } from "../api/client";
import { Choice } from "../ui/fields";
import { withSchool } from "./edits";
import type { Table } from "./useWorktable";

export const SCHOOL_NAMES: Record<string, string> = {
  placement: "Where the eyes sit in the picture",
  lens: "Lens and distance",
  aperture: "Aperture",
  "camera-height": "Camera height",
  lights: "How many lights",
  source: "Kind of key",
  microphone: "Microphone",
  spending: "What comes first when money is short",
  "frame-rate": "Frame rate",
  monitor: "How you see yourself",
  window: "The window",
  record: "Where sound is recorded",
  rig: "What the gear stands on",
  background: "What lights the background",
};

export function Schools({ ids, plan, table }: { ids: string[]; plan: Plan; table: Table }) {
  const schools = useQuery({ queryKey: ["schools"], queryFn: api.schools, staleTime: Infinity }).data ?? [];
  const shown = schools.filter((s) => ids.includes(s.id));
  if (shown.length === 0) return null;
  const chosen = (plan.brief.schools ?? {}) as Record<string, string | undefined>;
  return (
    <section aria-labelledby="schools">
      <h3 id="schools" className="subheading">
        Your school
      </h3>
      <div className="grid gap-3 sm:grid-cols-2">
        {shown.map((school) => (
          <Choice
            key={school.id}
            label={SCHOOL_NAMES[school.id] ?? school.id}
            help={`Default: ${school.choices[0]?.label.toLowerCase() ?? ""}. ${school.reason}`}
            value={chosen[school.id] ?? school.choices[0]?.id ?? ""}
            onChange={(choice) => table.edit((p) => withSchool(p, school.id, choice))}
            options={school.choices.map((c) => [c.id, c.label] as const)}
          />
        ))}
      </div>
    </section>
  );
}
