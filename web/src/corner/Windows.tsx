// The windows: what each measures, where it stands as seen from the eyes, and what is counted of its light.
import type { Plan, Schemas } from "../api/client";
import { limits } from "../api/limits";
import { formatLength, type UnitSystem } from "../units/length";
import { LengthBox } from "../ui/boxes";
import { windowsShine } from "./thread";
import type { Table } from "./useWorktable";

type Opening = Schemas["Opening"];
const WALLS = ["back", "right", "front", "left"];

export function Windows({ plan, table, units }: { plan: Plan; table: Table; units: UnitSystem }) {
  const windows = Object.entries(plan.brief.room.openings ?? {}).filter(([, o]) => o.kind === "window");
  const set = (id: string, change: Partial<Opening>) =>
    table.edit((p) => {
      const opening = p.brief.room.openings?.[id];
      if (!opening) return p;
      const openings = { ...p.brief.room.openings, [id]: { ...opening, ...change } };
      return { ...p, brief: { ...p.brief, room: { ...p.brief.room, openings } } };
    });
  return (
    <section aria-labelledby="windows">
      <h3 id="windows" className="subheading">
        Windows
      </h3>
      {windows.length === 0 ? (
        <p>The room has no window: the picture is the same at every hour.</p>
      ) : (
        <p className="mb-3">
          {windowsShine(plan.brief)
            ? "The windows count as lamps, under an overcast sky. The picture changes with the hour and the weather: record in one go, and set the white balance again for each take."
            : "All light figures count every window as shut out. Close blinds or curtains before you record; then the picture is the same at every hour."}
        </p>
      )}
      <ul className="grid gap-3">
        {windows.map(([id, window]) => {
          const height = window.height_m ?? 1.2;
          return (
            <li key={id} className="thing">
              <p className="font-semibold">
                {formatLength(window.width_m, units)} × {formatLength(height, units)} in the{" "}
                {WALLS[window.wall]} wall
              </p>
              <div className="boxes">
                <LengthBox
                  label="Width"
                  value={window.width_m}
                  units={units}
                  within={limits["Opening.width_m"]}
                  onCommit={(v) => set(id, { width_m: v })}
                />
                <LengthBox
                  label="Height"
                  value={height}
                  units={units}
                  within={limits["Opening.height_m"]}
                  onCommit={(v) => set(id, { height_m: v })}
                />
                <LengthBox
                  label="Sill above the floor"
                  value={window.sill_m ?? 0.9}
                  units={units}
                  within={limits["Opening.sill_m"]}
                  onCommit={(v) => set(id, { sill_m: v })}
                />
                <LengthBox
                  label="From where the wall begins"
                  value={window.from_m}
                  units={units}
                  within={limits["Opening.from_m"]}
                  onCommit={(v) => set(id, { from_m: v })}
                />
              </div>
            </li>
          );
        })}
      </ul>
    </section>
  );
}
