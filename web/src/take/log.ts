// The logbook as sessions: pure, so that it reads the same with network and without.
import type { Schemas } from "../api/client";

export type Entry = Schemas["Entry"];
export type Run = Schemas["Run"];
export type ShotTold = Schemas["ShotTold"];
type What = Entry["what"];
type OfKind<Kind extends What["kind"]> = Extract<What, { kind: Kind }>;
export type Take = OfKind<"take">;
export type Verdict = NonNullable<Take["verdict"]>;

/** An entry of one kind. */
interface Logged<Kind extends What["kind"]> {
  entry: Entry;
  what: OfKind<Kind>;
}

export interface SessionTold {
  uid: string;
  entry: Entry;
  told: OfKind<"session">;
  takes: Logged<"take">[];
  checks: Logged<"check">[];
  tests: Logged<"measured">[];
  /** Shots that were ticked by hand. */
  ticked: Map<string, boolean>;
}

/** Entries of one kind that were not taken back. */
function ofKind<Kind extends What["kind"]>(entries: readonly Entry[], kind: Kind): Logged<Kind>[] {
  return entries.flatMap((entry) =>
    !entry.gone && entry.what.kind === kind ? [{ entry, what: entry.what as OfKind<Kind> }] : [],
  );
}

/** Sessions, the last first. */
export function sessionsOf(entries: Iterable<Entry>): SessionTold[] {
  const all = [...entries];
  const sessions = ofKind(all, "session").map(({ entry, what }): SessionTold => {
    const own = all.filter((one) => one.session === entry.uid);
    const takes = ofKind(own, "take").sort((a, b) => a.what.begun_ms - b.what.begun_ms);
    const byTime = (a: { entry: Entry }, b: { entry: Entry }) => a.entry.at_ms - b.entry.at_ms;
    const ticked = new Map(
      ofKind(own, "shot")
        .sort(byTime)
        .map(({ what }) => [what.shot, what.done]),
    );
    return {
      uid: entry.uid,
      entry,
      told: what,
      takes,
      checks: ofKind(own, "check").sort(byTime),
      tests: ofKind(own, "measured").sort(byTime),
      ticked,
    };
  });
  return sessions.sort((a, b) => b.told.begun_ms - a.told.begun_ms);
}

/** The session that is on. */
export const openSession = (sessions: readonly SessionTold[]): SessionTold | undefined =>
  sessions.find(({ told }) => told.ended_ms == null);

/** The next number: one more than the highest. */
export const nextNumber = (session: SessionTold): number =>
  Math.max(0, ...session.takes.map(({ what }) => what.number)) + 1;

/** Takes with the numbers that were said: where two devices gave one number, the later has a letter with it. */
export function numbered(session: SessionTold): { uid: string; number: string; take: Take }[] {
  const seen = new Map<number, number>();
  return session.takes.map(({ entry, what }) => {
    const before = seen.get(what.number) ?? 0;
    seen.set(what.number, before + 1);
    const letter = before === 0 ? "" : String.fromCharCode(97 + before);
    return { uid: entry.uid, number: `${String(what.number)}${letter}`, take: what };
  });
}

export interface ShotState {
  shot: ShotTold;
  takes: number;
  kept: number;
  isDone: boolean;
}

/** Shots with what there is of each: done by a tick, or with as many takes as wanted and one of them kept. */
export function statesOf(run: Run, session: SessionTold | undefined): ShotState[] {
  const takes = session?.takes.map(({ what }) => what) ?? [];
  return run.shots.map((shot) => {
    const own = takes.filter((take) => take.shot === shot.id && take.seconds != null);
    const kept = own.filter((take) => take.verdict === "keep").length;
    const isEnough = own.length >= shot.shot.takes && (kept > 0 || shot.shot.kind === "test");
    return { shot, takes: own.length, kept, isDone: session?.ticked.get(shot.id) ?? isEnough };
  });
}

/** What is still missing, in words; empty where nothing is. */
export function missingWords(states: readonly ShotState[]): string {
  const open = states.filter((state) => !state.isDone);
  if (open.length === 0) return "";
  const named = open.slice(0, 3).map(({ shot }) => shot.shot.what);
  const more = open.length > 3 ? ` and ${String(open.length - 3)} more` : "";
  return `Still missing: ${named.join("; ")}${more}.`;
}

/** The shot to do next: of the best order the first that is open. */
export function nextShot(run: Run, states: readonly ShotState[]): ShotState | undefined {
  const inOrder = run.best.shots.flatMap((id) => states.find((state) => state.shot.id === id) ?? []);
  return inOrder.find((state) => !state.isDone) ?? inOrder[0];
}

/** Minutes that were recorded in a session. */
export const recordedMin = (session: SessionTold): number =>
  session.takes.reduce((sum, { what }) => sum + (what.seconds ?? 0), 0) / 60;

/** What is left of minutes, after what the camera told last or, where it told nothing, after what was recorded. */
export function leftMin(
  whole: number | null | undefined,
  session: SessionTold | undefined,
  field: "card_left_min" | "battery_left_min",
): number | null {
  const takes = session?.takes.map(({ what }) => what) ?? [];
  const at = takes.findLastIndex((take) => take[field] != null);
  const from = at >= 0 ? (takes[at]?.[field] ?? null) : (whole ?? null);
  if (from === null) return null;
  const since = takes.slice(at + 1).reduce((sum, take) => sum + (take.seconds ?? 0), 0) / 60;
  return Math.max(0, from - since);
}

/** Lines of a text; none where it is empty. */
export const linesOf = (text: string): string[] =>
  text
    .split("\n")
    .map((line) => line.trim())
    .filter((line) => line !== "")
    .slice(0, 40);

/** A file's name, from the name with day and take still open. */
export function fileOf(stem: string, date: string, take: number): string {
  return stem.replaceAll("{date}", date).replaceAll("{take}", String(take).padStart(2, "0"));
}

/** Whether a session holds what is looked for, in any of its words. */
export function holds(session: SessionTold, wanted: string): boolean {
  const words = wanted.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const { told } = session;
  const text = [
    told.name,
    ...(told.learnt ?? []),
    ...(told.stood ?? []),
    ...(told.settings ?? []),
    ...session.takes.flatMap(({ what }) => [what.what, what.note, what.file, what.verdict]),
    ...session.tests.flatMap(({ what }) => [what.file, what.summary]),
    new Date(told.begun_ms).toLocaleDateString(undefined, { dateStyle: "full" }),
  ]
    .join(" ")
    .toLowerCase();
  return words.every((word) => text.includes(word));
}
