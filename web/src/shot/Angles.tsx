// Second angles: over the bench or from the side, each with what it sees and covers.
import { useState } from "react";

import { api, type Judged, type Plan } from "../api/client";
import { Drawing } from "../drawing/Drawing";
import { withoutAngle } from "../table/edits";
import { valueOf } from "../table/step";
import { useTable } from "../table/useTable";
import { formatLength, type UnitSystem } from "../units/length";
import { capital, spoken } from "../units/text";
import { Button } from "../ui/button";
import { Section } from "../ui/Section";
import { Trouble } from "../ui/states";

interface Props {
  plan: Plan;
  judged: Judged;
  units: UnitSystem;
}

const MOST = 3;

export function Angles({ plan, judged, units }: Props) {
  const table = useTable();
  const [trouble, setTrouble] = useState<unknown>(null);
  const angles = Object.entries(plan.layout.angles ?? {});
  const add = async (kind: "overhead" | "side") => {
    setTrouble(null);
    try {
      await table.edit((p) => api.angle(p, kind));
    } catch (error) {
      table.putTroubleAway();
      setTrouble(error);
    }
  };
  return (
    <Section title="Second angles">
      <p className="text-faint mb-2 text-sm">
        Filmed with another camera at the same time, or with the same one afterwards.
      </p>
      {trouble !== null && <Trouble error={trouble} onRetry={() => setTrouble(null)} retryWords="Close" />}
      <div className="flex flex-wrap gap-2">
        <Button size="small" disabled={angles.length >= MOST} onClick={() => void add("overhead")}>
          Add a view of the bench from above
        </Button>
        <Button size="small" disabled={angles.length >= MOST} onClick={() => void add("side")}>
          Add a view from the side
        </Button>
      </div>
      <ul className="mt-3 grid gap-3 sm:grid-cols-2">
        {angles.map(([id, angle]) => {
          const [across, up] = ["covers_width_m", "covers_height_m"].map((what) =>
            valueOf(judged, `shot.${id}.${what}`),
          );
          const seen = judged.angles?.find((a) => a.id === id);
          const name = spoken(id);
          return (
            <li key={id} className="flex flex-col gap-2">
              {seen && <Drawing view={seen.view} title={`What the ${name} sees`} className="frame-drawing" />}
              <p className="flex flex-wrap items-center gap-2 text-sm">
                <span className="mr-auto">
                  <strong>{capital(name)}</strong>, {angle.focal_length_mm} mm
                  {across != null && up != null
                    ? `, covers ${formatLength(across, units)} × ${formatLength(up, units)}`
                    : ""}
                </span>
                <Button
                  size="small"
                  disabled={angle.locked ?? false}
                  aria-label={`Remove ${name}`}
                  onClick={() => table.act((p) => withoutAngle(p, id))}
                >
                  Remove
                </Button>
              </p>
            </li>
          );
        })}
      </ul>
    </Section>
  );
}
