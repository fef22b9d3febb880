// What was measured belongs to one arrangement: every change to a plan goes through here, and what it makes untrue is told.
import { api, type Plan } from "../api/client";

/** Says that measured values no longer hold. */
export const setAside = (dropped: string[]) =>
  `Measured with things elsewhere, so set aside: ${dropped.length === 1 ? "one reading" : `${dropped.length} readings`}. Measure again.`;

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
  ask: typeof api.measured = api.measured,
): Promise<{ plan: Plan; dropped: string[] }> {
  const gone = goneWith(before, after);
  if (Object.keys(after.brief.measured ?? {}).length === 0) return { plan: after, dropped: gone };
  const { measured, dropped } = await ask(before, after);
  return { plan: { ...after, brief: { ...after.brief, measured } }, dropped: [...gone, ...dropped] };
}
