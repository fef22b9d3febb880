// The first run: from nothing to a complete layout in few answers; and, by the second door, from a set-up that stands already to
// what is wrong with it.
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useNavigate, useSearchParams } from "react-router";

import { api } from "../api/client";
import { answersSchema } from "../answers/schema";
import { briefOf, briefSoFar } from "../answers/toBrief";
import { Button, ButtonLink } from "../ui/button";
import { SHEET } from "../ui/Section";
import { Shell } from "../ui/Shell";
import { Trouble } from "../ui/states";
import { useWindowSize } from "../ui/useWindowSize";
import { answersOf, forget, newFirstRun, recall, remember, type FirstRun } from "./firstRun";
import { PageFields } from "./PageFields";
import { PAGES, pageOf, STANDING } from "./pages";
import { Preview } from "./Preview";

export function StartPage() {
  const standing = useSearchParams()[0].get("door") === "today";
  const [{ run, page }, setKept] = useState(recall);
  const [tried, setTried] = useState(false);
  const heading = useRef<HTMLHeadingElement>(null);
  const narrow = useWindowSize().width < 1024;
  const navigate = useNavigate();
  const queries = useQueryClient();
  const pages = standing ? [...PAGES, STANDING] : PAGES;
  const at = Math.min(page, pages.length - 1);
  const answers = answersOf(run, standing);
  const read = answersSchema(answers).safeParse(answers);
  const problems: Record<string, string> = Object.fromEntries(
    read.success ? [] : read.error.issues.map((issue) => [issue.path.join("."), issue.message]),
  );
  const touched = run.answered.length > 0;
  useEffect(() => {
    if (touched || page > 0) remember(run, page);
  }, [run, page, touched]);
  const send = useMutation({
    mutationFn: () => {
      if (!read.success) throw new Error("not all answers can be read");
      const { name, brief } = briefOf(read.data, null, null);
      const { today } = brief;
      if (!standing || !today) return api.create({ format: "fogon.brief", version: 1, name, brief });
      // What stands is the plan to begin with: its findings are what is wrong.
      return api.create({ format: "fogon.plan", version: 1, name, brief, layout: { lights: {}, ...today } });
    },
    onSuccess: async (corner) => {
      forget();
      await queries.invalidateQueries();
      await navigate(`/corners/${String(corner.id)}`);
    },
  });
  const change = (next: Partial<FirstRun>) =>
    setKept((kept) => ({
      ...kept,
      run: {
        ...kept.run,
        ...next,
        answered: [...new Set([...kept.run.answered, ...Object.keys(next)])],
      },
    }));
  const go = (to: number) => {
    setKept((kept) => ({ ...kept, page: to }));
    heading.current?.focus();
    window.scrollTo({ top: 0 });
  };
  const finish = () => {
    setTried(true);
    const bad = Object.keys(problems);
    if (bad.length === 0) send.mutate();
    else go(Math.min(...bad.map((field) => pageOf(field, pages))));
  };
  /** What cannot be read is said once it was typed, or once it was needed. */
  const shown = Object.fromEntries(
    Object.entries(problems).filter(([field]) => tried || run.answered.includes(field.split(".")[0] ?? "")),
  );
  const last = at === pages.length - 1;
  const title = standing ? "Check my set-up" : "New corner";
  return (
    <Shell title={title} aside={<ButtonLink to="/new/all">Give every figure instead</ButtonLink>}>
      <div className="grid gap-6 lg:grid-cols-[9rem_minmax(0,1fr)_24rem]">
        <nav aria-label="Pages">
          <ol className="flex flex-wrap gap-1 lg:block">
            {pages.map((one, index) => {
              const bad = Object.keys(shown).some((field) => pageOf(field, pages) === index);
              return (
                <li key={one.title}>
                  <button
                    type="button"
                    className="aria-[current]:bg-paper min-h-10 cursor-pointer rounded-lg px-3 py-1.5 text-left aria-[current]:font-bold lg:w-full"
                    aria-current={index === at ? "step" : undefined}
                    onClick={() => go(index)}
                  >
                    <span className="text-faint text-sm">{index + 1}</span> {one.title}
                    {bad && <span className="text-ember font-bold"> ▲</span>}
                  </button>
                </li>
              );
            })}
          </ol>
        </nav>
        <form
          className="max-w-2xl min-w-0"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            if (last) finish();
            else go(at + 1);
          }}
        >
          <h2 ref={heading} tabIndex={-1} className="mb-1 text-2xl font-bold outline-none">
            {pages[at]?.title}
          </h2>
          <p className="text-faint mb-4">{pages[at]?.lead}</p>
          <PageFields page={pages[at]?.title ?? ""} run={run} problems={shown} onChange={change} />
          {send.isError && (
            <div className="mt-5">
              <Trouble error={send.error} />
            </div>
          )}
          <div className="mt-6 flex flex-wrap gap-3">
            {at > 0 && <Button onClick={() => go(at - 1)}>Back</Button>}
            {!last && (
              <Button type="submit" look="act">
                Next: {pages[at + 1]?.title}
              </Button>
            )}
            <Button
              type={last ? "submit" : "button"}
              look={last ? "act" : "usual"}
              disabled={send.isPending}
              onClick={last ? undefined : finish}
            >
              {send.isPending
                ? "Working it out …"
                : standing
                  ? "Check it"
                  : last
                    ? "Lay out the corner"
                    : "Skip the rest"}
            </Button>
            {touched && (
              <Button
                look="quiet"
                onClick={() => {
                  forget();
                  setTried(false);
                  setKept({ run: newFirstRun(run.units), page: 0 });
                }}
              >
                Start over
              </Button>
            )}
          </div>
        </form>
        <aside
          className={`${SHEET} h-fit p-4 max-lg:order-first max-lg:mx-auto max-lg:w-48 max-lg:p-2 lg:sticky lg:top-4`}
          aria-label="What is decided so far"
        >
          <Preview brief={briefSoFar(answers)} whole={read.success} narrow={narrow} />
        </aside>
      </div>
    </Shell>
  );
}
