// What walls, floor and ceiling are made of, what covers a part of them, and how the windows are glazed.
import { useQuery } from "@tanstack/react-query";

import { api, type Plan, type Schemas } from "../api/client";
import { limits } from "../api/limits";
import type { Table } from "../corner/useWorktable";
import { wallName, withSurface } from "../room/surfaces";
import { OptionalBox } from "../ui/boxes";
import { Choice } from "../ui/fields";

const GLAZINGS = [
  ["", "not told: two panes taken"],
  ["single", "one pane"],
  ["double", "two panes"],
  ["leaky", "closes badly"],
  ["tilted", "tilted open"],
] as const;

export function Surfaces({ plan, table }: { plan: Plan; table: Table }) {
  const { data: rows = [] } = useQuery({
    queryKey: ["materials"],
    queryFn: api.materials,
    staleTime: Infinity,
  });
  const { room } = plan.brief;
  const count = room.floor_m.length;
  const names = [
    ...room.floor_m.map((_, i) => [`wall-${String(i)}`, wallName(i, count)] as const),
    ["floor", "Floor"] as const,
    ["ceiling", "Ceiling"] as const,
  ];
  // What a surface can be made of or covered with all over, and what lies or hangs on a part of it.
  const of = (kinds: Schemas["Use"][]) =>
    rows.filter((row) => kinds.includes(row.kind)).map((row) => [row.id, row.label] as const);
  const whole = of(["surface", "floor", "cover"]);
  const covers = of(["floor", "cover", "piece"]);
  const windows = Object.entries(room.openings ?? {}).filter(([, o]) => o.kind === "window");
  const glaze = (id: string, glazing: string) =>
    table.edit((p) => {
      const kept = Object.entries(p.brief.room.openings?.[id] ?? {}).filter(([field]) => field !== "glazing");
      const told = Object.fromEntries(glazing === "" ? kept : [...kept, ["glazing", glazing]]) as unknown;
      const openings = { ...p.brief.room.openings, [id]: told as Schemas["Opening"] };
      return { ...p, brief: { ...p.brief, room: { ...p.brief.room, openings } } };
    });
  return (
    <details className="surfaces">
      <summary>What walls, floor and ceiling are made of</summary>
      <ul className="grid gap-3">
        {names.map(([id, name]) => {
          const surface = room.surfaces?.[id];
          const set = (change: Parameters<typeof withSurface>[2]) =>
            table.edit((p) => withSurface(p, id, change));
          return (
            <li key={id} className="thing">
              <Choice
                label={name}
                value={surface?.material ?? ""}
                options={[["", "not told"], ...whole]}
                onChange={(material) => set({ material: material || null })}
              />
              <div className="mt-2 grid items-end gap-3 sm:grid-cols-[2fr_1fr]">
                <Choice
                  label={`On a part of the ${name.toLowerCase()}`}
                  value={surface?.cover_material ?? ""}
                  options={[["", "nothing"], ...covers]}
                  onChange={(cover) =>
                    set({
                      cover_material: cover || null,
                      cover_part: cover ? (surface?.cover_part ?? 0.5) : null,
                    })
                  }
                />
                {surface?.cover_material != null && (
                  <OptionalBox
                    label="So much of it"
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
        {windows.map(([id, window]) => (
          <li key={id} className="thing">
            <Choice
              label={`Glass of the ${id.replaceAll("-", " ")}`}
              value={window.glazing ?? ""}
              options={GLAZINGS}
              onChange={(glazing) => glaze(id, glazing)}
            />
          </li>
        ))}
      </ul>
    </details>
  );
}
