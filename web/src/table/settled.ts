// What was measured belongs to one arrangement: every change to a plan goes through here, and what it makes untrue is told.
import type { api, Plan } from "../api/client";

export type Settle = typeof api.measured;

type Brief = Plan["brief"];

const RINGS = "sound.room.rt_mid_s";

/** Something was measured in this corner. */
export const isMeasured = (brief: Brief) =>
  Object.keys(brief.measured ?? {}).length > 0 || brief.clap != null;

/** The brief with what is still known by measuring. */
export function withKnown(
  brief: Brief,
  { measured, clap }: Pick<Awaited<ReturnType<Settle>>, "measured" | "clap">,
): Brief {
  const known: Brief = { ...brief, measured };
  delete known.clap;
  return clap ? { ...known, clap } : known;
}

/** Says that measured values no longer hold. */
export const setAside = (dropped: string[]) =>
  dropped.length === 1
    ? "A value that you measured no longer holds: what it belongs to has moved. Measure it again."
    : `${String(dropped.length)} values that you measured no longer hold: what they belong to has moved. Measure them again.`;

/** The measured values that a change took out by itself; what a person takes out is no news to them. */
export function goneWith(before: Plan, after: Plan): string[] {
  const has = after.brief.measured ?? {};
  // How the room rang is still known where other things hang now.
  const isKnown = (id: string) => id in has || (id === RINGS && after.brief.clap != null);
  const gone = Object.keys(before.brief.measured ?? {}).filter((id) => !isKnown(id));
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
  if (!isMeasured(after.brief)) return { plan: after, dropped: gone };
  const known = await ask(before, after);
  return { plan: { ...after, brief: withKnown(after.brief, known) }, dropped: [...gone, ...known.dropped] };
}
