// Changes to the shots that are wanted: pure.
import type { Plan, Schemas } from "../api/client";
import { withRun } from "../table/edits";
import type { Run } from "./log";

export type Shot = Schemas["WantedShot"];
type Shots = Record<string, Shot>;

export const KINDS: readonly (readonly [Shot["kind"], string])[] = [
  ["take", "Take"],
  ["insert", "Insert"],
  ["slow-insert", "Slow insert"],
  ["slate", "Slate"],
  ["test", "Test"],
  ["empty", "Without anybody"],
];

export const SIZES: readonly (readonly [Shot["size"], string])[] = [
  ["wide", "Wide"],
  ["medium", "Medium"],
  ["close", "Close"],
];

/** Most shots that there may be. */
export const MOST_SHOTS = 80;

/** The shots as they are told, whether the person wrote them or not. */
const own = (run: Run): Shots => Object.fromEntries(run.shots.map(({ id, shot }) => [id, shot]));

/** Shots in an order, their places counted anew. */
function placed(shots: Shots, order: readonly string[]): Shots {
  return Object.fromEntries(
    order.flatMap((id, place) => {
      const shot = shots[id];
      return shot ? [[id, { ...shot, place }]] : [];
    }),
  );
}

const ids = (run: Run) => run.shots.map(({ id }) => id);

export const withShot = (plan: Plan, run: Run, id: string, shot: Shot): Plan => {
  const order = ids(run).includes(id) ? ids(run) : [...ids(run), id];
  return withRun(plan, { shots: placed({ ...own(run), [id]: shot }, order) });
};

export const withoutShot = (plan: Plan, run: Run, id: string): Plan => {
  const order = ids(run).filter((other) => other !== id);
  return withRun(plan, { shots: order.length === 0 ? null : placed(own(run), order) });
};

/** One place up or down in the order typed. */
export function moved(plan: Plan, run: Run, id: string, by: -1 | 1): Plan {
  const order = ids(run);
  const at = order.indexOf(id);
  const to = at + by;
  const other = order[to];
  if (at < 0 || other === undefined) return plan;
  order[to] = id;
  order[at] = other;
  return withRun(plan, { shots: placed(own(run), order) });
}

export const inOrder = (plan: Plan, run: Run, order: readonly string[]): Plan =>
  withRun(plan, { shots: placed(own(run), order) });

/** Back to the shots of purpose and angles. */
export const asPurpose = (plan: Plan): Plan => withRun(plan, { shots: null });

/** An id that no shot has yet. */
export function newId(run: Run): string {
  const taken = new Set(ids(run));
  for (let number = taken.size + 1; ; number += 1) {
    const id = `shot-${String(number)}`;
    if (!taken.has(id)) return id;
  }
}

/** A new shot of an action in a size. */
export const newShot = (action: string, size: Shot["size"]): Shot => ({
  place: 0,
  what: action === "" ? "New shot" : `${action.charAt(0).toUpperCase()}${action.slice(1)}, ${size}`,
  kind: size === "close" ? "insert" : "take",
  size,
  action,
  seconds: size === "close" ? 10 : 60,
  takes: 2,
});
