// The shelf: what is owned or at hand, by kind, with the figures that matter; more is added from the list of usual things.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api, type Gear, type Plan } from "../api/client";
import { limits } from "../api/limits";
import type { Table } from "../corner/useWorktable";
import { FigureBox, OptionalBox } from "../ui/boxes";
import { Choice } from "../ui/fields";
import { Trouble } from "../ui/states";
import { FIGURES, KINDS, told } from "./figures";
import { formatLength, type UnitSystem } from "../units/length";
import { freeId, inUse, withGear, withoutGear } from "./gear";

const STATES = [
  ["owned", "Owned"],
  ["borrowed", "Borrowed"],
  ["wanted", "Wanted"],
  ["never", "Never"],
] as const;

/** What a lamp may carry; how much light it lets out and how it warms it follow. */
const MODIFIERS = [
  ["", "not told"],
  ["bare", "nothing, or its reflector"],
  ["softbox", "softbox, one cloth"],
  ["double-softbox", "softbox, two cloths"],
  ["grid-softbox", "softbox with a grid"],
  ["globe", "globe"],
  ["white-umbrella", "white umbrella"],
  ["silver-umbrella", "silver umbrella"],
  ["shoot-through-umbrella", "umbrella to shoot through"],
] as const;

export function ShelfPage({ plan, table }: { plan: Plan; table: Table }) {
  const gear = Object.entries(plan.brief.gear ?? {});
  return (
    <div className="schools">
      <h2 className="heading">Shelf</h2>
      <div className="flex flex-wrap items-end gap-3">
        <p className="mr-auto max-w-xl">
          What is at hand is what Fogon lays out with. After a change, have everything placed anew round the
          seat and the camera, or look at the layouts found.
        </p>
        <button type="button" className="button" onClick={() => table.edit((p) => api.place(p))}>
          Place everything anew
        </button>
      </div>
      <Add table={table} />
      {KINDS.map(([kind, title]) => {
        const own = gear.filter(([, g]) => g.kind === kind);
        if (own.length === 0) return null;
        return (
          <section key={kind} aria-label={title}>
            <h3 className="subheading">{title}</h3>
            <ul className="grid gap-3 lg:grid-cols-2">
              {own.map(([id, thing]) => (
                <Thing key={id} id={id} thing={thing} plan={plan} table={table} />
              ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}

function Thing({ id, thing, plan, table }: { id: string; thing: Gear; plan: Plan; table: Table }) {
  const used = inUse(plan, id);
  const units = plan.brief.units ?? "metric";
  const known = FIGURES[thing.kind];
  const values = thing as unknown as Record<string, number | null | undefined>;
  const set = (change: Record<string, unknown>) => table.edit((p) => withGear(p, id, change));
  return (
    <li className="sheet p-4">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <p className="mr-auto">
          <strong>{thing.label}</strong>
          <span className="text-faint block text-sm">
            {[told(thing, units), used ? "in the layout" : ""].filter((words) => words !== "").join(", ")}
          </span>
        </p>
        <select
          className="field w-auto"
          aria-label={`State of ${thing.label}`}
          value={thing.state ?? "owned"}
          onChange={(event) => set({ state: event.target.value })}
        >
          {STATES.map(([state, words]) => (
            <option key={state} value={state}>
              {words}
            </option>
          ))}
        </select>
        <button
          type="button"
          className="button"
          disabled={used}
          aria-label={`Take ${thing.label} off the shelf`}
          onClick={() => table.edit((p) => withoutGear(p, id))}
        >
          Take off
        </button>
      </div>
      {known && (
        <details className="mt-2">
          <summary className="text-sm font-semibold">Figures</summary>
          <div className="mt-2 grid gap-3 sm:grid-cols-3">
            {known.figures.map(({ field, type, label, unit, without, digits }) => {
              const within = (limits as Record<string, readonly [number, number]>)[
                `${type ?? known.type}.${field}`
              ];
              if (!within) return null;
              // Catalogues tell light and fans at a metre, whatever people measure in.
              const named = label.replace("1 m", formatLength(1, units, 0));
              const shared = { label: named, unit, within, ...(digits === undefined ? {} : { digits }) };
              const value = values[field];
              return (
                <FigureBox
                  key={field}
                  {...shared}
                  units={units}
                  without={without}
                  value={value ?? (without === undefined ? 0 : null)}
                  onCommit={(v) => set({ [field]: v })}
                />
              );
            })}
            {thing.kind === "light" && (
              <Choice
                label="Before its light source"
                value={thing.modifier ?? ""}
                options={MODIFIERS}
                onChange={(modifier) => set({ modifier: modifier === "" ? null : modifier })}
              />
            )}
          </div>
        </details>
      )}
      <Measured thing={thing} set={set} units={units} />
    </li>
  );
}

/** A lamp without figures, or with figures that nobody trusts: how to measure it with a phone. */
function Measured({
  thing,
  set,
  units,
}: {
  thing: Gear;
  set: (change: Record<string, unknown>) => void;
  units: UnitSystem;
}) {
  // A distance alone is no measurement: it waits here until something is read there.
  const [distance, setDistance] = useState<number | null>(null);
  if (thing.kind !== "light") return null;
  const at = thing.measured_at_m ?? distance;
  return (
    <details className="mt-2">
      <summary className="text-sm font-semibold">Measure it with a lux meter</summary>
      <ol className="mt-2 list-decimal space-y-1 pl-5 text-sm">
        <li>After dark, everything else off; the modifier on, the lamp at full power for two minutes.</li>
        <li>
          Mark a point straight before the middle of its face, {formatLength(1, units, 0)} off or as far as
          you use it.
        </li>
        <li>Hold the meter, or the phone with its meter, there and facing the lamp; stand aside yourself.</li>
        <li>Read three times, take the middle one. A phone is good to about a third of a stop.</li>
      </ol>
      <div className="mt-2 grid gap-3 sm:grid-cols-3">
        <FigureBox
          label="Distance from the face"
          unit="m"
          units={units}
          without="not measured"
          within={limits["GearLight.measured_at_m"]}
          value={at}
          onCommit={(measured_at_m) => {
            setDistance(measured_at_m);
            if (measured_at_m === null) set({ measured_at_m, measured_lx: null });
            else if (thing.measured_lx != null) set({ measured_at_m });
          }}
        />
        <OptionalBox
          label="Read there"
          unit="lx"
          digits={0}
          step={10}
          without="not measured"
          within={limits["GearLight.measured_lx"]}
          value={thing.measured_lx ?? null}
          onCommit={(measured_lx) =>
            set(
              measured_lx === null
                ? { measured_lx, measured_at_m: null }
                : { measured_lx, measured_at_m: at ?? 1 },
            )
          }
        />
      </div>
      <p className="text-faint mt-1 text-sm">Never look into the lamp.</p>
    </details>
  );
}

/** Something more, from the list of usual things. */
function Add({ table }: { table: Table }) {
  const list = useQuery({ queryKey: ["catalogue"], queryFn: api.catalogue, staleTime: Infinity });
  const [kind, setKind] = useState<string>("monitor");
  const [chosen, setChosen] = useState<string | null>(null);
  if (list.isError) return <Trouble error={list.error} onRetry={() => void list.refetch()} />;
  const things = Object.entries(list.data ?? {}).filter(([, g]) => g.kind === kind);
  const [id, thing] = things.find(([one]) => one === chosen) ?? things[0] ?? [null, null];
  const kinds = KINDS.filter(([k]) => Object.values(list.data ?? {}).some((g) => g.kind === k));
  return (
    <section
      className="sheet grid items-end gap-3 p-4 sm:grid-cols-[1fr_2fr_auto]"
      aria-label="Add to the shelf"
    >
      <Choice label="Add a thing of this kind" value={kind} options={kinds} onChange={setKind} />
      <Choice
        label="Which"
        value={id ?? ""}
        options={things.map(([one, g]) => [one, g.label] as const)}
        onChange={setChosen}
      />
      <button
        type="button"
        className="button button-act"
        disabled={!id || !thing}
        onClick={() => {
          if (id && thing)
            table.edit((p) =>
              withGear(p, freeId(p, id), { ...thing, state: "owned", figures_assumed: true }),
            );
        }}
      >
        Put it on the shelf
      </button>
    </section>
  );
}
