// Second angles: over the bench or from the side, each with what it sees and covers.
import { useState } from "react";

import { api, type Judged, type Plan } from "../api/client";
import type { Table } from "../corner/useWorktable";
import { Drawing } from "../drawing/Drawing";
import { Trouble } from "../ui/states";
import { formatLength, type UnitSystem } from "../units/length";
import { withoutAngle } from "../corner/edits";

interface Props {
  plan: Plan;
  judged: Judged;
  table: Table;
  units: UnitSystem;
}

const MOST = 3;

export function Angles({ plan, judged, table, units }: Props) {
  const [trouble, setTrouble] = useState<unknown>(null);
  const angles = Object.entries(plan.layout.angles ?? {});
  const add = (kind: "overhead" | "side") => {
    setTrouble(null);
    table.edit(async (p) => {
      try {
        return await api.angle(p, kind);
      } catch (error) {
        setTrouble(error);
        return p;
      }
    });
  };
  const value = (id: string, what: string) =>
    judged.assessment.readings.find((r) => r.id === `shot.${id}.${what}`)?.value ?? null;
  return (
    <section aria-labelledby="angles">
      <h3 id="angles" className="subheading">
        Second angles
      </h3>
      <p className="text-faint mb-2 text-sm">
        Filmed with another camera at the same time, or with the same one afterwards.
      </p>
      {trouble !== null && <Trouble error={trouble} onRetry={() => setTrouble(null)} />}
      <div className="flex flex-wrap gap-2">
        <button
          type="button"
          className="button"
          disabled={angles.length >= MOST}
          onClick={() => add("overhead")}
        >
          Add a view of the bench from above
        </button>
        <button type="button" className="button" disabled={angles.length >= MOST} onClick={() => add("side")}>
          Add a view from the side
        </button>
      </div>
      <ul className="mt-3 grid gap-3 sm:grid-cols-2">
        {angles.map(([id, angle]) => {
          const [across, up] = [value(id, "covers_width_m"), value(id, "covers_height_m")];
          const seen = judged.angles?.find((a) => a.id === id);
          const name = id.replaceAll("-", " ");
          return (
            <li key={id} className="flex flex-col gap-2">
              {seen && <Drawing view={seen.view} title={`What the ${name} sees`} className="frame-drawing" />}
              <p className="flex flex-wrap items-center gap-2 text-sm">
                <span className="mr-auto">
                  <strong>{name}</strong>, {angle.focal_length_mm} mm
                  {across !== null && up !== null
                    ? `, covers ${formatLength(across, units)} × ${formatLength(up, units)}`
                    : ""}
                </span>
                <button
                  type="button"
                  className="button button-small"
                  disabled={angle.locked ?? false}
                  onClick={() => table.edit((p) => withoutAngle(p, id))}
                >
                  Take {name} away
                </button>
              </p>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
