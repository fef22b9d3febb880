// A new corner, or the answers behind one: six short pages in the order of the work.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useNavigate, useParams } from "react-router";

import { api, Refused, type Brief } from "../api/client";
import { Shell } from "../ui/Shell";
import { Trouble, Waiting } from "../ui/states";
import type { Change } from "./change";
import {
  briefOf,
  draftKey,
  draftOf,
  fieldFor,
  forget,
  inUnits,
  newDraft,
  recall,
  remember,
  type Draft,
} from "./draft";
import type { Problems } from "./reader";
import { RoomSketch } from "./RoomSketch";
import { fieldsOf, STEPS, StepFields } from "./steps";

export function BriefPage() {
  const { id } = useParams();
  if (id === undefined) return <BriefForm start={newDraft} corner={null} />;
  return <ExistingBrief id={Number(id)} />;
}

function ExistingBrief({ id }: { id: number }) {
  const corner = useQuery({ queryKey: ["corner", id], queryFn: () => api.corner(id), staleTime: 0 });
  if (corner.isPending) return <Shell title="Answers">{<Waiting what="Opening the answers" />}</Shell>;
  if (corner.isError)
    return (
      <Shell title="Answers">{<Trouble error={corner.error} onRetry={() => void corner.refetch()} />}</Shell>
    );
  const { name, brief, revision } = corner.data;
  return <BriefForm key={revision} start={() => draftOf(name, brief)} corner={{ id, revision, brief }} />;
}

interface FormProps {
  /** The answers to begin with, where none were left unfinished. */
  start: () => Draft;
  corner: { id: number; revision: number; brief: Brief } | null;
}

function BriefForm({ start, corner }: FormProps) {
  const key = draftKey(corner);
  const [draft, setDraft] = useState(() => recall(key) ?? start());
  // Kept from the first change on: looking is not changing.
  const [touched, setTouched] = useState(() => recall(key) !== null);
  const [step, setStep] = useState(0);
  const [tried, setTried] = useState(false);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const heading = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    if (touched) remember(key, draft);
  }, [touched, key, draft]);
  const { name, brief, problems } = briefOf(draft);
  const send = useMutation({
    mutationFn: async () => {
      if (!corner) return api.create({ format: "fogon.brief", version: 1, name, brief });
      // What was measured in another room, or of a person who sat otherwise, does not go along.
      const { measured } = await api.measured({ brief: corner.brief }, { brief });
      const now = { ...brief, measured };
      const file = { format: "fogon.brief", version: 1, name, brief: now };
      const best = (await api.propose(name, now)).proposals[0];
      return api.save(corner.id, corner.revision, best?.plan ?? file);
    },
    onSuccess: async (kept) => {
      forget(key);
      await queries.invalidateQueries();
      await navigate(`/corners/${kept.id}`);
    },
  });
  const refused = send.error instanceof Refused ? (send.error.details.errors ?? []) : [];
  const shown: Problems = tried ? { ...serverProblems(refused, draft), ...problems } : {};
  const change: Change = (patch) => {
    setTouched(true);
    setDraft((d) => {
      const units = patch.texts?.units;
      const read = units === undefined ? d : inUnits(d, units === "imperial" ? "imperial" : "metric");
      return { ...read, ...patch, texts: { ...read.texts, ...patch.texts } };
    });
  };
  const startOver = () => {
    forget(key);
    setTouched(false);
    setTried(false);
    setDraft(start());
  };
  const go = (to: number) => {
    setStep(to);
    heading.current?.focus();
  };
  const submit = () => {
    setTried(true);
    const bad = Object.keys(problems);
    if (bad.length === 0) {
      send.mutate();
      return;
    }
    const first = STEPS.findIndex((_, index) =>
      bad.some((field) =>
        fieldsOf(index).some((own) => field === own || (own.endsWith(".") && field.startsWith(own))),
      ),
    );
    if (first >= 0) go(first);
  };
  const title = STEPS[step]?.title ?? "";
  return (
    <Shell title={corner ? `Answers: ${name}` : "New corner"}>
      <div className="grid gap-6 lg:grid-cols-[13rem_minmax(0,1fr)_20rem]">
        <nav aria-label="Steps">
          <ol className="flex flex-wrap gap-1 lg:block">
            {STEPS.map((s, index) => {
              const bad = Object.keys(shown).filter((f) =>
                fieldsOf(index).some((own) => f === own || (own.endsWith(".") && f.startsWith(own))),
              ).length;
              return (
                <li key={s.title}>
                  <button
                    type="button"
                    className={`flex min-h-10 w-full items-center gap-2 rounded px-3 py-1.5 text-left ${index === step ? "bg-paper font-bold" : ""}`}
                    aria-current={index === step ? "step" : undefined}
                    onClick={() => go(index)}
                  >
                    <span className="text-faint w-4 text-sm">{index + 1}</span>
                    {s.title}
                    {bad > 0 && <span className="text-ember ml-auto text-sm font-bold">▲ {bad}</span>}
                  </button>
                </li>
              );
            })}
          </ol>
        </nav>
        <form
          className="min-w-0"
          onSubmit={(event) => {
            event.preventDefault();
            if (step < STEPS.length - 1) go(step + 1);
            else submit();
          }}
        >
          <h2 ref={heading} tabIndex={-1} className="mb-1 text-2xl font-bold outline-none">
            {title}
          </h2>
          <p className="text-faint mb-5">{STEPS[step]?.lead}</p>
          <StepFields step={step} draft={draft} problems={shown} change={change} />
          {send.isError && (
            <div className="mt-5">
              <Trouble error={send.error} />
            </div>
          )}
          {tried && Object.keys(problems).length > 0 && (
            <p role="alert" className="text-ember mt-5 font-semibold">
              ▲{" "}
              {Object.keys(problems).length === 1
                ? "One answer needs mending."
                : `${Object.keys(problems).length} answers need mending.`}{" "}
              Nothing is lost.
            </p>
          )}
          <div className="mt-7 flex flex-wrap gap-3">
            {step > 0 && (
              <button type="button" className="button" onClick={() => go(step - 1)}>
                Back
              </button>
            )}
            {step < STEPS.length - 1 && (
              <button type="submit" className="button">
                Next: {STEPS[step + 1]?.title}
              </button>
            )}
            <button type="button" className="button button-act" disabled={send.isPending} onClick={submit}>
              {send.isPending
                ? "Looking for the best layout …"
                : corner
                  ? "Save and lay out again"
                  : "Lay out the corner"}
            </button>
            {touched && (
              <button type="button" className="button" onClick={startOver}>
                {corner ? "Drop these changes" : "Start over"}
              </button>
            )}
          </div>
        </form>
        <aside className="sheet h-fit p-4" aria-label="The room so far">
          <p className="mb-2 text-sm font-semibold">The room so far, from above</p>
          <RoomSketch draft={draft} />
        </aside>
      </div>
    </Shell>
  );
}

function serverProblems(
  errors: { field: string; accepted: string; value: string }[],
  draft: Draft,
): Problems {
  const found: Problems = {};
  for (const { field, accepted, value } of errors) {
    const own = fieldFor(field, draft);
    if (own) found[own] = `${value} is not accepted: give ${accepted}.`;
  }
  return found;
}
