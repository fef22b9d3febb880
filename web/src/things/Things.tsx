// The list beside the drawings: every thing with its numbers, to be typed exactly, nudged, turned, aimed and locked. It does
// everything that the drawings do.
import { useMemo } from "react";

import type { Judged, Plan } from "../api/client";
import { useSelection } from "../table/selection";
import type { UnitSystem } from "../units/length";
import { Section } from "../ui/Section";
import { Thing } from "./Thing";

interface Props {
  names: readonly string[];
  judged: Judged;
  plan: Plan;
  units: UnitSystem;
}

export function Things({ names, judged, plan, units }: Props) {
  const { selected, select } = useSelection();
  const cloths = useClothsOf(plan);
  const handles = judged.handles.filter((handle) => names.includes(handle.id));
  if (handles.length === 0) return null;
  return (
    <Section title="Where things are">
      <ul className="grid gap-2">
        {handles.map((handle) => (
          <li key={handle.id} data-thing={handle.id}>
            <Thing
              handle={handle}
              light={plan.layout.lights?.[handle.id]}
              open={handle.id === selected}
              cloths={cloths}
              onSelect={select}
              units={units}
            />
          </li>
        ))}
      </ul>
    </Section>
  );
}

/** Diffusion panels at hand, by id: the same list for as long as the gear is the same. */
function useClothsOf({ brief: { gear } }: Plan): [string, string][] {
  return useMemo(
    () =>
      Object.entries(gear ?? {}).flatMap(([id, one]) =>
        one.kind === "reflector" && one.transmittance != null ? [[id, one.label]] : [],
      ),
    [gear],
  );
}
