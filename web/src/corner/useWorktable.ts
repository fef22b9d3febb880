// The corner on the table: the plan as it is now, judged as it changes, kept by itself, one step back and forth.
// One question to the server is under way at a time, in order; of those that only ask, the newest wins.
import { replaceEqualDeep, useQueryClient } from "@tanstack/react-query";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { flushSync } from "react-dom";

import {
  api,
  planOf,
  type Corner,
  type Drawn,
  type Handle,
  type Judged,
  type Move,
  type Moved,
  type Plan,
} from "../api/client";
import { LiveHand } from "../api/live";
import { leaveWith } from "./leaving";
import { setAside, settled } from "./settled";

/** Changes that follow each other faster than this become one step of undo, ms. */
const PAUSE_MS = 500;

export interface Note {
  kind: "snap" | "held" | "dropped";
  words: string;
  /** The move that puts it there whatever the rules say. */
  anyway?: { by: Move; from: Plan } | undefined;
}

export type Keeping = "kept" | "waiting" | "keeping" | "trouble";

/** Boxes of the drawings, kept while something is held. */
export interface Boxes {
  plan: number[];
  side: number[];
}

export type Vector = [number, number, number];
type Grip = NonNullable<Move["grip"]>;
type Question = () => Promise<void>;

export const sum = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];

/** The point of a thing that a grip holds. */
export function placeOf(handle: Handle, grip: Grip): Vector {
  const [x = 0, y = 0, z = 0] = handle.position_m;
  if (grip === "zoom" && handle.edge_m) return handle.edge_m as Vector;
  if (grip === "aim" && handle.aim_m) return handle.aim_m as Vector;
  if (grip === "foot" && handle.foot_m) return [handle.foot_m[0] ?? x, handle.foot_m[1] ?? y, 0];
  return [x, y, z];
}

interface Waiting {
  question: Question;
  /** Asks only how things stand: whatever comes after it makes it idle. */
  idle: boolean;
}

/** Runs one question at a time, in order. A change is never dropped; of those that only ask, the newest wins. What goes
 * wrong is told to `fail`, and the next has its turn. */
function useLine(fail: (error: unknown) => void) {
  const line = useRef<Waiting[]>([]);
  const running = useRef(false);
  return useCallback(
    async (question: Question, idle = false) => {
      line.current = [...line.current.filter((waiting) => !waiting.idle), { question, idle }];
      if (running.current) return;
      running.current = true;
      for (let next = line.current.shift(); next; next = line.current.shift()) {
        try {
          await next.question();
        } catch (error) {
          fail(error);
        }
      }
      running.current = false;
    },
    [fail],
  );
}

/** What there is to say of a move. */
function notesOf({ snaps, held, dropped }: Moved, anyway: Note["anyway"] | null): Note[] {
  const notes: Note[] = snaps.map((words) => ({ kind: "snap", words }));
  if (held) notes.push({ kind: "held", words: held.sentence, anyway: anyway ?? undefined });
  if (dropped.length > 0) notes.push({ kind: "dropped", words: setAside(dropped) });
  return notes;
}

/** How large words must be on the drawings that are shown now; before there are any, a guess. */
export type ScalesFor = (judged: Judged | null) => { text: number; frame: number };

export function useWorktable(
  corner: Corner,
  scalesFor: ScalesFor,
  wanted: "chart" | "light" | "sound" | null,
) {
  const queries = useQueryClient();
  const [plan, setPlan] = useState<Plan | null>(() => planOf(corner));
  const [judged, setJudged] = useState<Judged | null>(null);
  const [notes, setNotes] = useState<Note[]>([]);
  const [keeping, setKeeping] = useState<Keeping>("kept");
  const [trouble, setTrouble] = useState<unknown>(null);
  const [dragging, setDragging] = useState<Boxes | null>(null);
  const kept = useRef(corner);
  const unsaved = useRef<unknown>(null);
  const underWay = useRef<unknown>(null);
  /** The last save was refused or did not arrive: its trouble stays in sight. */
  const unkept = useRef(false);
  const timer = useRef<number | undefined>(undefined);
  const saving = useRef<Promise<void>>(Promise.resolve());
  const turns = useRef<number | undefined>(undefined);
  /** The plan before a trial began; while there is one, nothing is kept. */
  const before = useRef<Plan | null>(null);
  const [trying, setTrying] = useState(false);
  const latest = useRef(plan);
  const judgedNow = useRef<Judged | null>(null);
  const steps = useRef<{ thing: string; grip: Grip; by: Vector } | null>(null);
  const ask = useLine(setTrouble);
  const [hand] = useState(() => new LiveHand());
  useEffect(() => {
    hand.open();
    return () => hand.close();
  }, [hand]);

  const show = useCallback((next: Plan | null) => {
    const shared = replaceEqualDeep<Plan | null>(latest.current, next);
    latest.current = shared;
    setPlan(shared);
  }, []);

  const told = useCallback((answer: Judged) => {
    // What has not changed stays the same object, so that only what has changed is drawn again.
    const shared = replaceEqualDeep<Judged>(judgedNow.current, answer);
    judgedNow.current = shared;
    setJudged(shared);
  }, []);

  const drawn = useCallback(
    (live: boolean): Drawn => {
      const { text, frame } = scalesFor(judgedNow.current);
      return {
        text_scale: text,
        frame_text_scale: frame,
        ...(wanted ? { [wanted]: true } : {}),
        ...(live ? { fixes: false } : {}),
        ...(live && turns.current !== undefined ? { quarter_turns: turns.current } : {}),
      };
    },
    [wanted, scalesFor],
  );

  /** Judges the plan as it is when its turn comes. */
  const judge = useCallback(
    () =>
      ask(async () => {
        const asked = latest.current;
        if (!asked) return;
        const first = drawn(false);
        let answer = await api.assess(asked, first);
        // Only the drawing tells its scale: where the guess was off, the words are set once more.
        if (Math.abs(scalesFor(answer).text - first.text_scale) > 0.08) {
          judgedNow.current = answer;
          answer = await api.assess(asked, drawn(false));
        }
        turns.current = answer.drawing.quarter_turns;
        told(answer);
        if (!unkept.current) setTrouble(null);
      }, true),
    [ask, drawn, scalesFor, told],
  );

  useEffect(() => {
    void judge();
  }, [judge]);

  const took = useCallback(
    (answer: Corner) => {
      kept.current = answer;
      queries.setQueryData(["corner", corner.id], answer);
      void queries.invalidateQueries({ queryKey: ["corners"] });
    },
    [corner.id, queries],
  );

  /** Saves what waits to be saved, after what is being saved already. */
  const flush = useCallback(() => {
    window.clearTimeout(timer.current);
    saving.current = saving.current.then(async () => {
      const file = unsaved.current;
      if (file === null) return;
      unsaved.current = null;
      underWay.current = file;
      setKeeping("keeping");
      try {
        took(await api.save(corner.id, kept.current.revision, file));
        setKeeping(unsaved.current === null ? "kept" : "waiting");
        unkept.current = false;
        setTrouble(null);
      } catch (error) {
        unsaved.current ??= file;
        unkept.current = true;
        setKeeping("trouble");
        setTrouble(error);
      }
      underWay.current = null;
    });
    return saving.current;
  }, [corner.id, took]);

  const keepLater = useCallback(
    (file: unknown) => {
      if (before.current) return;
      unsaved.current = file;
      setKeeping("waiting");
      window.clearTimeout(timer.current);
      timer.current = window.setTimeout(() => void flush(), PAUSE_MS);
    },
    [flush],
  );

  // Leaving the page saves what still waits.
  useEffect(() => {
    const leave = () => {
      // What is being saved may be broken off as well.
      const file = unsaved.current ?? underWay.current;
      if (file === null) return;
      leaveWith(corner.id, kept.current.revision, file);
      unsaved.current = null;
    };
    window.addEventListener("pagehide", leave);
    return () => {
      window.removeEventListener("pagehide", leave);
      void flush();
    };
  }, [corner.id, flush]);

  // What another window saved is shown, unless something here waits to be saved.
  useEffect(() => {
    if (corner.revision > kept.current.revision && unsaved.current === null && before.current === null) {
      kept.current = corner;
      show(planOf(corner));
      setNotes([]);
      void judge();
    }
  }, [corner, judge, show]);

  /** A change that no rule resists: settings, answers, locks, applied fixes. */
  const edit = useCallback(
    (change: (plan: Plan) => Plan | Promise<Plan>) => {
      // In its turn: after a move that is under way, on what came of it.
      void ask(async () => {
        if (!latest.current) return;
        const { plan: next, dropped } = await settled(latest.current, await change(latest.current));
        show(next);
        setNotes(dropped.length > 0 ? [{ kind: "dropped", words: setAside(dropped) }] : []);
        keepLater(next);
        void judge();
      });
    },
    [ask, judge, keepLater, show],
  );

  /** Makes one move and shows what came of it. */
  const carry = useCallback(
    async (by: Move, base: Plan, live: boolean): Promise<void> => {
      const answer = await (live ? hand.move(base, by, drawn(true)) : api.move(base, by, drawn(false)));
      if (!live) turns.current = answer.judged.drawing.quarter_turns;
      // At once: a hand that drags waits for nothing but this.
      flushSync(() => {
        show(answer.plan);
        told(answer.judged);
        setNotes(notesOf(answer, live ? null : { by: { ...by, anyway: true }, from: base }));
        if (!unkept.current) setTrouble(null);
      });
      if (!live) keepLater(answer.plan);
    },
    [drawn, hand, keepLater, show, told],
  );
  /** One move of a hand: from the plan as it was when a drag began, else as it is. `live` while the drag goes on. */
  const move = useCallback(
    (by: Move, from: Plan | null, live: boolean) =>
      ask(async () => {
        const base = from ?? latest.current;
        if (base) await carry(by, base, live);
      }, live),
    [ask, carry],
  );

  /** A small step from where a thing is; steps that come faster than answers add up. */
  const nudge = useCallback(
    (thing: string, grip: Grip, by: Vector) => {
      const waiting =
        steps.current?.thing === thing && steps.current.grip === grip ? steps.current.by : [0, 0, 0];
      steps.current = { thing, grip, by: sum(waiting as Vector, by) };
      return ask(async () => {
        const step = steps.current;
        steps.current = null;
        const handle = step && judgedNow.current?.handles.find((h) => h.id === step.thing);
        if (!step || !handle || !latest.current) return;
        const at = placeOf(handle, step.grip);
        await carry({ thing, grip: step.grip, to_m: sum(at, step.by) }, latest.current, false);
      });
    },
    [ask, carry],
  );

  /** Back to the plan before a drag that was broken off. */
  const cancel = useCallback(
    (start: Plan) => {
      void ask(async () => {
        show(start);
        setNotes([]);
        told(await api.assess(start, drawn(false)));
      });
    },
    [ask, drawn, show, told],
  );

  /** One step back or forth, after what is under way has come and been kept. */
  const step = useCallback(
    (which: "undo" | "redo") =>
      ask(async () => {
        // What is only tried out has no steps.
        if (before.current) return;
        await flush();
        const answer = await api[which](corner.id, kept.current.revision);
        took(answer);
        show(planOf(answer));
        setNotes([]);
        setKeeping("kept");
        void judge();
      }),
    [ask, corner.id, flush, judge, show, took],
  );

  /** Gives up what waits here and shows what is kept. */
  const takeKept = useCallback(
    () =>
      ask(async () => {
        const answer = await api.corner(corner.id);
        unsaved.current = null;
        unkept.current = false;
        took(answer);
        show(planOf(answer));
        setKeeping("kept");
        setTrouble(null);
        void judge();
      }),
    [ask, corner.id, judge, show, took],
  );

  /** From now on nothing is kept, until the trial ends. */
  const beginTrial = useCallback(
    () =>
      void ask(async () => {
        await flush();
        before.current = latest.current;
        setTrying(true);
      }),
    [ask, flush],
  );
  const endTrial = useCallback(
    (keep: boolean) =>
      void ask(async () => {
        const start = before.current;
        before.current = null;
        setTrying(false);
        if (keep) keepLater(latest.current);
        else if (start) {
          show(start);
          setNotes([]);
        }
        void judge();
        return Promise.resolve();
      }),
    [ask, judge, keepLater, show],
  );

  const hands = useMemo(() => ({ edit, move, nudge }), [edit, move, nudge]);

  return {
    hands,
    plan,
    judged,
    notes,
    keeping,
    trouble,
    dragging,
    setDragging,
    edit,
    move,
    nudge,
    cancel,
    step,
    flush,
    takeKept,
    trying,
    beginTrial,
    endTrial,
    canUndo: !trying && (corner.can_undo || keeping === "waiting"),
    canRedo: !trying && corner.can_redo && keeping === "kept",
    tryAgain: () => {
      setTrouble(null);
      if (unsaved.current !== null) void flush();
      void judge();
    },
  };
}

export type Table = ReturnType<typeof useWorktable>;
/** What changes a plan; always the same object. */
export type Hands = Table["hands"];
