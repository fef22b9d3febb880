// How tall you are and how you sit: changed here, everything else stays where it is.
import type { Plan } from "../api/client";
import { limits } from "../api/limits";
import { withPerson } from "../table/edits";
import { useTable } from "../table/useTable";
import type { UnitSystem } from "../units/length";
import { FigureBox, LengthBox } from "../ui/boxes";
import { Tick } from "../ui/fields";
import { Section } from "../ui/Section";

export function Body({ plan, units }: { plan: Plan; units: UnitSystem }) {
  const table = useTable();
  const { person } = plan.brief;
  const tell = (change: Parameters<typeof withPerson>[1]) => table.edit((p) => withPerson(p, change));
  return (
    <Section title="Your body">
      <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2 sm:grid-cols-3">
        <LengthBox
          label="Stature"
          value={person.stature_m}
          units={units}
          within={limits["Person.stature_m"]}
          onCommit={(stature_m) => tell({ stature_m })}
        />
        {person.posture === "seated" && (
          <FigureBox
            label="Seat height"
            unit="m"
            units={units}
            without="0.45 m"
            value={person.seat_height_m ?? null}
            within={limits["Person.seat_height_m"]}
            onCommit={(seat_height_m) => tell({ seat_height_m })}
          />
        )}
        <FigureBox
          label="Lean"
          unit="m"
          units={units}
          without="0.05 m"
          value={person.lean_m ?? null}
          within={limits["Person.lean_m"]}
          onCommit={(lean_m) => tell({ lean_m })}
        />
        <Tick
          label="Glasses"
          checked={person.glasses ?? false}
          onTick={(glasses) => table.act((p) => withPerson(p, { glasses }))}
        />
      </div>
      <p className="text-faint mt-1 text-xs">
        Nothing is moved by this: what no longer fits is told, and locks, second angles and panels stay.
      </p>
    </Section>
  );
}
