// The takes of a session, the last first: each can be judged and noted again.
import { clock, time } from "../units/time";
import { Button } from "../ui/button";
import { FIELD_SMALL } from "../ui/note";
import { Section, SHEET } from "../ui/Section";
import { numbered, type SessionTold, type Take, type Verdict } from "./log";
import { VERDICTS } from "./Recorder";
import type { Log } from "./useLog";

export function Takes({ session, log }: { session: SessionTold; log: Log }) {
  const all = numbered(session).reverse();
  const write = (uid: string, take: Take, gone = false) =>
    log.write(take, { uid, session: session.uid, gone });
  return (
    <Section first title="Takes">
      {all.length === 0 ? (
        <p className="text-faint text-sm">None yet.</p>
      ) : (
        <ol
          className={`${SHEET} divide-line max-h-[34rem] divide-y overflow-auto`}
          tabIndex={0}
          aria-label="Takes, the last first"
        >
          {all.map(({ uid, number, take }) => (
            <li key={uid} className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-2">
              <span className="w-10 text-xl font-bold">{number}</span>
              <div className="min-w-36 flex-1">
                <p className="text-sm font-semibold">{take.what}</p>
                <p className="text-faint text-xs">
                  {time(take.begun_ms)} · {take.seconds == null ? "on" : clock(Math.round(take.seconds))}
                </p>
                <p className="text-faint text-xs break-words">{take.file}</p>
                {take.note && <p className="text-sm">{take.note}</p>}
              </div>
              <select
                className={`${FIELD_SMALL} w-auto!`}
                aria-label={`Take ${number}: what becomes of it`}
                value={take.verdict ?? "open"}
                onChange={(event) => write(uid, { ...take, verdict: event.target.value as Verdict })}
              >
                <option value="open">Not said</option>
                {VERDICTS.map(([verdict, words]) => (
                  <option key={verdict} value={verdict}>
                    {words}
                  </option>
                ))}
              </select>
              <Button
                size="small"
                look="quiet"
                aria-label={`Take ${number}: strike it out`}
                onClick={() => write(uid, take, true)}
              >
                Strike out
              </Button>
            </li>
          ))}
        </ol>
      )}
    </Section>
  );
}
