// What lies on the table, and how it changes: pure, without React, network or clock. The plan on the table has a version;
// a version never stands for two plans, so that what was worked out for one can be looked up by it.
import { replaceEqualDeep } from "@tanstack/query-core";

import type { Corner, Judged, Move, Plan } from "../api/client";
import { planOf } from "../api/client";

export interface Note {
  kind: "snap" | "held" | "said";
  words: string;
  /** The move that puts it there whatever the rules say. */
  anyway?: { by: Move; from: Plan } | undefined;
}

/** Boxes of the drawings, which stay while something is held. */
export interface Boxes {
  plan: number[];
  side: number[];
}

interface Versioned {
  plan: Plan | null;
  version: number;
}

export interface State extends Versioned {
  /** The corner as the server last acknowledged it. */
  kept: Corner;
  /** The version that is saved. */
  savedVersion: number;
  /** While a hand drags: what would come of letting go, judged. It is not on the table yet. */
  live: { plan: Plan; judged: Judged } | null;
  /** While something is only tried out: what lay there before. Nothing is saved until it is kept. */
  trial: Versioned | null;
  notes: Note[];
  /** A hand holds something. */
  holding: boolean;
  /** The drawings' boxes when it took hold on one of them. */
  boxes: Boxes | null;
  /** The next version's number. */
  next: number;
}

export type Event =
  /** A change is done. */
  | { type: "changed"; plan: Plan; notes?: Note[] }
  /** A hand takes hold of something. */
  | { type: "held"; boxes: Boxes | null }
  /** It moves. */
  | { type: "moving"; plan: Plan; judged: Judged; notes: Note[] }
  /** It lets go: what came of it follows as a change, or nothing does. */
  | { type: "let-go" }
  /** A version is on the disk. */
  | { type: "acknowledged"; version: number; corner: Corner }
  /** Another plan is kept: undone, redone, taken from elsewhere. */
  | { type: "opened"; corner: Corner; notes?: Note[] }
  | { type: "trial-begun" }
  | { type: "trial-kept" }
  | { type: "trial-dropped" }
  | { type: "noted"; notes: Note[] };

export function begin(corner: Corner): State {
  return {
    kept: corner,
    plan: planOf(corner),
    version: 1,
    savedVersion: 1,
    live: null,
    trial: null,
    notes: [],
    holding: false,
    boxes: null,
    next: 2,
  };
}

/** Whether the plan on the table still has to be saved. */
export const isUnsaved = (state: State): boolean =>
  state.plan !== null && state.trial === null && state.version !== state.savedVersion;

/** What is seen: what a hand moves, else what lies there. */
export const seenPlan = (state: State): Plan | null => state.live?.plan ?? state.plan;

export function reduce(state: State, event: Event): State {
  switch (event.type) {
    case "changed": {
      const notes = event.notes ?? [];
      const after = { ...state, notes, live: null };
      const plan = replaceEqualDeep(state.plan, event.plan);
      // A change that changes nothing is none: it is not saved and takes no step of undo.
      return plan === state.plan ? after : { ...after, plan, version: state.next, next: state.next + 1 };
    }
    case "held":
      return { ...state, holding: true, boxes: event.boxes };
    case "moving":
      // An answer that comes after it has let go says nothing any more.
      if (!state.holding) return state;
      return { ...state, live: { plan: event.plan, judged: event.judged }, notes: event.notes };
    case "let-go":
      return { ...state, live: null, holding: false, boxes: null };
    case "acknowledged":
      return { ...state, kept: event.corner, savedVersion: event.version };
    case "opened":
      return {
        ...state,
        kept: event.corner,
        plan: replaceEqualDeep(state.plan, planOf(event.corner)),
        version: state.next,
        savedVersion: state.next,
        next: state.next + 1,
        live: null,
        holding: false,
        boxes: null,
        trial: null,
        notes: event.notes ?? [],
      };
    case "trial-begun":
      return state.trial ? state : { ...state, trial: { plan: state.plan, version: state.version } };
    case "trial-kept":
      return { ...state, trial: null };
    case "trial-dropped":
      return state.trial ? { ...state, ...state.trial, trial: null, live: null, notes: [] } : state;
    case "noted":
      return { ...state, notes: event.notes };
  }
}
