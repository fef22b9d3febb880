// One step at a time, in letters that are read from two metres: the phone lies on the floor while both hands are busy.
import { useState } from "react";
import { useSearchParams } from "react-router";

import type { Schemas } from "../api/client";
import { Button } from "../ui/button";
import { Standing } from "../ui/Standing";
import { capital } from "../units/text";
import { Signal } from "./Signal";
import { StopWatch } from "./StopWatch";
import { nextOpen, type Step } from "./ticks";
import type { Laying } from "./useLaying";

/** What is done on the floor, and what at the dials afterwards. */
type Part = "lay" | "set" | "put-up";

const PARTS: Record<Part, { words: string; works: Schemas["Work"][]; done: string }> = {
  lay: { words: "Lay", works: ["mark", "tape", "hang", "plug"], done: "All is laid. Now set it." },
  set: { words: "Set and check", works: ["set", "check"], done: "All is set and checked." },
  "put-up": { words: "Put up", works: ["put-up"], done: "It stands." },
};

const WORK: Record<Schemas["Work"], string> = {
  mark: "Tape a mark",
  tape: "Check a distance",
  hang: "Hang",
  plug: "Plug in",
  set: "Set",
  check: "Check",
  "put-up": "Put up",
};

interface Props {
  told: Schemas["Laying"];
  laying: Laying;
}

export function Steps({ told, laying }: Props) {
  const [asked] = useSearchParams();
  const [part, setPart] = useState<Part>(asked.get("part") === "put-up" ? "put-up" : "lay");
  const [isList, setList] = useState(false);
  const steps = told.steps.filter((step) => PARTS[part].works.includes(step.work));
  const [at, setAt] = useState(() => nextOpen(steps, laying.ticks, 0));
  const index = Math.min(at, Math.max(steps.length - 1, 0));
  const step = steps[index];
  const done = steps.filter((one) => laying.ticks.get(one.id)?.done).length;
  const isDone = step !== undefined && laying.ticks.get(step.id)?.done === true;
  const go = (to: number) => setAt((to + steps.length) % Math.max(steps.length, 1));
  const tick = () => {
    if (!step) return;
    laying.tick(step.id, !isDone);
    if (!isDone) {
      const ticks = new Map(laying.ticks).set(step.id, { step: step.id, done: true, at_ms: 0 });
      go(nextOpen(steps, ticks, index));
    }
  };
  return (
    <div className="mx-auto flex min-h-[calc(100dvh-3.5rem)] w-full max-w-3xl flex-col gap-3 px-4 pt-3 pb-4">
      <div className="flex flex-wrap items-center gap-2">
        <div role="group" aria-label="Part of the work" className="flex gap-1.5">
          {(Object.keys(PARTS) as Part[]).map((key) => (
            <Button
              key={key}
              aria-pressed={key === part}
              onClick={() => {
                const own = told.steps.filter((one) => PARTS[key].works.includes(one.work));
                setPart(key);
                setAt(nextOpen(own, laying.ticks, 0));
              }}
            >
              {PARTS[key].words}
            </Button>
          ))}
        </div>
        <span className="ml-auto text-lg font-bold">
          {done} of {steps.length}
        </span>
        <Button aria-pressed={isList} onClick={() => setList(!isList)}>
          {isList ? "One by one" : "All"}
        </Button>
      </div>
      {done === steps.length && steps.length > 0 && (
        <p>
          <Standing ready words={PARTS[part].done} /> {part !== "lay" && told.verdict}
        </p>
      )}
      {part === "put-up" && <StopWatch steps={steps} laying={laying} />}
      {isList ? (
        <All
          steps={steps}
          laying={laying}
          onPick={(picked) => {
            setAt(picked);
            setList(false);
          }}
        />
      ) : (
        step && <One step={step} isDone={isDone} sides={told.sides} />
      )}
      {!isList && step && (
        <div className="mt-auto grid grid-cols-[1fr_2fr_1fr] gap-2">
          <Button className="min-h-16 text-lg!" onClick={() => go(index - 1)}>
            Back
          </Button>
          <Button look={isDone ? "usual" : "act"} className="min-h-16 text-2xl!" onClick={tick}>
            {isDone ? "Not done" : "Done ✓"}
          </Button>
          <Button className="min-h-16 text-lg!" onClick={() => go(index + 1)}>
            Next
          </Button>
        </div>
      )}
      <Signal done={done} />
    </div>
  );
}

function One({ step, isDone, sides }: { step: Step; isDone: boolean; sides: string }) {
  return (
    <section aria-label="This step" aria-live="polite" className="grid gap-3">
      <div className="flex items-center gap-4">
        {step.letter && (
          <span className="border-ink flex h-24 w-24 shrink-0 items-center justify-center rounded-full border-4 text-6xl font-bold">
            {step.letter}
          </span>
        )}
        <div className="min-w-0">
          <p className="text-faint text-lg">
            {WORK[step.work]}
            {isDone ? " · done" : ""}
          </p>
          <h2 className="text-3xl leading-tight font-bold break-words">{step.title}</h2>
        </div>
      </div>
      <dl className="grid gap-1">
        {step.measures.map((measure) => (
          <div key={measure.label}>
            <dt className="text-faint text-xl">{measure.label}</dt>
            {/* Short values are as large as the page allows; long ones are words. */}
            <dd
              className={
                measure.value.length <= 10 ? "text-7xl leading-none font-bold" : "text-3xl font-bold"
              }
            >
              {measure.value}
            </dd>
          </div>
        ))}
      </dl>
      {step.notes.map((note) => (
        <p key={note} className="text-xl">
          {capital(note)}
        </p>
      ))}
      <p className="text-faint text-sm">{sides}</p>
    </section>
  );
}

interface AllProps {
  steps: Step[];
  laying: Laying;
  onPick: (index: number) => void;
}

function All({ steps, laying, onPick }: AllProps) {
  return (
    <ol className="border-line bg-paper divide-line divide-y rounded-lg border">
      {steps.map((step, index) => {
        const tick = laying.ticks.get(step.id);
        return (
          <li key={step.id} className="flex items-stretch">
            <label className="flex w-14 cursor-pointer items-center justify-center">
              <input
                type="checkbox"
                className="accent-ember h-6 w-6"
                aria-label={`${step.letter ?? ""} ${step.title}: done`.trim()}
                checked={tick?.done === true}
                onChange={(event) => laying.tick(step.id, event.target.checked)}
              />
            </label>
            <button
              type="button"
              className="min-h-12 min-w-0 flex-1 cursor-pointer py-1.5 pr-3 text-left"
              onClick={() => onPick(index)}
            >
              <span className="font-semibold">
                {step.letter ? `${step.letter} · ` : ""}
                {step.title}
              </span>{" "}
              <span className="text-faint">
                {step.measures.map((one) => `${one.label} ${one.value}`).join(", ")}
                {tick?.done && tick.by ? ` · ${tick.by}` : ""}
              </span>
            </button>
          </li>
        );
      })}
    </ol>
  );
}
