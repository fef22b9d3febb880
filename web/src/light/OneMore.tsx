// One more light out of what is on the shelf, put to a job where it breaks no rule.
import { useState } from "react";
import { Link } from "react-router";

import { api, type Plan, type Schemas } from "../api/client";
import { useTable } from "../table/useTable";
import { Button } from "../ui/button";
import { Choice } from "../ui/fields";
import { Section } from "../ui/Section";
import { Trouble } from "../ui/states";

type Job = Schemas["LampJob"];

const JOBS: readonly (readonly [Job, string])[] = [
  ["key", "key"],
  ["fill", "fill"],
  ["back", "back light"],
  ["background", "background light"],
  ["practical", "practical lamp in the picture"],
  ["ceiling", "ceiling light of the house"],
];

/** Lights and boards at hand that the layout does not use yet, by id. */
function unused(plan: Plan): [string, string][] {
  const used = Object.values(plan.layout.lights ?? {}).map((light) => light.gear);
  const hand = ["owned", "borrowed"];
  return Object.entries(plan.brief.gear ?? {}).flatMap(([id, gear]) =>
    (gear.kind === "light" || (gear.kind === "reflector" && gear.transmittance == null)) &&
    hand.includes(gear.state ?? "owned") &&
    !used.includes(id)
      ? [[id, gear.label]]
      : [],
  );
}

export function OneMore({ id, plan }: { id: number; plan: Plan }) {
  const table = useTable();
  const [gear, setGear] = useState<string | null>(null);
  const [job, setJob] = useState<Job>("background");
  const [trouble, setTrouble] = useState<unknown>(null);
  const things = unused(plan);
  const chosen = things.find(([one]) => one === gear)?.[0] ?? things[0]?.[0];
  // A board gives only what it gets: it fills.
  const board = chosen !== undefined && plan.brief.gear?.[chosen]?.kind === "reflector";
  const jobs = JOBS.filter(([one]) => !board || one === "fill");
  const as = board ? "fill" : job;
  const add = async (thing: string) => {
    setTrouble(null);
    try {
      await table.edit((p) => api.light(p, thing, as));
    } catch (error) {
      table.putTroubleAway();
      setTrouble(error);
    }
  };
  return (
    <Section title="Add a light">
      {trouble !== null && <Trouble error={trouble} onRetry={() => setTrouble(null)} retryWords="Close" />}
      {chosen === undefined ? (
        <p className="text-sm">
          Every light at hand is in use.{" "}
          <Link className="underline" to={`/corners/${String(id)}/shelf`}>
            Put another on the shelf
          </Link>
          .
        </p>
      ) : (
        <div className="grid items-end gap-3 sm:grid-cols-[2fr_2fr_auto]">
          <Choice label="From the shelf" value={chosen} options={things} onPick={setGear} />
          <Choice label="As" value={as} options={jobs} onPick={(to) => setJob(to as Job)} />
          <Button onClick={() => void add(chosen)}>Add it</Button>
        </div>
      )}
    </Section>
  );
}
