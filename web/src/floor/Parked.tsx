// Places of one's own where stands are put away.
import type { Plan } from "../api/client";
import { reachOf } from "../table/floor";
import { useTable } from "../table/useTable";
import { LengthBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { Section, SHEET } from "../ui/Section";
import type { UnitSystem } from "../units/length";
import { usePutUp } from "./usePutUp";

/** A plan in which a stand is put away at a place of the person's own, or (null) where Fogon finds room. */
export function withParked(plan: Plan, id: string, at: [number, number] | null): Plan {
  const parked = { ...plan.brief.habits?.parked };
  if (at === null) Reflect.deleteProperty(parked, id);
  else parked[id] = at;
  return { ...plan, brief: { ...plan.brief, habits: { ...plan.brief.habits, parked } } };
}

export function Parked({ plan, units }: { plan: Plan; units: UnitSystem }) {
  const table = useTable();
  const stands = usePutUp(plan).data?.ready.parked ?? [];
  const most = reachOf(plan.brief.room);
  if (stands.length === 0) return null;
  return (
    <Section title="Where stands are put away">
      <ul className="grid gap-2">
        {stands.map((stand) => {
          const [x = 0, y = 0] = stand.at_m;
          const put = (at: [number, number]) => table.edit((p) => withParked(p, stand.id, at));
          return (
            <li key={stand.id} className={`${SHEET} p-3`} aria-label={`${stand.letter} put away`}>
              <p className="mb-1 text-sm font-semibold">
                {stand.letter} {stand.what}
              </p>
              <div className="grid grid-cols-2 items-end gap-3 sm:grid-cols-3">
                <LengthBox
                  label="From the left wall"
                  value={x}
                  units={units}
                  within={[0, most[0]]}
                  onCommit={(value) => put([value, y])}
                />
                <LengthBox
                  label="From the back wall"
                  value={y}
                  units={units}
                  within={[0, most[1]]}
                  onCommit={(value) => put([x, value])}
                />
                {stand.from === "typed" && (
                  <Button size="small" onClick={() => table.act((p) => withParked(p, stand.id, null))}>
                    Let Fogon choose
                  </Button>
                )}
              </div>
            </li>
          );
        })}
      </ul>
    </Section>
  );
}
