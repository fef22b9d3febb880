// What can be heard when nobody speaks: each noise with its level, its place and whether it can be stopped.
import type { Plan, Schemas } from "../api/client";
import { limits } from "../api/limits";
import { reachOf } from "../table/floor";
import { useTable } from "../table/useTable";
import { LengthBox, OptionalBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { Choice, Tick } from "../ui/fields";
import { freeId } from "../units/ids";
import { Section, SHEET } from "../ui/Section";
import { fixed, formatLength, type UnitSystem } from "../units/length";
import { spoken } from "../units/text";

type Noise = Schemas["Noise"];

const KINDS: readonly (readonly [Noise["kind"], string, string])[] = [
  ["computer", "Computer", "30"],
  ["fan", "Fan", "40"],
  ["fridge", "Fridge", "38"],
  ["ventilation", "Ventilation", "31"],
  ["street", "Street, through the windows", "60"],
  ["other", "Something else", "35"],
];

/** As many as a room may have. */
const MOST_NOISES = 24;
const PLACES = ["From the left wall", "From the back wall", "Height"];

interface Props {
  plan: Plan;
  heard: Schemas["NoiseSeen"][];
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

export function Noises({ plan, heard, units }: Props) {
  const table = useTable();
  const told = Object.entries(plan.brief.room.noises ?? {});
  const set = (id: string, change: Partial<Noise> | null) => table.edit((p) => withNoise(p, id, change));
  const pick = (id: string, change: Partial<Noise> | null) => table.act((p) => withNoise(p, id, change));
  const most = reachOf(plan.brief.room);
  return (
    <Section title="Noise">
      {heard.length > 0 && (
        <ul className="text-sm">
          {heard.map((noise) => (
            <li key={noise.what} className="border-line flex items-baseline gap-2 border-b py-1">
              <span className="mr-auto">
                {noise.what}
                {noise.from === "assumed" && <span className="text-faint"> (assumed)</span>}
                {noise.can_stop && <span className="text-faint">, stop it for the take</span>}
              </span>
              <span>{fixed(noise.level_dba, 0)} dBA</span>
            </li>
          ))}
        </ul>
      )}
      <p className="text-faint text-xs">At the microphone, direct and by way of the room, loudest first.</p>
      <ul className="mt-2 grid gap-3">
        {told.map(([id, noise]) => (
          <li key={id} className={`${SHEET} p-3`}>
            <div className="flex items-end gap-3">
              <div className="grow">
                <Choice
                  label={`Noise ${spoken(id)}`}
                  value={noise.kind}
                  options={KINDS.map(([kind, words]) => [kind, words] as const)}
                  onPick={(kind) => pick(id, { kind: kind as Noise["kind"] })}
                />
              </div>
              <Button size="small" aria-label={`Remove noise ${spoken(id)}`} onClick={() => pick(id, null)}>
                Remove
              </Button>
            </div>
            <div className="mt-2 grid grid-cols-2 items-end gap-x-3 gap-y-2 sm:grid-cols-3">
              <OptionalBox
                label={noise.kind === "street" ? "Level outside" : `Level at ${formatLength(1, units, 0)}`}
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
              <p className="flex flex-wrap items-center gap-2 text-sm">
                Its place is not given: anywhere in the room.
                <Button
                  size="small"
                  onClick={() => pick(id, { position_m: [...plan.layout.seat.position_m, 0.3] })}
                >
                  Give its place
                </Button>
              </p>
            )}
            {noise.kind !== "street" && noise.level_1m_dba != null && (
              <Tick
                label="Measured in this room; otherwise as its maker states it, in the open"
                checked={noise.measured_in_room ?? false}
                onTick={(measured_in_room) => pick(id, { measured_in_room })}
              />
            )}
            <Tick
              label="It can be stopped for a take"
              checked={noise.can_stop ?? false}
              onTick={(can_stop) => pick(id, { can_stop })}
            />
          </li>
        ))}
      </ul>
      {told.length < MOST_NOISES && (
        <div className="mt-2 flex flex-wrap gap-2">
          {KINDS.map(([kind, words]) => (
            <Button
              key={kind}
              size="small"
              onClick={() => pick(freeId(kind, Object.keys(plan.brief.room.noises ?? {})), { kind })}
            >
              Add {(words.split(",")[0] ?? "").toLowerCase()}
            </Button>
          ))}
        </div>
      )}
    </Section>
  );
}
