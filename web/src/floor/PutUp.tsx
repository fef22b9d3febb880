// How soon the corner stands: what is done, in which order, what takes longest, what would shorten it; and times of one's own.
import { useQuery } from "@tanstack/react-query";

import type { Plan, Schemas } from "../api/client";
import { floorApi } from "../api/floor";
import { useTable } from "../table/useTable";
import { spent } from "../units/time";
import { Button, ButtonLink } from "../ui/button";
import { Show } from "../ui/dialog";
import { Section, SHEET } from "../ui/Section";
import { Standing } from "../ui/Standing";
import { Trouble, Waiting } from "../ui/states";
import { Away } from "./Away";
import { runOf, withRun } from "./run";
import type { Tick } from "./ticks";
import { usePutUp } from "./usePutUp";

interface Props {
  corner: number;
  plan: Plan;
}

export function PutUp({ corner, plan }: Props) {
  const told = usePutUp(plan);
  if (told.isPending) return <Waiting what="Counting the minutes" />;
  if (told.isError) return <Trouble error={told.error} onRetry={() => void told.refetch()} />;
  const { ready } = told.data;
  const isSoon = ready.time_s <= ready.target_s;
  return (
    <Section
      title="Put up before a take"
      aside={
        <Standing ready={isSoon} words={`${spent(ready.time_s)}, the aim is ${spent(ready.target_s)}`} />
      }
    >
      <p className="mb-2 text-sm">
        From everything put away to the first take, with marks on the floor: they save{" "}
        {spent(ready.marks_gain_s)}. Takes longest: {ready.longest}.
      </p>
      {ready.shorter.length > 0 && (
        <ul className="mt-2 text-sm" aria-label="What would shorten it">
          {ready.shorter.map((one) => (
            <li key={one.what}>
              {one.what}: <strong>{spent(one.seconds)} sooner</strong>.
            </li>
          ))}
        </ul>
      )}
      <div className="mt-3 flex flex-wrap items-center gap-2 text-sm">
        <Show
          title="In this order it stands soonest"
          trigger={<Button size="small">What to do, in order</Button>}
        >
          <Order ready={ready} />
        </Show>
        <Show title="Put away, and plugged in" wide trigger={<Button size="small">Stands and plugs</Button>}>
          <Away corner={corner} told={told.data} />
        </Show>
        <OwnTimes corner={corner} plan={plan} />
      </div>
    </Section>
  );
}

/** Every action with its bar along the time. */
function Order({ ready }: { ready: Schemas["Ready"] }) {
  const part = (seconds: number) => `${String((100 * seconds) / Math.max(ready.time_s, 1))}%`;
  return (
    <ol className={`${SHEET} divide-line divide-y text-sm`} aria-label="In this order">
      {ready.actions.map((action) => (
        <li
          key={action.id}
          className="grid grid-cols-[1fr_auto] items-center gap-x-3 px-3 py-1 sm:grid-cols-[2fr_4rem_2fr]"
        >
          <span className={action.by_hand ? "" : "text-faint"}>
            {action.what}
            {!action.by_hand && ", by itself"}
          </span>
          <span className="text-right">
            {spent(action.seconds)}
            {action.from === "measured" && <span className="text-faint"> (yours)</span>}
          </span>
          <span className="relative col-span-2 h-2 sm:col-span-1" aria-hidden="true">
            <span
              className={`absolute top-0 h-full rounded-sm ${barLook(action)}`}
              style={{ left: part(action.start_s), width: `max(2px, ${part(action.seconds)})` }}
            />
          </span>
        </li>
      ))}
    </ol>
  );
}

function barLook(action: Schemas["PlannedAction"]): string {
  if (!action.by_hand) return "border-faint border";
  return action.is_on_path ? "bg-ink" : "bg-faint";
}

/** The last run by the stop watch, and what counts of it. */
function OwnTimes({ corner, plan }: { corner: number; plan: Plan }) {
  const table = useTable();
  const laying = useQuery({ queryKey: ["laying", corner], queryFn: () => floorApi.laying(corner) });
  const times = plan.brief.habits?.times_s ?? {};
  const ticks = new Map<string, Tick>(laying.data?.ticks.map((tick) => [tick.step, tick]));
  const run = laying.data ? runOf(laying.data.steps, ticks) : null;
  const own = Object.values(times).filter((seconds) => seconds != null).length;
  const set = (times_s: typeof times) =>
    table.act((p) => ({ ...p, brief: { ...p.brief, habits: { ...p.brief.habits, times_s } } }));
  return (
    <>
      <ButtonLink size="small" to={`/corners/${String(corner)}/floor?part=put-up`}>
        Time yourself
      </ButtonLink>
      {run?.isWhole && (
        <>
          <span>
            Last time it took <strong>{spent((run.last_ms - run.begun_ms) / 1000)}</strong>.
          </span>
          <Button size="small" onClick={() => set(withRun(times, run))}>
            Count with these times
          </Button>
        </>
      )}
      {own > 0 && (
        <Button size="small" onClick={() => set({})}>
          Back to usual times
        </Button>
      )}
    </>
  );
}
