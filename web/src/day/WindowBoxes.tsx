// The windows, measured: size, sill, place in the wall, glass.
import type { Plan, Schemas } from "../api/client";
import { limits } from "../api/limits";
import { withOpening } from "../table/edits";
import { wallName } from "../table/floor";
import { useTable } from "../table/useTable";
import type { UnitSystem } from "../units/length";
import { LengthBox, NumberBox } from "../ui/boxes";
import { Choice } from "../ui/fields";
import { SHEET } from "../ui/Section";
import { GLAZINGS, USUAL, windowsOf } from "./windows";

export function WindowBoxes({ plan, units }: { plan: Plan; units: UnitSystem }) {
  const table = useTable();
  const windows = windowsOf(plan);
  if (windows.length === 0) return <p>The room has no window.</p>;
  return (
    <ul className="grid gap-3">
      {windows.map(([id, window]) => {
        const set = (change: Partial<Schemas["Opening"]>) => table.edit((p) => withOpening(p, id, change));
        const box = (
          field: "width_m" | "height_m" | "sill_m" | "from_m" | "reveal_m",
          label: string,
          value: number,
        ) => (
          <LengthBox
            label={label}
            value={value}
            units={units}
            within={limits[`Opening.${field}`]}
            onCommit={(metres) => set({ [field]: metres })}
          />
        );
        return (
          <li key={id} className={`${SHEET} p-3`}>
            <p className="mb-2 text-sm font-semibold">
              Window in the {wallName(plan.brief.room.floor_m, window.wall)}
            </p>
            <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2 sm:grid-cols-3">
              {box("width_m", "Width", window.width_m)}
              {box("height_m", "Height", window.height_m ?? USUAL.height_m)}
              {box("sill_m", "Sill above the floor", window.sill_m ?? USUAL.sill_m)}
              {box("from_m", "From the start of the wall", window.from_m)}
              {box("reveal_m", "Depth of the reveal", window.reveal_m ?? USUAL.reveal_m)}
              <NumberBox
                label="Opposite, degrees over the horizon"
                unit="°"
                digits={0}
                within={limits["Opening.horizon_deg"]}
                value={window.horizon_deg ?? 0}
                onCommit={(horizon_deg) => set({ horizon_deg })}
              />
              <Choice
                label="Glass"
                value={window.glazing ?? ""}
                options={GLAZINGS}
                onPick={(glazing) =>
                  table.act((p) =>
                    withOpening(p, id, {
                      glazing: glazing === "" ? null : (glazing as Schemas["Glazing"]),
                    }),
                  )
                }
              />
            </div>
          </li>
        );
      })}
    </ul>
  );
}
