// What was measured belongs to one arrangement: every change to a plan goes through here, and what it makes untrue is told.
import type { api, Plan } from "../api/client";

export type Settle = typeof api.measured;

/** Says that measured values no longer hold. */
export const setAside = (dropped: string[]) =>
  dropped.length === 1
    ? "A value that you measured no longer holds: what it belongs to has moved. Measure it again."
    : `${String(dropped.length)} values that you measured no longer hold: what they belong to has moved. Measure them again.`;

/** The measured values that a change took out by itself; what a person takes out is no news to them. */
export function goneWith(before: Plan, after: Plan): string[] {
  const has = after.brief.measured ?? {};
  const gone = Object.keys(before.brief.measured ?? {}).filter((id) => !(id in has));
  const rest = (plan: Plan) => JSON.stringify([{ ...plan.brief, measured: null }, plan.layout]);
  return gone.length > 0 && rest(before) === rest(after) ? [] : gone;
}

/** The plan after a change, without what was measured of how it was before. */
export async function settled(
  before: Plan,
  after: Plan,
  ask: Settle,
): Promise<{ plan: Plan; dropped: string[] }> {
  const gone = goneWith(before, after);
  if (Object.keys(after.brief.measured ?? {}).length === 0) return { plan: after, dropped: gone };
  const { measured, clap, dropped } = await ask(before, after);
  const brief = { ...after.brief, measured, ...(clap && { clap }) };
  return { plan: { ...after, brief }, dropped: [...gone, ...dropped] };
}
