// What is at hand, by kind, with the figures that matter; more is added from the list of usual things.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api } from "../api/client";
import { freeId } from "../units/ids";
import type { UnitSystem } from "../units/length";
import { Button } from "../ui/button";
import { Choice } from "../ui/fields";
import { SHEET } from "../ui/Section";
import { Trouble } from "../ui/states";
import { KINDS } from "./figures";
import { withGear, type OnChange, type Shelf } from "./gear";
import { GearThing } from "./GearThing";

interface Props {
  gear: Shelf;
  units: UnitSystem;
  inUse: (id: string) => boolean;
  onChange: OnChange;
}

export function GearEditor({ gear, units, inUse, onChange }: Props) {
  const things = Object.entries(gear);
  return (
    <div className="grid gap-4">
      <Add onChange={onChange} />
      {things.length === 0 && <p className="text-faint">Nothing is on the shelf yet.</p>}
      {KINDS.map(([kind, title]) => {
        const own = things.filter(([, thing]) => thing.kind === kind);
        if (own.length === 0) return null;
        return (
          <section key={kind} aria-label={title}>
            <h3 className="mb-2 text-base font-bold">{title}</h3>
            <ul className="grid gap-3 lg:grid-cols-2">
              {own.map(([id, thing]) => (
                <GearThing
                  key={id}
                  id={id}
                  thing={thing}
                  used={inUse(id)}
                  units={units}
                  onChange={onChange}
                />
              ))}
            </ul>
          </section>
        );
      })}
    </div>
  );
}

/** Something more, from the list of usual things. */
function Add({ onChange }: { onChange: OnChange }) {
  const list = useQuery({ queryKey: ["catalogue"], queryFn: api.catalogue, staleTime: Infinity });
  const [kind, setKind] = useState<string>("light");
  const [chosen, setChosen] = useState<string | null>(null);
  if (list.isError) return <Trouble error={list.error} onRetry={() => void list.refetch()} />;
  const gear = Object.entries(list.data ?? {}).map(([one, offer]) => [one, offer.gear] as const);
  const things = gear.filter(([, g]) => g.kind === kind);
  const [id, thing] = things.find(([one]) => one === chosen) ?? things[0] ?? [null, null];
  const kinds = KINDS.filter(([k]) => gear.some(([, g]) => g.kind === k));
  const add = () => {
    if (!id || !thing) return;
    onChange((shelf) =>
      withGear(shelf, freeId(id, Object.keys(shelf)), { ...thing, state: "owned", figures_assumed: true }),
    );
  };
  return (
    <section
      className={`${SHEET} grid items-end gap-3 p-4 sm:grid-cols-[1fr_2fr_auto]`}
      aria-label="Add to the shelf"
    >
      <Choice label="Add a thing of this kind" value={kind} options={kinds} onPick={setKind} />
      <Choice
        label="Which"
        value={id ?? ""}
        options={things.map(([one, g]) => [one, g.label] as const)}
        onPick={setChosen}
      />
      <Button look="act" disabled={!id || !thing} onClick={add}>
        Add it
      </Button>
    </section>
  );
}
