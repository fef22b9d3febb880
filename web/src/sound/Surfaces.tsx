// What walls, floor and ceiling are made of, and what covers a part of them.
import { useQuery } from "@tanstack/react-query";

import { api, type Plan, type Schemas } from "../api/client";
import { limits } from "../api/limits";
import { wallName } from "../table/floor";
import { withSurface } from "../table/surfaces";
import { useTable } from "../table/useTable";
import { capital } from "../units/text";
import { OptionalBox } from "../ui/boxes";
import { Choice } from "../ui/fields";
import { SHEET } from "../ui/Section";

export function Surfaces({ plan }: { plan: Plan }) {
  const table = useTable();
  const { data: rows = [] } = useQuery({
    queryKey: ["materials"],
    queryFn: api.materials,
    staleTime: Infinity,
  });
  const { room } = plan.brief;
  const names = [
    ...room.floor_m.map((_, i) => [`wall-${String(i)}`, capital(wallName(room.floor_m, i))] as const),
    ["floor", "Floor"] as const,
    ["ceiling", "Ceiling"] as const,
  ];
  // What a surface can be made of or covered with all over, and what lies or hangs on a part of it.
  const of = (kinds: Schemas["Use"][]) =>
    rows.filter((row) => kinds.includes(row.kind)).map((row) => [row.id, row.label] as const);
  const whole = of(["surface", "floor", "cover"]);
  const covers = of(["floor", "cover", "piece"]);
  return (
    <details>
      <summary className="min-h-6 cursor-pointer text-sm font-semibold">
        What walls, floor and ceiling are made of
      </summary>
      <ul className="mt-2 grid gap-3">
        {names.map(([id, name]) => {
          const surface = room.surfaces?.[id];
          const set = (change: Parameters<typeof withSurface>[2]) =>
            table.edit((p) => withSurface(p, id, change));
          const pick = (change: Parameters<typeof withSurface>[2]) =>
            table.act((p) => withSurface(p, id, change));
          return (
            <li key={id} className={`${SHEET} p-3`}>
              <Choice
                label={name}
                value={surface?.material ?? ""}
                options={[["", "not given"], ...whole]}
                onPick={(material) => pick({ material: material || null })}
              />
              <div className="mt-2 grid items-end gap-3 sm:grid-cols-[2fr_1fr]">
                <Choice
                  label={`Covering a part of the ${name.toLowerCase()}`}
                  value={surface?.cover_material ?? ""}
                  options={[["", "nothing"], ...covers]}
                  onPick={(cover) =>
                    pick({
                      cover_material: cover || null,
                      cover_part: cover ? (surface?.cover_part ?? 0.5) : null,
                    })
                  }
                />
                {surface?.cover_material != null && (
                  <OptionalBox
                    label="Covered part"
                    unit="%"
                    value={surface.cover_part == null ? null : 100 * surface.cover_part}
                    without="50"
                    within={[0, 100 * limits["Surface.cover_part"][1]]}
                    digits={0}
                    step={5}
                    onCommit={(part) => set({ cover_part: part === null ? null : part / 100 })}
                  />
                )}
              </div>
            </li>
          );
        })}
      </ul>
    </details>
  );
}
