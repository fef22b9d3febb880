// What the stop watch took: a run through the actions that put a corner up, by the times at which they were ticked.
import type { Schemas } from "../api/client";
import type { Step, Tick } from "./ticks";

export type Times = NonNullable<NonNullable<Schemas["Habits"]["times_s"]>>;
type Kind = NonNullable<Step["timed"]>;

/** The name under which a run is begun. */
export const BEGUN = "put-up.begun";

export interface Run {
  /** When it was begun, ms. */
  begun_ms: number;
  /** When the last action was ticked, ms. */
  last_ms: number;
  /** Everything is ticked. */
  isWhole: boolean;
  /** How long each took, s, in the order in which they were ticked. */
  took: { step: Step; seconds: number }[];
}

/** The run that is on or was the last; null where none was begun. */
export function runOf(steps: readonly Step[], ticks: Map<string, Tick>): Run | null {
  const begun = ticks.get(BEGUN);
  if (!begun?.done) return null;
  const timed = steps.filter((step) => step.timed);
  const ticked = timed
    .flatMap((step) => {
      const tick = ticks.get(step.id);
      return tick?.done && tick.at_ms >= begun.at_ms ? [{ step, at_ms: tick.at_ms }] : [];
    })
    .sort((a, b) => a.at_ms - b.at_ms);
  const took = ticked.map(({ step, at_ms }, index) => ({
    step,
    seconds: (at_ms - (ticked[index - 1]?.at_ms ?? begun.at_ms)) / 1000,
  }));
  return {
    begun_ms: begun.at_ms,
    last_ms: ticked.at(-1)?.at_ms ?? begun.at_ms,
    isWhole: timed.length > 0 && ticked.length === timed.length,
    took,
  };
}

/** Times with those of a run: of each kind its mean, and where there is one already the mean of both. */
export function withRun(times: Times, run: Run): Times {
  const kinds = new Map<Kind, number[]>();
  for (const { step, seconds } of run.took)
    if (step.timed) kinds.set(step.timed, [...(kinds.get(step.timed) ?? []), seconds]);
  const mean = (of: number[]) => of.reduce((sum, one) => sum + one, 0) / of.length;
  const own = [...kinds].map(([kind, of]) => {
    const before = times[kind];
    const now = before == null ? mean(of) : (before + mean(of)) / 2;
    return [kind, Math.min(Math.max(Math.round(now * 10) / 10, 0.5), 3600)];
  });
  return { ...times, ...(Object.fromEntries(own) as Times) };
}
