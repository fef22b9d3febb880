// The first run: from nothing to a complete layout in at most fifteen answers; and, by the second door, from a
// set-up that stands already to what is wrong with it.
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { Link, useNavigate, useSearchParams } from "react-router";

import { api } from "../api/client";
import { briefOf } from "../brief/draft";
import type { Problems } from "../brief/reader";
import { RoomSketch } from "../brief/RoomSketch";
import { Choice, TextField } from "../ui/fields";
import { Shell } from "../ui/Shell";
import { Trouble } from "../ui/states";
import { useWindowSize } from "../ui/useWindowSize";
import { defaultOf, draftFrom, inUnits, PAGES, questionOf, type Question } from "./questions";

const KEY = "fogon.first-run";

interface Kept {
  answers: Record<string, string>;
  page: number;
}

function recall(): Kept {
  try {
    const kept = JSON.parse(localStorage.getItem(KEY) ?? "null") as Kept | null;
    if (kept && typeof kept.page === "number" && typeof kept.answers === "object") return kept;
  } catch {
    // What cannot be read is as good as nothing.
  }
  return { answers: {}, page: 0 };
}

export function StartPage() {
  const standing = useSearchParams()[0].get("door") === "today";
  const [{ answers, page }, setKept] = useState(recall);
  const [tried, setTried] = useState(false);
  const heading = useRef<HTMLHeadingElement>(null);
  const narrow = useWindowSize().width < 1024;
  const navigate = useNavigate();
  const queries = useQueryClient();
  const pages = standing ? [...PAGES.map((p) => p.title), "As it stands"] : PAGES.map((p) => p.title);
  const at = Math.min(page, pages.length - 1);
  const draft = draftFrom(answers, standing);
  const { name, brief, problems } = briefOf(draft);
  const touched = Object.keys(answers).length > 0;
  useEffect(() => {
    if (touched || page > 0) localStorage.setItem(KEY, JSON.stringify({ answers, page }));
  }, [answers, page, touched]);

  const send = useMutation({
    mutationFn: () => {
      const { today } = brief;
      if (!standing || !today) return api.create({ format: "fogon.brief", version: 1, name, brief });
      // What stands is the plan to begin with: its findings are what is wrong.
      return api.create({ format: "fogon.plan", version: 1, name, brief, layout: { lights: {}, ...today } });
    },
    onSuccess: async (kept) => {
      localStorage.removeItem(KEY);
      await queries.invalidateQueries();
      await navigate(`/corners/${kept.id}`);
    },
  });
  const answer = (id: string) => (text: string) =>
    setKept((k) => ({ ...k, answers: { ...k.answers, [id]: text } }));
  const go = (to: number) => {
    setKept((k) => ({ ...k, page: to }));
    heading.current?.focus();
  };
  const pageOf = (field: string) => {
    const index = PAGES.findIndex((p) => p.questions.some((q) => q.id === questionOf(field)));
    return index < 0 ? pages.length - 1 : index;
  };
  const finish = () => {
    setTried(true);
    const bad = Object.keys(problems);
    if (bad.length === 0) send.mutate();
    else go(Math.min(...bad.map(pageOf)));
  };
  /** What cannot be read is said once it was typed, or once it was needed. */
  const shown: Problems = Object.fromEntries(
    Object.entries(problems).filter(([field]) => tried || (answers[questionOf(field)] ?? "") !== ""),
  );
  const last = at === pages.length - 1;
  const units = brief.units ?? "metric";
  return (
    <Shell
      title={standing ? "What is wrong with my set-up" : "New corner"}
      aside={
        <>
          <button
            type="button"
            className="button"
            onClick={() => setKept((k) => ({ ...k, answers: inUnits(k.answers, units) }))}
          >
            {units === "metric" ? "Feet and inches" : "Metres"}
          </button>
          <Link className="button" to="/new/all">
            Give every figure instead
          </Link>
        </>
      }
    >
      <div className="start">
        <nav aria-label="Pages">
          <ol className="start-pages">
            {pages.map((title, index) => {
              const bad = Object.keys(shown).some((field) => pageOf(field) === index);
              return (
                <li key={title}>
                  <button
                    type="button"
                    className="start-page"
                    aria-current={index === at ? "step" : undefined}
                    onClick={() => go(index)}
                  >
                    <span className="text-faint text-sm">{index + 1}</span> {title}
                    {bad && <span className="text-ember font-bold"> ▲</span>}
                  </button>
                </li>
              );
            })}
          </ol>
        </nav>
        <form
          className="max-w-xl min-w-0"
          onSubmit={(event) => {
            event.preventDefault();
            if (last) finish();
            else go(at + 1);
          }}
        >
          <h2 ref={heading} tabIndex={-1} className="mb-1 text-2xl font-bold outline-none">
            {pages[at]}
          </h2>
          {at < PAGES.length ? (
            <>
              <p className="text-faint mb-5">{PAGES[at]?.lead}</p>
              <div className="grid gap-5">
                {PAGES[at]?.questions.map((question) => (
                  <Ask
                    key={question.id}
                    question={question}
                    value={answers[question.id]}
                    usual={defaultOf(question.id, answers)}
                    problem={problemOf(question.id, shown)}
                    onAnswer={answer(question.id)}
                  />
                ))}
              </div>
            </>
          ) : (
            <AsItStands answers={answers} problems={shown} onAnswer={answer} />
          )}
          {send.isError && (
            <div className="mt-5">
              <Trouble error={send.error} />
            </div>
          )}
          <div className="mt-7 flex flex-wrap gap-3">
            {at > 0 && (
              <button type="button" className="button" onClick={() => go(at - 1)}>
                Back
              </button>
            )}
            {!last && (
              <button type="submit" className="button button-act">
                Next: {pages[at + 1]}
              </button>
            )}
            <button
              type={last ? "submit" : "button"}
              className={`button ${last ? "button-act" : ""}`}
              disabled={send.isPending}
              onClick={last ? undefined : finish}
            >
              {send.isPending
                ? "Working it out …"
                : standing
                  ? "Tell me what is wrong"
                  : last
                    ? "Lay out the corner"
                    : "Skip the rest"}
            </button>
            {touched && (
              <button
                type="button"
                className="button"
                onClick={() => {
                  localStorage.removeItem(KEY);
                  setTried(false);
                  setKept({ answers: {}, page: 0 });
                }}
              >
                Start over
              </button>
            )}
          </div>
        </form>
        <aside className="start-sketch" aria-label="The room so far">
          <p className="mb-2 text-sm font-semibold max-lg:hidden">So far, from above, to scale</p>
          <RoomSketch draft={draft} textScale={narrow ? 1.7 : 1} />
        </aside>
      </div>
    </Shell>
  );
}

function problemOf(question: string, problems: Problems): string | undefined {
  return Object.entries(problems).find(([field]) => questionOf(field) === question)?.[1];
}

interface AskProps {
  question: Question;
  value: string | undefined;
  /** What stands there where it is not answered. */
  usual: string;
  problem: string | undefined;
  onAnswer: (text: string) => void;
}

/** One question; a default that nobody has confirmed is marked as assumed. */
function Ask({ question, value, usual, problem, onAnswer }: AskProps) {
  const assumed = value === undefined && usual !== "";
  const help = [assumed ? "Assumed: change it if it is otherwise." : "", question.help ?? ""]
    .filter((words) => words !== "")
    .join(" ");
  const shared = { label: question.label, help: help || undefined, problem, value: value ?? usual };
  return question.options ? (
    <Choice {...shared} options={question.options} onChange={onAnswer} />
  ) : (
    <TextField {...shared} placeholder={question.placeholder} onChange={onAnswer} />
  );
}

const ROWS: [string, string, [string, string][]][] = [
  [
    "Your eyes, where you talk",
    "Needed.",
    [
      ["todayX", "From the left wall"],
      ["todayY", "From the back wall"],
    ],
  ],
  [
    "The lens",
    "Needed. It is taken to point at your face.",
    [
      ["todayLensX", "From the left wall"],
      ["todayLensY", "From the back wall"],
      ["todayLensZ", "Height"],
      ["todayFocal", "Focal length, mm"],
      ["todayF", "f-number"],
    ],
  ],
  [
    "The main light, middle of its face",
    "Leave it empty if none stands.",
    [
      ["todayKeyX", "From the left wall"],
      ["todayKeyY", "From the back wall"],
      ["todayKeyZ", "Height"],
    ],
  ],
  [
    "The microphone",
    "Leave it empty if none stands.",
    [
      ["todayMicX", "From the left wall"],
      ["todayMicY", "From the back wall"],
      ["todayMicZ", "Height"],
    ],
  ],
];

interface StandsProps {
  answers: Record<string, string>;
  problems: Problems;
  onAnswer: (id: string) => (text: string) => void;
}

function AsItStands({ answers, problems, onAnswer }: StandsProps) {
  return (
    <>
      <p className="text-faint mb-5">
        Measure each from the left and from the back wall of the drawing. What you give is drawn at once.
      </p>
      <div className="grid gap-6">
        {ROWS.map(([title, lead, fields]) => (
          <fieldset key={title}>
            <legend className="font-bold">{title}</legend>
            <p className="text-faint mb-2 text-sm">{lead}</p>
            <div className="grid grid-cols-2 gap-3 sm:grid-cols-3">
              {fields.map(([id, label]) => (
                <TextField
                  key={id}
                  label={label}
                  value={answers[id] ?? ""}
                  problem={problems[id]}
                  onChange={onAnswer(id)}
                />
              ))}
            </div>
          </fieldset>
        ))}
      </div>
    </>
  );
}
