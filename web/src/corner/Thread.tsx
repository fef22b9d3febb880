// The order of the work as a thread: each step with its state by shape and word, its number beside it; the picture docked below
// where it is not the subject.
import { useEffect, useRef } from "react";
import { Link } from "react-router";

import type { Schemas, Step, StepTold } from "../api/client";
import { addressOf } from "../table/place";

export const MARKS: Record<Schemas["StepState"], [string, string]> = {
  good: ["✓", "in order"],
  consider: ["○", "something could be better"],
  fix: ["▲", "something to mend"],
  stop: ["■", "something in the way"],
  open: ["◌", "waits for other steps"],
};

const STEP_LINK =
  "aria-[current]:bg-paper aria-[current]:border-l-ember flex min-h-14 items-center gap-2 border-l-3 border-l-transparent px-3 py-1.5 max-md:min-h-11";

interface Props {
  id: number;
  steps: StepTold[];
  step: Step | null;
  /** The take is open, which comes after the steps. */
  isTake: boolean;
  children?: React.ReactNode;
}

export function Thread({ id, steps, step, isTake, children }: Props) {
  const list = useRef<HTMLOListElement>(null);
  // On a phone the thread is a strip: the step at hand comes into sight.
  useEffect(() => {
    list.current
      ?.querySelector("[aria-current=step]")
      ?.scrollIntoView({ block: "nearest", inline: "center" });
  }, [step, isTake]);
  return (
    <div className="thread bg-desk flex min-h-0 flex-col">
      <nav aria-label="Order of the work" className="thread-steps overflow-auto">
        <ol ref={list} className="flex md:flex-col">
          {steps.map((told) => {
            const [mark, words] = MARKS[told.state];
            const warns = told.state === "fix" || told.state === "stop";
            return (
              <li key={told.step} className="shrink-0">
                <Link
                  to={addressOf(id, told.step)}
                  state={{ arrived: true }}
                  className={STEP_LINK}
                  aria-current={told.step === step ? "step" : undefined}
                >
                  <span className="min-w-0 grow">
                    <span className="block text-sm font-semibold">{told.title}</span>
                    <span className="text-faint block truncate text-xs max-md:hidden">{told.headline}</span>
                  </span>
                  <span className={`text-sm font-bold ${warns ? "text-ember" : "text-faint"}`}>
                    <span aria-hidden="true">{mark}</span>
                    <span className="sr-only">, {words}</span>
                  </span>
                </Link>
              </li>
            );
          })}
          <li className="shrink-0">
            <Link
              to={`/corners/${String(id)}/take`}
              className={STEP_LINK}
              aria-current={isTake ? "step" : undefined}
            >
              <span className="min-w-0 grow">
                <span className="block text-sm font-semibold">Take</span>
                <span className="text-faint block truncate text-xs max-md:hidden">test it, keep count</span>
              </span>
            </Link>
          </li>
        </ol>
      </nav>
      {children && (
        <aside aria-label="The picture" className="mt-auto p-2.5 max-md:hidden">
          {children}
        </aside>
      )}
    </div>
  );
}
