// The take at hand: which shot, its number, counted down, still at both ends, stopped, judged.
import { useState } from "react";

import { Button } from "../ui/button";
import { FIELD_SMALL } from "../ui/note";
import { SHEET } from "../ui/Section";
import { useNow } from "../ui/useNow";
import { clock, dateOf } from "../units/time";
import { fileOf, nextNumber, type SessionTold, type ShotState, type Take, type Verdict } from "./log";
import { begunAt, phaseAt, type Phase } from "./phases";
import type { Log } from "./useLog";

const COUNTDOWNS_S = [0, 3, 5, 10] as const;
const COUNTDOWN = "fogon.countdown";

export const VERDICTS: readonly (readonly [Verdict, string])[] = [
  ["keep", "Keep"],
  ["maybe", "Maybe"],
  ["again", "Again"],
];

interface Props {
  state: ShotState;
  states: ShotState[];
  session: SessionTold;
  log: Log;
  left: { card: number | null; battery: number | null };
  onPick: (shot: string) => void;
  /** The take is judged: on to the next. */
  onDone: () => void;
}

const WORDS: Record<Phase, (seconds: number) => string> = {
  idle: () => "",
  countdown: () => "Start the camera",
  "still-before": () => "Still",
  on: () => "On",
  "still-after": () => "Still",
};

export function Recorder({ state, states, session, log, left, onPick, onDone }: Props) {
  const { shot } = state;
  const running = session.takes.find(({ what }) => what.seconds == null);
  const [countdown_s, setCountdown] = useState(() => Number(localStorage.getItem(COUNTDOWN) ?? "3"));
  const [stopped_ms, setStopped] = useState<number | null>(null);
  const [judged, setJudged] = useState<string | null>(null);
  const stillness_s = shot.shot.stillness_s ?? 0;
  const course = { countdown_s, stillness_s };
  const pressed_ms = running ? running.what.begun_ms - 1000 * countdown_s : stopped_ms === null ? null : 0;
  const now_ms = useNow(running !== undefined || stopped_ms !== null, log.now_ms);
  const { phase, seconds } = phaseAt(now_ms, { pressed_ms, stopped_ms: running ? null : stopped_ms }, course);
  const number = running?.what.number ?? nextNumber(session);
  const write = (take: Take, uid?: string, gone = false) =>
    log.write(take, { session: session.uid, ...(uid === undefined ? {} : { uid }), gone });
  const start = () => {
    const begun_ms = Math.round(begunAt(log.now_ms(), course));
    setStopped(null);
    setJudged(null);
    onPick(shot.id);
    write({
      kind: "take",
      number,
      shot: shot.id,
      what: shot.shot.what,
      begun_ms,
      verdict: "open",
      file: fileOf(shot.file, dateOf(begun_ms), number),
    });
  };
  const stop = () => {
    if (!running) return;
    const at_ms = log.now_ms();
    const { entry, what } = running;
    if (at_ms < what.begun_ms) {
      // Stopped while it was counted down: there was no take.
      write(what, entry.uid, true);
      return;
    }
    const took = Math.round((at_ms - what.begun_ms) / 100) / 10 + stillness_s;
    const since = took / 60;
    write(
      {
        ...what,
        seconds: took,
        ...(left.card === null ? {} : { card_left_min: Math.max(0, round(left.card - since)) }),
        ...(left.battery === null ? {} : { battery_left_min: Math.max(0, round(left.battery - since)) }),
      },
      entry.uid,
    );
    setStopped(at_ms);
    setJudged(entry.uid);
  };
  const last = session.takes.find(({ entry }) => entry.uid === judged && !entry.gone);
  return (
    <section aria-label="The take at hand" className={`${SHEET} grid gap-3 p-4`}>
      <div className="flex flex-wrap items-end gap-3">
        <label className="grid min-w-52 flex-1 gap-1 text-xs font-semibold">
          Shot
          <select
            className={FIELD_SMALL}
            value={shot.id}
            disabled={running !== undefined}
            onChange={(event) => onPick(event.target.value)}
          >
            {states.map((one) => (
              <option key={one.shot.id} value={one.shot.id}>
                {one.isDone ? "✓ " : ""}
                {one.shot.shot.what}
              </option>
            ))}
          </select>
        </label>
        <label className="grid gap-1 text-xs font-semibold">
          Counted down
          <select
            className={FIELD_SMALL}
            value={countdown_s}
            disabled={running !== undefined}
            onChange={(event) => {
              localStorage.setItem(COUNTDOWN, event.target.value);
              setCountdown(Number(event.target.value));
            }}
          >
            {COUNTDOWNS_S.map((one) => (
              <option key={one} value={one}>
                {one === 0 ? "no" : `${String(one)} s`}
              </option>
            ))}
          </select>
        </label>
      </div>
      {shot.shot.note && <p className="text-sm">{shot.shot.note}</p>}
      <div className="flex flex-wrap items-center gap-x-6 gap-y-3" data-phase={phase}>
        <p>
          <span className="text-faint block text-sm">Take</span>
          <span className="block text-6xl leading-none font-bold">{number}</span>
        </p>
        <p role="timer" className="min-w-40">
          <span className="text-faint block text-sm" aria-live="assertive">
            {WORDS[phase](seconds) || "Ready"}
          </span>
          <span className="block text-6xl leading-none font-bold">
            {phase === "idle" ? "0:00" : phase === "on" ? clock(seconds) : String(seconds)}
          </span>
        </p>
        <div className="ml-auto">
          {running ? (
            <Button look="act" className="min-h-16 px-8 text-2xl!" onClick={stop}>
              Stop
            </Button>
          ) : (
            <Button
              look="act"
              className="min-h-16 px-8 text-2xl!"
              disabled={phase === "still-after"}
              onClick={start}
            >
              Start
            </Button>
          )}
        </div>
      </div>
      {last && !running && (
        <Judge
          key={last.entry.uid}
          number={last.what.number}
          take={last.what}
          onChange={(take) => write(take, last.entry.uid)}
          onDone={() => {
            setJudged(null);
            onDone();
          }}
        />
      )}
    </section>
  );
}

const round = (minutes: number) => Math.round(minutes * 10) / 10;

interface JudgeProps {
  number: number;
  take: Take;
  onChange: (take: Take) => void;
  onDone: () => void;
}

function Judge({ number, take, onChange, onDone }: JudgeProps) {
  const [note, setNote] = useState(take.note ?? "");
  return (
    <form
      aria-label={`Take ${String(number)}, judged`}
      className="border-line grid gap-2 border-t pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        onChange({ ...take, note: note.trim() });
        onDone();
      }}
    >
      <div role="group" aria-label="What becomes of it" className="grid grid-cols-3 gap-2">
        {VERDICTS.map(([verdict, words]) => (
          <Button
            key={verdict}
            className="min-h-12"
            aria-pressed={take.verdict === verdict}
            onClick={() => onChange({ ...take, verdict, note: note.trim() })}
          >
            {words}
          </Button>
        ))}
      </div>
      <div className="flex flex-wrap gap-2">
        <input
          className={`${FIELD_SMALL} min-w-40 flex-1`}
          aria-label="Note"
          placeholder="Note"
          maxLength={500}
          value={note}
          onChange={(event) => setNote(event.target.value)}
          onBlur={() => note.trim() !== (take.note ?? "") && onChange({ ...take, note: note.trim() })}
        />
        <Button type="submit">Next</Button>
      </div>
    </form>
  );
}
