// Recording: a session is begun, the list is gone through, takes are counted. The same on the desk and on a phone, with network or
// without.
import { useState } from "react";

import { floorApi } from "../api/floor";
import { runOf } from "../floor/run";
import { count } from "../units/text";
import { clock, day, lasting, time } from "../units/time";
import { Button } from "../ui/button";
import { Show } from "../ui/dialog";
import { FIELD } from "../ui/note";
import { Section, SHEET } from "../ui/Section";
import { BeforeTake } from "./BeforeTake";
import { Click } from "./Click";
import { leftMin, linesOf, nextShot, recordedMin, statesOf, type Run, type SessionTold } from "./log";
import { Recorder } from "./Recorder";
import { Takes } from "./Takes";
import type { Log } from "./useLog";

/** A stop watch that ended so long ago is of another day, ms. */
const OF_TODAY_MS = 12 * 3600 * 1000;

interface Props {
  corner: number;
  run: Run;
  revision: number;
  log: Log;
  /** The save at which the corner stands, once everything is saved. */
  standsAt: () => Promise<number>;
  /** Brings the corner back to how it stood; none where it cannot be changed. */
  onBringBack?: ((revision: number) => void) | undefined;
}

export function RecordPart(props: Props) {
  const { run, log } = props;
  const { open } = log;
  if (!open) return <Begin {...props} />;
  return <On run={run} session={open} log={log} />;
}

function Begin({ corner, run, revision, log, standsAt, onBringBack }: Props) {
  const last = log.sessions[0];
  const begin = async () => {
    const begun_ms = log.now_ms();
    const ready_s = await readyOf(corner, begun_ms);
    log.write(
      {
        kind: "session",
        begun_ms,
        revision: await standsAt(),
        stood: run.stood.slice(0, 60),
        settings: run.settings.slice(0, 60),
        ...(ready_s === null ? {} : { ready_s }),
      },
      {},
    );
  };
  return (
    <div className="grid max-w-3xl gap-4">
      {last ? (
        <AsLastTime last={last} revision={revision} onBringBack={onBringBack} />
      ) : (
        <p>
          A session is one time of recording. What stood where, each take and what you learnt are kept on this
          computer, and the next session begins from there.
        </p>
      )}
      <div>
        <Button look="act" className="min-h-12 text-lg!" onClick={() => void begin()}>
          Begin a session
        </Button>
      </div>
    </div>
  );
}

/** How long it took to put the corner up, by the stop watch of the same day; null where nobody took it. */
async function readyOf(corner: number, now_ms: number): Promise<number | null> {
  try {
    const { steps, ticks } = await floorApi.laying(corner);
    const run = runOf(steps, new Map(ticks.map((tick) => [tick.step, tick])));
    if (!run?.isWhole || now_ms - run.last_ms > OF_TODAY_MS) return null;
    return (run.last_ms - run.begun_ms) / 1000;
  } catch {
    return null;
  }
}

interface LastProps {
  last: SessionTold;
  revision: number;
  onBringBack?: ((revision: number) => void) | undefined;
}

function AsLastTime({ last, revision, onBringBack }: LastProps) {
  const { told } = last;
  const kept = last.takes.filter(({ what }) => what.verdict === "keep").length;
  const isSame = told.revision === revision;
  return (
    <Section first title="As last time" className={`${SHEET} p-4`}>
      <p>
        {day(told.begun_ms)}: {count(last.takes.length, "take")}, {kept} kept
        {told.ready_s != null && `, put up in ${lasting(told.ready_s)}`}.
      </p>
      {(told.learnt ?? []).map((line) => (
        <p key={line} className="border-ember mt-2 border-l-4 pl-2">
          {line}
        </p>
      ))}
      {isSame ? (
        <p className="mt-2">✓ The corner stands as it did then.</p>
      ) : (
        <div className="mt-2 flex flex-wrap items-center gap-2">
          <p>▲ The plan has been changed since.</p>
          {onBringBack && (
            <Button size="small" onClick={() => onBringBack(told.revision)}>
              Bring it back as it stood then
            </Button>
          )}
        </div>
      )}
      <details className="mt-2 text-sm">
        <summary className="min-h-8 cursor-pointer py-1 font-semibold">
          What stood where, and what was set
        </summary>
        <ul>
          {[...(told.stood ?? []), ...(told.settings ?? [])].map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      </details>
    </Section>
  );
}

interface OnProps {
  run: Run;
  session: SessionTold;
  log: Log;
}

function On({ run, session, log }: OnProps) {
  const states = statesOf(run, session);
  const suggested = nextShot(run, states);
  const [picked, setPicked] = useState<string | null>(null);
  const state = states.find(({ shot }) => shot.id === picked) ?? suggested;
  const [ending, setEnding] = useState(false);
  const card = leftMin(run.card_min, session, "card_left_min");
  const battery = leftMin(run.battery_min, session, "battery_left_min");
  const change = (told: Partial<SessionTold["told"]>) =>
    log.write({ ...session.told, ...told }, { uid: session.uid, session: session.uid });
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
        <p className="mr-auto">
          <span className="font-semibold">Session since {time(session.told.begun_ms)}</span>
          <span className="text-faint">
            {" "}
            · {count(session.takes.length, "take")}
            {recordedMin(session) > 0 && `, ${lasting(60 * recordedMin(session))} recorded`}
            {card !== null && ` · card ${lasting(60 * card)} left`}
            {battery !== null && ` · battery ${lasting(60 * battery)} left`}
          </span>
        </p>
        <Button size="small" onClick={() => setEnding(true)}>
          End the session
        </Button>
      </div>
      <div className="grid items-start gap-5 lg:grid-cols-[minmax(0,5fr)_minmax(0,4fr)]">
        <div className="grid gap-3">
          <BeforeTake lines={run.before} session={session} log={log} />
          {state && (
            <Recorder
              key={state.shot.id}
              state={state}
              states={states}
              session={session}
              log={log}
              left={{ card, battery }}
              onPick={setPicked}
              onDone={() => setPicked(null)}
            />
          )}
          <Click />
        </div>
        <Takes session={session} log={log} />
      </div>
      <Ending
        key={String(ending)}
        open={ending}
        session={session}
        onClose={() => setEnding(false)}
        onEnd={(learnt) => {
          change({ learnt, ended_ms: log.now_ms() });
          setEnding(false);
        }}
      />
    </div>
  );
}

interface EndingProps {
  open: boolean;
  session: SessionTold;
  onClose: () => void;
  onEnd: (learnt: string[]) => void;
}

function Ending({ open, session, onClose, onEnd }: EndingProps) {
  const [learnt, setLearnt] = useState((session.told.learnt ?? []).join("\n"));
  return (
    <Show open={open} onOpenChange={(isOpen) => !isOpen && onClose()} title="End the session">
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          onEnd(linesOf(learnt));
        }}
      >
        <p>
          {count(session.takes.length, "take")}, {clock(60 * recordedMin(session))} recorded.
        </p>
        <label className="grid gap-1 text-sm font-semibold">
          What did you learn? The next session begins with it.
          <textarea
            className={`${FIELD} min-h-28 font-normal`}
            maxLength={2000}
            value={learnt}
            onChange={(event) => setLearnt(event.target.value)}
          />
        </label>
        <div className="flex flex-wrap justify-end gap-2">
          <Button onClick={onClose}>Go on recording</Button>
          <Button look="act" type="submit">
            End it
          </Button>
        </div>
      </form>
    </Show>
  );
}
