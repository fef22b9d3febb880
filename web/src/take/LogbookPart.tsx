// The logbook: every session with what stood where, what was measured and taken, and what was learnt.
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";

import type { Plan } from "../api/client";
import { takeApi } from "../api/take";
import { count } from "../units/text";
import { clock, day, lasting, time } from "../units/time";
import { Button, FileLink } from "../ui/button";
import { Ask } from "../ui/dialog";
import { FIELD, FIELD_SMALL } from "../ui/note";
import { Section, SHEET } from "../ui/Section";
import { Trouble } from "../ui/states";
import { Table } from "../ui/Table";
import { holds, linesOf, numbered, recordedMin, type SessionTold } from "./log";
import { KeptFor } from "./KeptFor";
import { PlanSessions } from "./PlanSessions";
import { VERDICTS } from "./Recorder";
import type { Log } from "./useLog";

export function LogbookPart({ corner, plan, log }: { corner: number; plan: Plan; log: Log }) {
  const [wanted, setWanted] = useState("");
  const [deleting, setDeleting] = useState<SessionTold | null>(null);
  const remove = useMutation({
    mutationFn: (session: string) => takeApi.deleteSession(corner, session),
    onSuccess: log.again,
  });
  const found = log.sessions.filter((session) => holds(session, wanted));
  return (
    <div className="grid items-start gap-x-6 gap-y-5 lg:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
      <Section
        first
        title="Sessions"
        aside={
          log.sessions.length > 0 && (
            <>
              <FileLink size="small" href={takeApi.logAddress(corner, "csv")} download>
                As a table
              </FileLink>
              <FileLink size="small" href={takeApi.logAddress(corner, "json")} download>
                As JSON
              </FileLink>
            </>
          )
        }
      >
        {log.sessions.length === 0 ? (
          <p className="text-faint">
            {log.isHeard
              ? "Nothing was recorded here yet. A session is begun under Record."
              : "Reading the logbook …"}
          </p>
        ) : (
          <div className="grid gap-2">
            <input
              type="search"
              className={FIELD_SMALL}
              aria-label="Look for words in the logbook"
              placeholder="Look for words: a note, a setting, a file"
              value={wanted}
              onChange={(event) => setWanted(event.target.value)}
            />
            {found.length === 0 && <p className="text-faint text-sm">No session holds these words.</p>}
            {found.map((session, index) => (
              <OneSession
                key={session.uid}
                corner={corner}
                session={session}
                isOpen={index === 0}
                log={log}
                onDelete={() => setDeleting(session)}
              />
            ))}
            {remove.error && <Trouble error={remove.error} />}
          </div>
        )}
      </Section>
      <div className="grid gap-5">
        <PlanSessions plan={plan} />
        <KeptFor />
      </div>
      <Ask
        open={deleting !== null}
        onOpenChange={(open) => !open && setDeleting(null)}
        title="Delete this session for good?"
        words="Its takes, measures and notes go with it and cannot be brought back."
        yes="Delete for good"
        no="Keep it"
        onYes={() => {
          if (deleting) remove.mutate(deleting.uid);
          setDeleting(null);
        }}
      />
    </div>
  );
}

interface OneProps {
  corner: number;
  session: SessionTold;
  isOpen: boolean;
  log: Log;
  onDelete: () => void;
}

function OneSession({ corner, session, isOpen, log, onDelete }: OneProps) {
  const { told } = session;
  const kept = session.takes.filter(({ what }) => what.verdict === "keep").length;
  const change = (next: Partial<SessionTold["told"]>) =>
    log.write({ ...told, ...next }, { uid: session.uid, session: session.uid });
  return (
    <details className={`${SHEET} px-3`} open={isOpen}>
      <summary className="cursor-pointer py-2">
        <span className="font-semibold">{day(told.begun_ms)}</span>
        {told.name && <span> · {told.name}</span>}
        <span className="text-faint text-sm">
          {" "}
          · {count(session.takes.length, "take")}, {kept} kept, {clock(Math.round(60 * recordedMin(session)))}
          {told.ended_ms == null && " · on"}
        </span>
      </summary>
      <div className="grid gap-3 pb-3 text-sm">
        <p className="text-faint flex flex-wrap items-center gap-x-3 gap-y-1">
          <span>
            {time(told.begun_ms)}
            {told.ended_ms != null && ` to ${time(told.ended_ms)}`}
            {told.ready_s != null && ` · put up in ${lasting(told.ready_s)}`}
          </span>
          <Link className="underline" to={`/corners/${String(corner)}/history`}>
            Stood as in save {told.revision}
          </Link>
          <span>
            {session.checks.length > 0 &&
              `checked ${session.checks.length === 1 ? "once" : `${String(session.checks.length)} times`}`}
          </span>
        </p>
        <Words label="About" most={120} value={told.name ?? ""} onValue={(name) => change({ name })} />
        <Words
          label="Learnt"
          most={2000}
          large
          value={(told.learnt ?? []).join("\n")}
          onValue={(learnt) => change({ learnt: linesOf(learnt) })}
        />
        {session.takes.length > 0 && (
          <Table label="Takes of this session">
            <thead>
              <tr>
                <th scope="col">Take</th>
                <th scope="col">Shot</th>
                <th scope="col">Length</th>
                <th scope="col">Verdict</th>
                <th scope="col" className="wide-only">
                  File
                </th>
              </tr>
            </thead>
            <tbody>
              {numbered(session).map(({ uid, number, take }) => (
                <tr key={uid}>
                  <td className="font-bold">{number}</td>
                  <td>
                    {take.what}
                    {take.note && <span className="text-faint block">{take.note}</span>}
                  </td>
                  <td>{take.seconds == null ? "on" : clock(Math.round(take.seconds))}</td>
                  <td>{VERDICTS.find(([verdict]) => verdict === take.verdict)?.[1] ?? ""}</td>
                  <td className="wide-only break-all">{take.file}</td>
                </tr>
              ))}
            </tbody>
          </Table>
        )}
        {session.tests.map(({ entry, what }) => (
          <p key={entry.uid}>
            <span className="font-semibold">Test at {time(entry.at_ms)}:</span> {what.summary}{" "}
            <span className="text-faint">{what.file}</span>
          </p>
        ))}
        <details>
          <summary className="text-faint min-h-6 cursor-pointer">What stood where, and what was set</summary>
          <ul>
            {[...(told.stood ?? []), ...(told.settings ?? [])].map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </details>
        <div>
          <Button size="small" look="quiet" onClick={onDelete}>
            Delete this session
          </Button>
        </div>
      </div>
    </details>
  );
}

interface WordsProps {
  label: string;
  most: number;
  large?: boolean;
  value: string;
  onValue: (value: string) => void;
}

/** Words that are taken when the box is left. */
function Words({ label, most, large = false, value, onValue }: WordsProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const shared = {
    maxLength: most,
    value: typed ?? value,
    onChange: (event: { target: { value: string } }) => setTyped(event.target.value),
    onBlur: () => {
      if (typed !== null && typed !== value) onValue(typed.trim());
      setTyped(null);
    },
  };
  return (
    <label className="grid gap-1 text-xs font-semibold">
      {label}
      {large ? (
        <textarea className={`${FIELD} min-h-16 text-sm font-normal`} {...shared} />
      ) : (
        <input className={`${FIELD_SMALL} font-normal`} {...shared} />
      )}
    </label>
  );
}
