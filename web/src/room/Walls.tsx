// How the walls are done up, and how much light they reflect.
import type { Plan, Schemas } from "../api/client";
import { limits } from "../api/limits";
import { wallName } from "../table/floor";
import { withSurface } from "../table/surfaces";
import { useTable } from "../table/useTable";
import { capital } from "../units/text";
import { formatGap, type UnitSystem } from "../units/length";
import { OptionalBox } from "../ui/boxes";
import { Choice } from "../ui/fields";
import { Section } from "../ui/Section";

/** Depth that a dressed wall takes, m. */
const DRESSED_M = 0.1;

const looks = (units: UnitSystem) =>
  [
    ["plain", "Plain"],
    ["dressed", `Dressed, ${formatGap(DRESSED_M, units)} deep`],
    ["chroma", "Painted as a key screen"],
  ] as const;

export function Walls({ plan }: { plan: Plan }) {
  const table = useTable();
  const { room } = plan.brief;
  return (
    <Section title="Walls">
      <div className="grid gap-3 sm:grid-cols-2">
        {room.floor_m.map((_, index) => {
          const id = `wall-${String(index)}`;
          const surface = room.surfaces?.[id] ?? {};
          return (
            <div key={id} className="grid grid-cols-[3fr_2fr] items-end gap-2">
              <Choice
                label={capital(wallName(room.floor_m, index))}
                value={surface.look ?? "plain"}
                options={looks(plan.brief.units ?? "metric")}
                onPick={(look) => table.act((p) => withSurface(p, id, { look: look as Schemas["Look"] }))}
              />
              <OptionalBox
                label="Reflectance"
                digits={2}
                step={0.05}
                without="0.5"
                within={limits["Surface.reflectance"]}
                value={surface.reflectance ?? null}
                onCommit={(reflectance) => table.edit((p) => withSurface(p, id, { reflectance }))}
              />
            </div>
          );
        })}
      </div>
    </Section>
  );
}
