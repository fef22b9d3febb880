// The room as a workplace: how deep it is each way, what distance behind you buys, how the wall behind you is done up.
import type { Judged, Plan, Schemas } from "../api/client";
import { limits } from "../api/limits";
import type { Table } from "../corner/useWorktable";
import { OptionalBox } from "../ui/boxes";
import { Choice } from "../ui/fields";
import { fixed, formatGap, formatLength, type UnitSystem } from "../units/length";
import { wallName, withSurface } from "./surfaces";

interface Props {
  plan: Plan;
  judged: Judged;
  table: Table;
  units: UnitSystem;
}

export function RoomPlace({ plan, judged, table, units }: Props) {
  const { ground } = judged;
  return (
    <>
      {ground && <Depths ground={ground} units={units} />}
      {ground && <Bought ground={ground} units={units} />}
      <Walls plan={plan} table={table} />
    </>
  );
}

function Depths({ ground, units }: { ground: Schemas["Ground"]; units: UnitSystem }) {
  const longest = Math.max(...ground.depths.map((d) => d.depth_m));
  return (
    <section aria-labelledby="depths">
      <h3 id="depths" className="subheading">
        How deep the room is through your seat
      </h3>
      <ul className="bars">
        {ground.depths.map((depth) => (
          <li key={depth.facing} aria-current={depth.now || undefined}>
            <span className="bar-label">
              {depth.now ? "✓ " : ""}Facing {depth.facing}
            </span>
            <span className="bar-length" style={{ width: `${(36 * depth.depth_m) / longest}%` }} />
            <span className="bar-value">
              {formatLength(depth.depth_m, units)}
              {depth.diagonal && (
                <span className="text-faint">
                  {" "}
                  {depth.gain_m >= 0 ? "+" : "−"}
                  {formatLength(Math.abs(depth.gain_m), units)}
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
      <p className="text-faint mt-1 text-sm">
        From wall to wall. Behind the + is what the diagonal gains over the deepest way square to a wall.
      </p>
    </section>
  );
}

function Bought({ ground, units }: { ground: Schemas["Ground"]; units: UnitSystem }) {
  return (
    <section aria-labelledby="bought">
      <h3 id="bought" className="subheading">
        What distance behind you buys, with this shot
      </h3>
      <table className="takes">
        <thead>
          <tr>
            <th>Eyes to the background</th>
            <th>Blur of the width</th>
            <th>Key darker there by</th>
            <th>Back light on an arm</th>
          </tr>
        </thead>
        <tbody>
          {ground.bought.map((one) => (
            <tr key={`${one.behind_m}-${one.now}`} aria-current={one.now || undefined}>
              <td>
                {one.now ? (
                  <strong>✓ {formatLength(one.behind_m, units)} now</strong>
                ) : (
                  formatLength(one.behind_m, units)
                )}
              </td>
              <td>{fixed(one.blur_percent, 1)} %</td>
              <td>{one.separation_stops == null ? "no key" : `${fixed(one.separation_stops, 1)} stops`}</td>
              <td>{one.back_light ? "fits" : "too near"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Depth that a dressed wall takes, m. */
const DRESSED_M = 0.1;
const looks = (units: UnitSystem) =>
  [
    ["plain", "As it is"],
    ["dressed", `Dressed: takes ${formatGap(DRESSED_M, units)}`],
    ["chroma", "Painted to be keyed out"],
  ] as const;

function Walls({ plan, table }: { plan: Plan; table: Table }) {
  const { room } = plan.brief;
  return (
    <section aria-labelledby="walls">
      <h3 id="walls" className="subheading">
        Walls
      </h3>
      <div className="grid gap-3 sm:grid-cols-2">
        {room.floor_m.map((_, index) => {
          const id = `wall-${index}`;
          const surface = room.surfaces?.[id] ?? {};
          const name = wallName(index, room.floor_m.length);
          return (
            <div key={id} className="grid grid-cols-2 items-end gap-2">
              <Choice
                label={name}
                value={surface.look ?? "plain"}
                options={looks(plan.brief.units ?? "metric")}
                onChange={(look) => table.edit((p) => withSurface(p, id, { look: look as Schemas["Look"] }))}
              />
              <OptionalBox
                label="Throws back"
                unit="of 1"
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
    </section>
  );
}
