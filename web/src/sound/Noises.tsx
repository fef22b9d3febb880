// What can be heard when nobody speaks: each noise with its level, its place and whether it can be stopped.
import type { Plan, Schemas } from "../api/client";
import { limits } from "../api/limits";
import type { Table } from "../corner/useWorktable";
import { LengthBox, OptionalBox } from "../ui/boxes";
import { Choice } from "../ui/fields";
import { freeId } from "../ui/ids";
import { fixed, formatLength, type UnitSystem } from "../units/length";

type Noise = Schemas["Noise"];

const KINDS: readonly (readonly [Noise["kind"], string, string])[] = [
  ["computer", "Computer", "30"],
  ["fan", "Fan", "40"],
  ["fridge", "Fridge", "38"],
  ["ventilation", "Ventilation", "31"],
  ["street", "Street, through the windows", "60"],
  ["other", "Something else", "35"],
];

const PLACES = ["From the left wall", "From the back wall", "Height"];

interface Props {
  plan: Plan;
  heard: Schemas["NoiseSeen"][];
  table: Table;
  units: UnitSystem;
}

/** A plan with a noise changed, added or (with null) taken away. */
export function withNoise(plan: Plan, id: string, change: Partial<Noise> | null): Plan {
  const noises = { ...plan.brief.room.noises };
  if (change === null) Reflect.deleteProperty(noises, id);
  else {
    const told = Object.entries({ kind: "other", ...noises[id], ...change }).filter(([, v]) => v != null);
    noises[id] = Object.fromEntries(told) as unknown as Noise;
  }
  return { ...plan, brief: { ...plan.brief, room: { ...plan.brief.room, noises } } };
}

export function Noises({ plan, heard, table, units }: Props) {
  const told = Object.entries(plan.brief.room.noises ?? {});
  const set = (id: string, change: Partial<Noise> | null) => table.edit((p) => withNoise(p, id, change));
  const most = [0, 1].map((axis) => Math.max(...plan.brief.room.floor_m.map((p) => p[axis] ?? 0)));
  most.push(plan.brief.room.height_m);
  return (
    <section aria-labelledby="noises">
      <h3 id="noises" className="subheading">
        What else is heard
      </h3>
      {heard.length > 0 && (
        <ul className="noises">
          {heard.map((noise) => (
            <li key={noise.what}>
              <span className="mr-auto">
                {noise.what}
                {noise.from === "assumed" && <span className="text-faint"> (assumed)</span>}
                {noise.can_stop && <span className="text-faint"> – stop it for the take</span>}
              </span>
              <span>{fixed(noise.level_dba, 0)} dBA</span>
            </li>
          ))}
        </ul>
      )}
      <p className="text-faint text-sm">At the microphone, straight and by way of the room, loudest first.</p>
      <ul className="grid gap-3">
        {told.map(([id, noise]) => (
          <li key={id} className="thing">
            <div className="flex items-end gap-3">
              <div className="grow">
                <Choice
                  label={`Noise ${id.replaceAll("-", " ")}`}
                  value={noise.kind}
                  options={KINDS.map(([kind, words]) => [kind, words] as const)}
                  onChange={(kind) => set(id, { kind: kind as Noise["kind"] })}
                />
              </div>
              <button type="button" className="button button-small" onClick={() => set(id, null)}>
                Take away
              </button>
            </div>
            <div className="boxes">
              <OptionalBox
                label={noise.kind === "street" ? "Level outside" : `Level ${formatLength(1, units, 0)} away`}
                unit="dBA"
                value={noise.level_1m_dba ?? null}
                without={KINDS.find(([kind]) => kind === noise.kind)?.[2] ?? "usual"}
                within={limits["Noise.level_1m_dba"]}
                digits={0}
                step={1}
                onCommit={(level) => set(id, { level_1m_dba: level })}
              />
              {noise.position_m?.map((metres, axis) => (
                <LengthBox
                  key={PLACES[axis]}
                  label={PLACES[axis] ?? ""}
                  value={metres}
                  units={units}
                  within={[0, most[axis] ?? 50]}
                  onCommit={(value) => set(id, { position_m: noise.position_m?.with(axis, value) ?? null })}
                />
              ))}
            </div>
            {noise.kind !== "street" && !noise.position_m && (
              <p className="text-sm">
                Taken as anywhere in the room.{" "}
                <button
                  type="button"
                  className="button button-small"
                  onClick={() => set(id, { position_m: [...plan.layout.seat.position_m, 0.3] })}
                >
                  Tell where it stands
                </button>
              </p>
            )}
            {noise.kind !== "street" && noise.level_1m_dba != null && (
              <label className="flex items-center gap-2 text-sm">
                <input
                  type="checkbox"
                  checked={noise.measured_in_room ?? false}
                  onChange={(event) => set(id, { measured_in_room: event.target.checked })}
                />
                Measured in this room; otherwise as its maker tells it, in the open
              </label>
            )}
            <label className="flex items-center gap-2 text-sm">
              <input
                type="checkbox"
                checked={noise.can_stop ?? false}
                onChange={(event) => set(id, { can_stop: event.target.checked })}
              />
              It can be stopped for a take
            </label>
          </li>
        ))}
      </ul>
      {told.length < 24 && (
        <div className="mt-2 flex flex-wrap gap-2">
          {KINDS.map(([kind, words]) => (
            <button
              key={kind}
              type="button"
              className="button button-small"
              onClick={() => set(freeId(kind, Object.keys(plan.brief.room.noises ?? {})), { kind })}
            >
              + {words.split(",")[0]}
            </button>
          ))}
        </div>
      )}
    </section>
  );
}
