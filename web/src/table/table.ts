// The table: one corner's plan, changed by commands that run in order, saved by itself. Without React; what it needs of the
// outside is handed to it.
import type { Corner, Handle, Judged, Move, Moved, Plan } from "../api/client";
import { planOf } from "../api/client";
import { placeOf, sum, type Grip, type Vector } from "./handles";
import { Line, type Task } from "./line";
import type { Box } from "./outbox";
import { Saver, type Saving } from "./saver";
import { isMeasured, setAside, settled, type Settle } from "./settled";
import { Waiting } from "./waiting";
import { begin, isUnsaved, reduce, type Boxes, type Event, type Note, type State } from "./state";

export interface Outside {
  save: (revision: number, file: Plan, key: string) => Promise<Corner>;
  corner: () => Promise<Corner>;
  step: (which: "undo" | "redo", revision: number) => Promise<Corner>;
  /** One move by hand, judged; `live` while the hand still drags. */
  move: (plan: Plan, by: Move, live: boolean) => Promise<Moved>;
  /** The judgement of the plan that has a version, as the page shows it. */
  judge: (plan: Plan, version: number) => Promise<Judged>;
  /** A judgement that came with a move. */
  judged: (version: number, judged: Judged) => void;
  /** Which measured values still hold after a change. */
  settle: Settle;
  /** The server has acknowledged or handed out another revision. */
  kept: (corner: Corner) => void;
  box: Box;
  key: () => string;
  later: (ms: number, task: () => void) => () => void;
  /** Whether what was typed waits for the server and would be lost with the page. */
  waits: (are: boolean) => void;
}

/** A move as the thing stands when its turn comes. */
export type MoveFrom = (handle: Handle) => Omit<Move, "thing">;

type Change = (plan: Plan) => Plan | Promise<Plan>;

export interface View extends State {
  saving: Saving;
  /** What went wrong last, until it is put away. */
  trouble: unknown;
  /** Figures typed that wait for the server. */
  waiting: number;
}

/** Of two that wait, the one that came later. */
const newest = <T>(_: T, later: T): T => later;

const said = (words: string): Note[] => [{ kind: "said", words }];

export class Table {
  readonly #outside: Outside;
  readonly #line = new Line();
  readonly #saver: Saver;
  readonly #listeners = new Set<() => void>();
  /** What another window saved while something was tried out here. */
  #elsewhere: Corner | null = null;
  readonly #waiting: Waiting;
  #closed = false;
  #edits = 0;
  #view: View;

  constructor(corner: Corner, outside: Outside) {
    this.#outside = outside;
    this.#view = { ...begin(corner), saving: { kind: "saved" }, trouble: null, waiting: 0 };
    this.#waiting = new Waiting(outside.later, (waiting) => {
      this.#show({ ...this.#view, waiting });
      outside.waits(waiting > 0);
      if (waiting === 0 && this.#closed) this.#saver.close();
    });
    this.#saver = new Saver(corner.revision, {
      save: outside.save,
      corner: outside.corner,
      box: outside.box,
      key: outside.key,
      later: outside.later,
      onState: (saving) => this.#show({ ...this.#view, saving }),
      onAcknowledged: (version, kept) => {
        this.#dispatch({ type: "acknowledged", version, corner: kept });
        outside.kept(kept);
      },
    });
  }

  /** The same object for as long as nothing has changed. */
  readonly view = (): View => this.#view;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  #show(view: View): void {
    this.#view = view;
    for (const listener of this.#listeners) listener();
  }

  #dispatch(event: Event): void {
    const before = this.#view;
    const state = reduce(before, event);
    if (state === before) return;
    this.#show({ ...before, ...state });
    if (state.plan === null || state.version === before.version) return;
    if (isUnsaved(state)) this.#saver.put(state.plan, state.version);
    else if (state.trial) this.#saver.tryOut(state.plan);
  }

  /** Runs a command in its turn; what goes wrong stays in sight, and whoever gave the command hears of it. */
  async #run<T>(task: Task<T>): Promise<void> {
    try {
      await this.#line.add(task);
    } catch (trouble) {
      this.#show({ ...this.#view, trouble });
      throw trouble;
    }
  }

  /** A change that no rule resists: settings, answers, locks, applied fixes. It is made of the plan as it is in its turn. */
  readonly edit = (change: Change): Promise<void> => this.#edit(change, true);

  /** The same, where nobody waits for how it goes: what goes wrong stays in sight. */
  readonly act = (change: Change): void => {
    this.#edit(change, false).catch(() => undefined);
  };

  #edit(change: Change, typed: boolean): Promise<void> {
    // Most changes need nobody's answer: nothing that was typed waits.
    let given = change;
    let again = typed;
    if (this.#line.isFree && this.#view.plan && !isMeasured(this.#view.plan.brief)) {
      const next = change(this.#view.plan);
      if (!(next instanceof Promise)) {
        this.#dispatch({ type: "changed", plan: next });
        return Promise.resolve();
      }
      given = () => next;
      again = false;
    }
    const run = async () => {
      const before = this.#view.plan;
      if (!before) return;
      const { plan, dropped } = await settled(before, await given(before), this.#outside.settle);
      this.#dispatch({ type: "changed", plan, notes: dropped.length > 0 ? said(setAside(dropped)) : [] });
    };
    const command = () => this.#run({ what: null, run });
    return again ? this.#waiting.untilReached(`edit ${(this.#edits += 1)}`, command) : command();
  }

  /** One figure of a thing, set from where the thing stands when its turn comes; of figures that wait, the newest is set. */
  readonly move = (thing: string, figure: string, by: MoveFrom): Promise<void> => {
    const run = async (to: MoveFrom) => {
      const handle = await this.#handle(thing);
      const { plan } = this.#view;
      if (handle && plan) await this.#carry({ thing, ...to(handle) }, plan);
    };
    const name = `${thing} ${figure}`;
    return this.#waiting.untilReached(name, () =>
      this.#run({ what: by, run, joins: { name, join: newest } }),
    );
  };

  /** A small step of a thing from where it is; steps that come faster than answers add up. */
  readonly nudge = (thing: string, grip: Grip, by: Vector): Promise<void> => {
    const run = async (step: Vector) => {
      const handle = await this.#handle(thing);
      const { plan } = this.#view;
      if (handle && plan)
        await this.#carry({ thing, grip, to_m: sum(placeOf(handle, grip), step), snap: false }, plan);
    };
    return this.#run({ what: by, run, joins: { name: `${thing} ${grip} by`, join: sum } });
  };

  /** A move as it is told, from a plan: `from` where a hand took hold, else what lies there. */
  readonly put = (by: Move, from?: Plan): Promise<void> => {
    const run = async (to: Move) => {
      const base = from ?? this.#view.plan;
      if (base) await this.#carry(to, base);
    };
    return this.#run({ what: by, run, joins: { name: `${by.thing} ${by.grip ?? ""} to`, join: newest } });
  };

  /** A hand takes hold; on a drawing its boxes stay. */
  readonly hold = (boxes: Boxes | null): void => this.#dispatch({ type: "held", boxes });

  /** A hand moves what it took hold of: only asks what would come of it. */
  readonly drag = (by: Move, from: Plan): Promise<void> =>
    this.#run({
      what: by,
      asks: true,
      run: async () => {
        const { plan, judged, snaps, held } = await this.#outside.move(from, by, true);
        this.#dispatch({ type: "moving", plan, judged, notes: notesOf(snaps, held ?? null, [], null) });
      },
    }).catch(() => undefined);

  /** It lets go there. */
  readonly drop = async (by: Move, from: Plan): Promise<void> => {
    try {
      await this.put(by, from);
    } catch {
      // It stays in sight as trouble; the thing stands where it was.
    } finally {
      this.#dispatch({ type: "let-go" });
    }
  };

  /** It is broken off. */
  readonly letGo = (): void => this.#dispatch({ type: "let-go" });

  /** Where a thing is by the newest judgement of the plan on the table. */
  async #handle(thing: string): Promise<Handle | undefined> {
    const { plan, version } = this.#view;
    if (!plan) return undefined;
    const judged = await this.#outside.judge(plan, version);
    return judged.handles.find((handle) => handle.id === thing);
  }

  async #carry(by: Move, base: Plan): Promise<void> {
    const answer = await this.#outside.move(base, by, false);
    const notes = notesOf(answer.snaps, answer.held ?? null, answer.dropped, { by, from: base });
    // Under its version before anybody looks for it.
    const next = reduce(this.#view, { type: "changed", plan: answer.plan, notes });
    this.#outside.judged(next.version, answer.judged);
    this.#dispatch({ type: "changed", plan: answer.plan, notes });
    this.#clear();
  }

  /** One step back or forth, after what is under way has come and been saved. */
  readonly step = (which: "undo" | "redo"): Promise<void> =>
    this.#run({
      what: which,
      run: async () => {
        // What is only tried out has no steps.
        if (this.#view.trial) return;
        // A change that was refused is undone without asking again.
        const wasRefused = this.#view.saving.kind === "refused";
        const kind = wasRefused ? "refused" : (await this.#saver.flush()).kind;
        if (kind === "refused" && which === "undo") {
          this.#open(this.#view.kept, said("The change that could not be saved is undone."));
        } else if (kind === "saved") {
          this.#open(await this.#outside.step(which, this.#view.kept.revision));
        }
      },
    });

  #open(corner: Corner, notes: Note[] = []): void {
    this.#saver.reset(corner.revision);
    this.#dispatch({ type: "opened", corner, notes });
    this.#outside.kept(corner);
    this.#clear();
  }

  #clear(): void {
    if (this.#view.trouble !== null) this.#show({ ...this.#view, trouble: null });
  }

  /** Another window saved: shown, unless something here is not saved yet or is tried out. */
  readonly seen = (corner: Corner): void => {
    const { kept, trial } = this.#view;
    if (corner.revision <= kept.revision) return;
    // What is tried out goes on; when it ends, what was saved meanwhile is shown.
    if (trial !== null) this.#elsewhere = corner;
    else if (this.#saver.unsaved === null && !isUnsaved(this.#view)) this.#open(corner);
  };

  /** In a conflict, or where a kept plan is taken: what is kept replaces what lies here. */
  readonly takeKept = (corner: Corner): void => this.#open(corner);

  readonly keepMine = (): Promise<void> => this.#saver.keepMine();

  /** Saves at once; whether everything is saved. */
  readonly flush = async (): Promise<boolean> => (await this.#saver.flush()).kind === "saved";

  /** From now on nothing is saved, until the trial ends. */
  readonly beginTrial = (): Promise<void> =>
    this.#run({
      what: null,
      run: async () => {
        await this.#saver.flush();
        this.#dispatch({ type: "trial-begun" });
      },
    });

  readonly endTrial = (keep: boolean): Promise<void> =>
    this.#run({
      what: keep,
      run: () => {
        this.#dispatch({ type: keep ? "trial-kept" : "trial-dropped" });
        const elsewhere = this.#elsewhere;
        this.#elsewhere = null;
        if (!keep && elsewhere) {
          this.#open(elsewhere);
          return Promise.resolve();
        }
        const { plan, version } = this.#view;
        if (plan && isUnsaved(this.#view)) this.#saver.put(plan, version);
        else this.#saver.reset(this.#view.kept.revision);
        return Promise.resolve();
      },
    });

  readonly note = (notes: Note[]): void => this.#dispatch({ type: "noted", notes });

  readonly putTroubleAway = (): void => this.#clear();

  /** The corner's plan as the server last acknowledged it. */
  keptPlan(): Plan | null {
    return planOf(this.#view.kept);
  }

  /** The page goes elsewhere; what waits for the server is still done and saved. */
  close(): void {
    this.#closed = true;
    if (this.#waiting.isEmpty) this.#saver.close();
  }
}

function notesOf(
  snaps: string[],
  held: { sentence: string } | null,
  dropped: string[],
  from: { by: Move; from: Plan } | null,
): Note[] {
  const notes: Note[] = snaps.map((words) => ({ kind: "snap", words }));
  const anyway = from ? { by: { ...from.by, anyway: true }, from: from.from } : undefined;
  if (held) notes.push({ kind: "held", words: held.sentence, anyway });
  if (dropped.length > 0) notes.push(...said(setAside(dropped)));
  return notes;
}
