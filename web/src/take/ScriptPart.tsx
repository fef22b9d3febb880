// The script: pasted, counted, timed at one's own pace, in lines that fit the screen, paragraph by paragraph.
import { useState } from "react";

import type { Plan } from "../api/client";
import { withRecording, withRun } from "../table/edits";
import { useTable } from "../table/useTable";
import { NumberBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { FIELD } from "../ui/note";
import { Section, SHEET } from "../ui/Section";
import { useNow } from "../ui/useNow";
import { clock, lasting } from "../units/time";
import type { Run } from "./log";

const MOST_LETTERS = 60_000;
/** Paces that anybody reads at, words a minute. */
const PACE = [60, 300] as const;

/** Paragraphs, parted by empty lines; null where there is none. */
function paragraphsOf(text: string): string[] | null {
  const all = text.split(/\n\s*\n/).map((one) => one.trim());
  const told = all.filter((one) => one !== "");
  return told.length === 0 ? null : told;
}

export function ScriptPart({ plan, run }: { plan: Plan; run: Run }) {
  const table = useTable();
  const kept = (plan.brief.run?.script ?? []).join("\n\n");
  const [typed, setTyped] = useState<string | null>(null);
  const act = (change: (plan: Plan) => Plan) => table.act(change);
  const take = () => {
    if (typed !== null && typed !== kept) act((p) => withRun(p, { script: paragraphsOf(typed) }));
    setTyped(null);
  };
  const script = run.script;
  const isRead = plan.brief.recording?.script_words != null;
  return (
    <div className="grid items-start gap-x-6 gap-y-5 lg:grid-cols-2">
      <Section first title="Script">
        <label className="grid gap-1 text-sm">
          <span className="text-faint">
            Paste it here. An empty line begins a new paragraph, and each paragraph is a take.
          </span>
          <textarea
            className={`${FIELD} min-h-64 leading-relaxed`}
            maxLength={MOST_LETTERS}
            aria-label="Script"
            value={typed ?? kept}
            onChange={(event) => setTyped(event.target.value)}
            onBlur={take}
          />
        </label>
        {script && (
          <div className="mt-2 grid gap-3">
            <p>
              <span className="text-3xl font-bold">{lasting(script.seconds)}</span>{" "}
              <span className="text-faint">
                for {script.words} words, {script.own_pace ? "at your pace" : "at a usual pace"}
              </span>
            </p>
            <div className="flex flex-wrap items-end gap-3">
              <div className="w-40">
                <NumberBox
                  label="Words a minute"
                  within={PACE}
                  digits={0}
                  value={script.words_per_minute}
                  onCommit={(words_per_minute) => table.act((p) => withRecording(p, { words_per_minute }))}
                />
              </div>
              <Pace
                words={script.paragraphs[0]?.words ?? 0}
                onPace={(words_per_minute) => act((p) => withRecording(p, { words_per_minute }))}
              />
            </div>
            <label className="flex items-center gap-2 text-sm">
              <input
                type="checkbox"
                className="accent-ember h-6 w-6"
                checked={isRead}
                onChange={(event) =>
                  act((p) => withRecording(p, { script_words: event.target.checked ? script.words : null }))
                }
              />
              I read it off a screen while I am filmed
            </label>
          </div>
        )}
      </Section>
      {script && (
        <Section first title={`In lines of ${String(script.letters)} letters`}>
          <p className="text-faint mb-1.5 text-sm">
            {isRead
              ? "So many fit your screen in letters that you can read from the seat."
              : "As they fit a usual screen."}
          </p>
          <ol
            className={`${SHEET} divide-line max-h-[32rem] divide-y overflow-auto`}
            tabIndex={0}
            aria-label="Paragraphs"
          >
            {script.paragraphs.map((one) => (
              <li key={one.number} className="grid grid-cols-[5rem_1fr] gap-3 px-3 py-2">
                <p className="text-faint text-sm">
                  Take {one.number}
                  <br />
                  {lasting(one.seconds)}
                </p>
                <div>
                  {one.lines.map((line, index) => (
                    <p key={`${String(index)}${line}`}>{line}</p>
                  ))}
                </div>
              </li>
            ))}
          </ol>
        </Section>
      )}
    </div>
  );
}

/** The first paragraph read aloud by the clock. */
function Pace({ words, onPace }: { words: number; onPace: (words_per_minute: number) => void }) {
  const [begun_ms, setBegun] = useState<number | null>(null);
  const now_ms = useNow(begun_ms !== null, Date.now);
  if (words < 5) return null;
  if (begun_ms === null)
    return (
      <Button onClick={() => setBegun(Date.now())}>Measure my pace: read the first paragraph aloud</Button>
    );
  return (
    <Button
      look="act"
      onClick={() => {
        const minutes = (Date.now() - begun_ms) / 60_000;
        setBegun(null);
        if (minutes > 0) onPace(Math.round(Math.min(PACE[1], Math.max(PACE[0], words / minutes))));
      }}
    >
      {clock((now_ms - begun_ms) / 1000)} · Done reading
    </Button>
  );
}
