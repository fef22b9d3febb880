// The answers behind a corner, or behind a new one: six pages in the order of the work. Changed answers are saved with everything
// where it stands, or the corner is laid out again around what is locked.
import { zodResolver } from "@hookform/resolvers/zod";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { FormProvider, useForm, useWatch, type Resolver } from "react-hook-form";
import { useNavigate, useParams } from "react-router";

import { api, Refused, type Brief } from "../api/client";
import { RoomSketch } from "../drawing/RoomSketch";
import { count } from "../units/text";
import { Button, ButtonLink } from "../ui/button";
import { SHEET } from "../ui/Section";
import { Shell } from "../ui/Shell";
import { Trouble, Waiting } from "../ui/states";
import { newAnswers, type Answers } from "./answers";
import { answersOf } from "./fromBrief";
import { forget, keptName, recall, remember } from "./kept";
import { PAGES } from "./pages";
import { fieldFor } from "./refused";
import { save } from "./save";
import { answersSchema, type Read } from "./schema";
import { briefSoFar } from "./toBrief";

/** The answers of a corner; of a new one, beginning with what is already answered. */
export function AnswersPage({ begin }: { begin?: Answers }) {
  const { id } = useParams();
  return id === undefined ? (
    <AnswersForm opened={begin ?? newAnswers()} corner={null} />
  ) : (
    <OfCorner id={Number(id)} />
  );
}

function OfCorner({ id }: { id: number }) {
  const corner = useQuery({
    queryKey: ["corner", id],
    queryFn: () => api.corner(id),
    // What is typed stays, whatever another window saves meanwhile.
    refetchOnWindowFocus: false,
  });
  if (corner.isError && !corner.data)
    return (
      <Shell title="Answers">
        <Trouble error={corner.error} onRetry={() => void corner.refetch()} />
      </Shell>
    );
  if (!corner.data) return <Shell title="Answers">{<Waiting what="Opening the answers" />}</Shell>;
  return <AnswersForm key={id} opened={answersOf(corner.data)} corner={corner.data} />;
}

interface FormProps {
  /** The answers as they are, where none were left unsaved. */
  opened: Answers;
  corner: { id: number; brief: Brief; layout?: unknown } | null;
}

/** Reads the answers by what they themselves ask for. */
const resolve: Resolver<Answers, unknown, Read> = (values, context, options) =>
  (zodResolver(answersSchema(values) as never) as unknown as Resolver<Answers, unknown, Read>)(
    values,
    context,
    options,
  );

function AnswersForm({ opened, corner }: FormProps) {
  const name = keptName(corner?.id ?? null);
  const [kept] = useState(() => recall(name));
  const [start] = useState(kept?.opened ?? opened);
  const form = useForm<Answers, unknown, Read>({
    defaultValues: kept?.answers ?? opened,
    resolver: resolve,
    mode: "onSubmit",
    reValidateMode: "onChange",
  });
  const answers = useWatch({ control: form.control }) as Answers;
  const [page, setPage] = useState(0);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const heading = useRef<HTMLHeadingElement>(null);
  const touched = JSON.stringify(answers) !== JSON.stringify(opened);
  useEffect(() => {
    if (touched) remember(name, { answers, opened: start });
  }, [touched, name, answers, start]);
  const send = useMutation({
    mutationFn: ({ read, again }: { read: Read; again: boolean }) =>
      save({ read, opened: start, corner: corner?.id ?? null, again }),
    onSuccess: async (saved) => {
      forget(name);
      await queries.invalidateQueries();
      await navigate(`/corners/${String(saved.id)}`);
    },
    onError: (error) => {
      if (!(error instanceof Refused)) return;
      for (const { field, accepted, value } of error.details.errors ?? []) {
        const own = fieldFor(field, form.getValues());
        if (own)
          form.setError(own as keyof Answers, { message: `${value} is not accepted: give ${accepted}.` });
      }
    },
  });
  const { errors } = form.formState;
  const wrong = (index: number) => PAGES[index]?.fields.filter((field) => errors[field]).length ?? 0;
  const go = (to: number) => {
    setPage(to);
    heading.current?.focus();
  };
  const submit = (again: boolean) =>
    void form.handleSubmit(
      (read) => send.mutate({ read, again }),
      (found) => {
        const first = PAGES.findIndex((one) => one.fields.some((field) => found[field]));
        if (first >= 0) go(first);
      },
    )();
  const { title, lead, Fields } = PAGES[page] ?? PAGES[0]!;
  const open = PAGES.reduce((sum, _, index) => sum + wrong(index), 0);
  return (
    <Shell
      title={corner ? `Answers: ${answers.name}` : "New corner"}
      aside={
        corner ? (
          <ButtonLink to={`/corners/${String(corner.id)}`}>Back to the corner</ButtonLink>
        ) : (
          <ButtonLink to="/new">Back to the short way</ButtonLink>
        )
      }
    >
      <FormProvider {...form}>
        <div className="grid gap-6 lg:grid-cols-[13rem_minmax(0,1fr)_20rem]">
          <nav aria-label="Pages">
            <ol className="flex flex-wrap gap-1 lg:block">
              {PAGES.map((one, index) => (
                <li key={one.title}>
                  <button
                    type="button"
                    className="aria-[current]:bg-paper flex min-h-10 w-full cursor-pointer items-center gap-2 rounded-lg px-3 py-1.5 text-left aria-[current]:font-bold"
                    aria-current={index === page ? "step" : undefined}
                    onClick={() => go(index)}
                  >
                    <span className="text-faint w-4 text-sm">{index + 1}</span>
                    {one.title}
                    {wrong(index) > 0 && (
                      <span className="text-ember ml-auto text-sm font-bold">▲ {wrong(index)}</span>
                    )}
                  </button>
                </li>
              ))}
            </ol>
          </nav>
          <form
            className="min-w-0"
            noValidate
            onSubmit={(event) => {
              event.preventDefault();
              if (page < PAGES.length - 1) go(page + 1);
              else submit(corner === null);
            }}
          >
            <h2 ref={heading} tabIndex={-1} className="mb-1 text-2xl font-bold outline-none">
              {title}
            </h2>
            <p className="text-faint mb-5">{lead}</p>
            <Fields />
            {send.isError && (
              <div className="mt-5">
                <Trouble error={send.error} />
              </div>
            )}
            {open > 0 && (
              <p role="alert" className="text-ember mt-5 font-semibold">
                ▲ {count(open, "answer needs", "answers need")} another look. Nothing is lost.
              </p>
            )}
            <div className="mt-7 flex flex-wrap gap-3">
              {page > 0 && <Button onClick={() => go(page - 1)}>Back</Button>}
              {page < PAGES.length - 1 && <Button type="submit">Next: {PAGES[page + 1]?.title}</Button>}
              <Send corner={corner} busy={send.isPending} onSend={submit} />
              {touched && (
                <Button
                  look="quiet"
                  onClick={() => {
                    forget(name);
                    form.reset(opened);
                  }}
                >
                  {corner ? "Discard these changes" : "Start over"}
                </Button>
              )}
            </div>
          </form>
          <aside className={`${SHEET} h-fit p-4`} aria-label="The room so far">
            <p className="mb-2 text-sm font-semibold">The room so far, from above</p>
            <RoomSketch brief={briefSoFar(answers)} />
          </aside>
        </div>
      </FormProvider>
    </Shell>
  );
}

/** The ways to be done: a corner that has a layout keeps it, or is laid out again. */
function Send({
  corner,
  busy,
  onSend,
}: Pick<FormProps, "corner"> & { busy: boolean; onSend: (again: boolean) => void }) {
  if (busy) return <Button disabled>Working it out …</Button>;
  if (!corner?.layout)
    return (
      <Button look="act" onClick={() => onSend(true)}>
        {corner ? "Save and lay out" : "Lay out the corner"}
      </Button>
    );
  return (
    <>
      <Button look="act" onClick={() => onSend(false)}>
        Save, move nothing
      </Button>
      <Button onClick={() => onSend(true)}>Save and lay out again</Button>
    </>
  );
}
