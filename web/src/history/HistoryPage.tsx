// Every save of a corner, by day: looked at beside how it is now, named, brought back.
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api, planOf, type Corner, type Plan, type Schemas } from "../api/client";
import { Changed } from "../compare/Changed";
import { Side } from "../compare/Side";
import { Pair } from "../picture/Pair";
import { useJudged } from "../picture/useJudged";
import { useTable } from "../table/useTable";
import { Button } from "../ui/button";
import { Rename } from "../ui/Rename";
import { SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import type { UnitSystem } from "../units/length";
import { byDay, CLOCK } from "./days";

type Saved = Schemas["Saved"];

interface Props {
  corner: Corner;
  plan: Plan;
  units: UnitSystem;
}

export function HistoryPage({ corner, plan, units }: Props) {
  const saves = useInfiniteQuery({
    queryKey: ["history", corner.id, corner.revision],
    queryFn: ({ pageParam }) => api.revisions(corner.id, pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: (page) => (page.length === PAGE ? page.at(-1)?.revision : undefined),
  });
  const all = saves.data?.pages.flat() ?? [];
  const [picked, setPicked] = useState<number | null>(null);
  // What was picked may have been thinned out meanwhile.
  const shown = all.find((save) => save.revision === picked) ?? all.at(1) ?? null;
  if (saves.isPending) return <Waiting what="Looking for your saves" />;
  if (saves.isError && all.length === 0)
    return <Trouble error={saves.error} onRetry={() => void saves.refetch()} />;
  return (
    <div className="grid items-start gap-5 md:grid-cols-[18rem_1fr]">
      <nav aria-label="Saves" className={`${SHEET} max-h-[70vh] overflow-auto`}>
        {byDay(all).map(([day, ofDay]) => (
          <section key={day} aria-label={day}>
            <h3 className="bg-desk text-faint px-3 py-1 text-xs font-semibold">{day}</h3>
            <ul>
              {ofDay.map((save) => (
                <li key={save.revision} className="border-line border-b last:border-b-0">
                  <button
                    type="button"
                    aria-current={save === shown ? "true" : undefined}
                    className="aria-[current]:bg-ember-soft flex min-h-10 w-full cursor-pointer items-baseline gap-2 px-3 py-1.5 text-left text-sm"
                    onClick={() => setPicked(save.revision)}
                  >
                    <span className="tabular-nums">{CLOCK.format(save.at_ms)}</span>
                    <span className="font-semibold">
                      {save.name ?? (save.revision === corner.revision ? "As it is now" : "")}
                    </span>
                    <span className="text-faint ml-auto text-xs">{save.revision}</span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        ))}
        {saves.hasNextPage && (
          <p className="p-2">
            <Button size="small" onClick={() => void saves.fetchNextPage()}>
              Older saves
            </Button>
          </p>
        )}
      </nav>
      {shown ? (
        <One key={shown.revision} save={shown} corner={corner} plan={plan} units={units} />
      ) : (
        <p className="text-faint">This is the first save. Every change that you make is kept here.</p>
      )}
    </div>
  );
}

/** Saves that the server lists at a time. */
const PAGE = 100;

/** One save beside how the corner is now. */
function One({ save, corner, plan, units }: Props & { save: Saved }) {
  const table = useTable();
  const queries = useQueryClient();
  const [naming, setNaming] = useState(false);
  const isNow = save.revision === corner.revision;
  const once = useQuery({
    queryKey: ["revision", corner.id, String(save.revision)],
    queryFn: () => api.revision(corner.id, save.revision),
    staleTime: Infinity,
  });
  const then = once.data ? planOf({ ...corner, ...once.data }) : null;
  const [left, right] = [useJudged(then), useJudged(isNow ? null : plan)];
  const name = useMutation({
    mutationFn: (called: string | null) => api.nameRevision(corner.id, save.revision, called),
    onSettled: () => queries.invalidateQueries({ queryKey: ["history", corner.id] }),
  });
  const back = useMutation({
    mutationFn: async () => {
      // What is on the table is saved first: it stays one step away.
      await table.flush();
      return api.bringBack(corner.id, table.view().kept.revision, save.revision);
    },
    onSuccess: (made) => table.takeKept(made),
    onSettled: () => queries.invalidateQueries({ queryKey: ["history", corner.id] }),
  });
  return (
    <div className="grid gap-4">
      <div className="flex flex-wrap items-center gap-2">
        <p className="mr-auto">
          <span className="font-bold">{save.name ?? `Save ${String(save.revision)}`}</span>
          <span className="text-faint">
            {" "}
            · {WHEN.format(save.at_ms)}
            {isNow ? " · as it is now" : ""}
          </span>
        </p>
        {!isNow && (
          <Button look="act" size="small" disabled={back.isPending} onClick={() => back.mutate()}>
            Bring it back
          </Button>
        )}
        <Button size="small" onClick={() => setNaming(true)}>
          {save.name === null ? "Name it" : "Rename it"}
        </Button>
        {save.name !== null && (
          <Button size="small" look="quiet" onClick={() => name.mutate(null)}>
            Take its name away
          </Button>
        )}
      </div>
      {(name.error ?? back.error) && <Trouble error={name.error ?? back.error} />}
      {once.isError && <Trouble error={once.error} onRetry={() => void once.refetch()} />}
      {once.data && !then && <p>Nothing fitted this corner then: there is no layout to show.</p>}
      {isNow ? (
        then && <Side side={left} name="now" />
      ) : (
        <>
          {then && left.judged && right.judged && (
            <Pair
              left={{ plan: then, view: left.judged.drawing.frame, name: "Then" }}
              right={{ plan, view: right.judged.drawing.frame, name: "Now" }}
            />
          )}
          <div className="grid gap-4 sm:grid-cols-2">
            {then && <Side side={left} name="then" />}
            <Side side={right} name="now" />
          </div>
          {left.judged && right.judged && (
            <Changed left={left.judged} right={right.judged} names={["Then", "Now"]} units={units} />
          )}
        </>
      )}
      <Rename
        what="this save"
        help="A save with a name is never thinned out."
        open={naming}
        name={save.name ?? ""}
        onClose={() => setNaming(false)}
        onName={(called) => name.mutate(called)}
      />
    </div>
  );
}

const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: "long", timeStyle: "short" });
