// The order of the work as a thread with a knot for each step: its state by shape and word, its number beside it.
import { useEffect, useRef } from "react";
import { Link } from "react-router";

import type { Knot, State, Step } from "./thread";

export const MARKS: Record<State, [string, string]> = {
  good: ["✓", "in order"],
  consider: ["○", "something to consider"],
  fix: ["▲", "something to mend"],
  stop: ["■", "something in the way"],
  open: ["◌", "open"],
};

export function Thread({ id, knots, step }: { id: number; knots: Knot[]; step: Step | null }) {
  const list = useRef<HTMLOListElement>(null);
  // On a phone the thread is a strip: the step at hand comes into sight.
  useEffect(() => {
    list.current
      ?.querySelector("[aria-current=step]")
      ?.scrollIntoView({ block: "nearest", inline: "center" });
  }, [step]);
  return (
    <nav aria-label="Order of the work" className="thread">
      <ol ref={list}>
        {knots.map((knot, index) => {
          const [mark, words] = MARKS[knot.state];
          const warns = knot.state === "fix" || knot.state === "stop";
          return (
            <li key={knot.step}>
              <Link
                to={`/corners/${id}/${knot.step}`}
                className="knot"
                aria-current={knot.step === step ? "step" : undefined}
              >
                <span className={`knot-mark ${warns ? "text-ember" : ""}`} aria-hidden="true">
                  {mark}
                </span>
                <span className="min-w-0">
                  <span className="knot-title">
                    <span className="text-faint knot-number">{index + 1}</span> {knot.title}
                  </span>
                  <span className="knot-headline">{together(knot.headline)}</span>
                  <span className="sr-only">, {words}</span>
                </span>
              </Link>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

/** A number keeps its unit on its line. */
const together = (words: string) => words.replaceAll(/(\d) (?=[a-zA-Z×:])/g, "$1\u00a0");
