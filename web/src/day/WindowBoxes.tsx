// The windows, measured: size, sill, place in the wall, glass.
import type { Judged, Plan, Schemas } from "../api/client";
import { limits } from "../api/limits";
import { withOpening } from "../table/edits";
import { wallName } from "../table/floor";
import { useTable } from "../table/useTable";
import { valueOf } from "../table/step";
import { fixed, type UnitSystem } from "../units/length";
import { LengthBox, NumberBox } from "../ui/boxes";
import { Choice } from "../ui/fields";
import { SHEET } from "../ui/Section";
import { CURTAINS, GLAZINGS, USUAL, windowsOf } from "./windows";

/** From here on light is soft on a face (common practice, no source). */
const SOFT_DEG = 20;

/** Where something is by its angle from the lens. */
function sideOf(azimuth: number): string {
  const angle = `${fixed(Math.abs(azimuth), 0)}°`;
  if (Math.abs(azimuth) > 135) return `behind you, ${angle} from the lens`;
  return `${angle} to camera ${azimuth > 0 ? "right" : "left"}`;
}

export function WindowBoxes({ plan, judged, units }: { plan: Plan; judged: Judged; units: UnitSystem }) {
  const table = useTable();
  const windows = windowsOf(plan);
  if (windows.length === 0) return <p>The room has no window.</p>;
  const factor = valueOf(judged, "daylight.room.factor_percent");
  return (
    <ul className="grid gap-3">
      {windows.map(([id, window]) => {
        const azimuth = valueOf(judged, `daylight.${id}.azimuth_deg`);
        const size = valueOf(judged, `daylight.${id}.angular_size_deg`);
        const set = (change: Partial<Schemas["Opening"]>) => table.edit((p) => withOpening(p, id, change));
        const box = (
          field: "width_m" | "height_m" | "sill_m" | "from_m" | "reveal_m" | "blind_m",
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
              <span className="text-faint font-normal">
                {azimuth !== null && `, ${sideOf(azimuth)}`}
                {size !== null &&
                  `, looks ${fixed(size, 0)}° large: ${size >= SOFT_DEG ? "soft" : "hard"} light`}
              </span>
            </p>
            <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2 sm:grid-cols-3">
              {box("width_m", "Width", window.width_m)}
              {box("height_m", "Height", window.height_m ?? USUAL.height_m)}
              {box("sill_m", "Sill above the floor", window.sill_m ?? USUAL.sill_m)}
              {box("from_m", "From the start of the wall", window.from_m)}
              {box("reveal_m", "Depth of the reveal", window.reveal_m ?? USUAL.reveal_m)}
              {box("blind_m", "Blind drawn down", window.blind_m ?? 0)}
              <NumberBox
                label="Opposite, degrees over the horizon"
                unit="°"
                digits={0}
                within={limits["Opening.horizon_deg"]}
                value={window.horizon_deg ?? 0}
                onCommit={(horizon_deg) => set({ horizon_deg })}
              />
              <Choice
                label="Curtain"
                value={window.curtain ?? ""}
                options={CURTAINS}
                onPick={(curtain) =>
                  table.act((p) =>
                    withOpening(p, id, {
                      curtain: curtain === "" ? null : (curtain as Schemas["Curtain"]),
                    }),
                  )
                }
              />
              <div className="col-span-2 sm:col-span-1">
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
            </div>
          </li>
        );
      })}
      {factor !== null && (
        <li className="text-sm">
          Average daylight factor {fixed(factor, 1)} %: under a grey sky of 10,000 lx the room gets{" "}
          {fixed(factor * 100, 0)} lx in the mean.
        </li>
      )}
    </ul>
  );
}
