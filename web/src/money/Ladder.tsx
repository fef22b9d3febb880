// What to do and what to buy, in order: free moves, what most homes have, purchases; then what is not bought, and why.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import type { Advice } from "../api/buying";
import { api, type PatchStep, type Plan, type Schemas } from "../api/client";
import { limits } from "../api/limits";
import { withBudget } from "../table/edits";
import { useTable } from "../table/useTable";
import { NumberBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { Section, SHEET } from "../ui/Section";
import { Slide } from "../ui/Slide";
import { Trouble, Waiting } from "../ui/states";
import type { UnitSystem } from "../units/length";
import { count } from "../units/text";
import { Curve } from "./Curve";
import { Rung } from "./Rung";
import { Shopping } from "./Shopping";
import { BUDGETS, budgetStep, points, sum } from "./sums";
import { withMeans, withPurchase } from "./bought";
import { moved } from "./today";
import { freeMovesOf, useAdvice, type Advised } from "./useAdvice";

interface Props {
  plan: Plan;
  units: UnitSystem;
}

export function Ladder({ plan, units }: Props) {
  const advised = useAdvice(plan);
  const { advice } = advised;
  const currency = plan.brief.money?.currency ?? "";
  return (
    <div className="grid gap-4">
      <Budget plan={plan} currency={currency} />
      {advice?.prices.note && <p className="text-sm">▲ {advice.prices.note}</p>}
      <FreeMoves plan={plan} units={units} />
      <OnItsWay advised={advised} currency={currency} />
      {advice && (
        <div className={`grid gap-4 ${advised.isOld ? "opacity-60" : ""}`}>
          <MeasureFirst all={advice.measure_first} />
          <Substitutes advice={advice} units={units} />
          <Purchases plan={plan} advice={advice} currency={currency} units={units} />
          <PassedOver all={advice.passed_over} currency={currency} />
        </div>
      )}
    </div>
  );
}

/** The sum, by a slider and exactly. */
function Budget({ plan, currency }: { plan: Plan; currency: string }) {
  const table = useTable();
  const budget = plan.brief.money?.budget ?? 0;
  const set = (value: number) => table.edit((p) => withBudget(p, value));
  return (
    <div className="grid max-w-xl grid-cols-[10rem_minmax(0,1fr)] items-end gap-4">
      <NumberBox
        label="Budget"
        unit={currency}
        value={budget}
        within={limits["Money.budget"]}
        digits={2}
        step={10}
        onCommit={set}
      />
      <Slide
        name="Budget, by steps"
        value={budgetStep(budget)}
        within={[0, BUDGETS.length - 1]}
        step={1}
        words={(at) => sum(BUDGETS[at] ?? 0, currency)}
        onSlide={(at) => set(BUDGETS[at] ?? 0)}
      />
    </div>
  );
}

function FreeMoves({ plan, units }: Props) {
  const table = useTable();
  const free = useQuery(freeMovesOf(plan));
  if (free.isPending) return <Waiting what="Trying moves" />;
  if (free.isError) return <Trouble error={free.error} onRetry={() => void free.refetch()} />;
  const { moves, score_now: now } = free.data;
  const today = moves[0]?.baseline === "today";
  const made = (p: Plan, patch: PatchStep[]) => (today ? moved(p, patch) : api.apply(p, patch));
  const applyAll = () =>
    table.act(async (p) => {
      let next = p;
      for (const move of moves) next = await made(next, move.patch);
      return next;
    });
  return (
    <Section
      title={today ? "Free moves, from how it is today" : "Free moves"}
      aside={
        moves.length > 1 && (
          <Button size="small" onClick={applyAll}>
            {today ? "I have made them all" : "Make them all in the plan"}
          </Button>
        )
      }
    >
      {moves.length === 0 ? (
        <p className="text-sm">
          No free move left: the same gear does no better elsewhere ({points(now)} of 100).
        </p>
      ) : (
        <ol className={`${SHEET} divide-line divide-y`}>
          {moves.map((move, index) => (
            <Rung
              key={move.label}
              number={index + 1}
              title={move.label}
              cost="free"
              gain={`${points(move.score_before)} → ${points(move.score_after)}`}
              changes={move.changes}
              units={units}
            >
              {move.cleared > 0 && `Clears ${count(move.cleared, "thing")} in the way.`}
            </Rung>
          ))}
        </ol>
      )}
    </Section>
  );
}

/** How far the work is, and what the table says until it is done. */
function OnItsWay({ advised, currency }: { advised: Advised; currency: string }) {
  const { line, isWorking, error, again, stop, advice } = advised;
  if (error) return <Trouble error={error} onRetry={again} />;
  if (!isWorking)
    return advice ? null : (
      <p className="flex flex-wrap items-center gap-3 text-sm">
        What to buy was not looked for to the end.
        <Button size="small" onClick={again}>
          Look for it
        </Button>
      </p>
    );
  const table = line?.line === "table" ? line : null;
  const how =
    line?.line === "progress"
      ? line.kits > 0
        ? `${count(line.kits, "kit")} taken apart and put together anew.`
        : `${count(line.tried, "thing")} laid out in this corner.`
      : "Begun.";
  return (
    <div className={`${SHEET} grid gap-2 p-3 text-sm`} role="status">
      <p className="flex flex-wrap items-center gap-3">
        <span className="mr-auto">
          <b>Looking for what to buy.</b> {table ? "By the table of gains, being checked:" : how}
        </span>
        <Button size="small" onClick={stop}>
          Stop
        </Button>
      </p>
      {table && (
        <p>
          {table.kit.length === 0
            ? "Nothing to buy."
            : `${table.kit.map((item) => item.label).join(", ")}: ${sum(table.spent, currency)}.`}
        </p>
      )}
    </div>
  );
}

function MeasureFirst({ all }: { all: Schemas["MeasureFirst"][] }) {
  if (all.length === 0) return null;
  return (
    <Section title="Measure first, for nothing">
      <ul className={`${SHEET} divide-line divide-y text-sm`}>
        {all.map((one) => (
          <li key={one.reading} className="px-3 py-2">
            <p className="font-semibold">{one.label}</p>
            <p>{one.reason}</p>
          </li>
        ))}
      </ul>
    </Section>
  );
}

function Substitutes({ advice, units }: { advice: Advice; units: UnitSystem }) {
  const table = useTable();
  const all = advice.substitutes;
  if (all.length === 0) return null;
  return (
    <Section title="What you may have at home">
      <ol className={`${SHEET} divide-line divide-y`}>
        {all.map((one, index) => (
          <Rung
            key={one.label}
            number={index + 1}
            title={one.label}
            cost="free"
            gain={`${points(one.score_before)} → ${points(one.score_after)}`}
            changes={one.changes}
            units={units}
            seen={advice.before ? { before: advice.before, after: one.plan } : null}
          >
            <span className="text-fix block">{one.caution}</span>
            <span className="mt-1 block">
              <Button size="small" onClick={() => table.act((p) => withMeans(p, one))}>
                I have it
              </Button>
            </span>
          </Rung>
        ))}
      </ol>
    </Section>
  );
}

interface PurchasesProps extends Props {
  advice: Advice;
  currency: string;
}

function Purchases({ plan, advice, currency, units }: PurchasesProps) {
  const table = useTable();
  const { path } = advice;
  return (
    <Section
      title="Purchases"
      aside={<span className="text-faint text-sm">budget {sum(advice.budget, currency)}</span>}
    >
      {path.length === 0 && <p className="mb-1 text-sm">{advice.sentence}</p>}
      <div className="grid items-start gap-3 min-[1500px]:grid-cols-[minmax(0,1fr)_16rem]">
        <div>
          {path.length > 0 && (
            <ol className={`${SHEET} divide-line divide-y`}>
              {path.map((step, index) => (
                <Rung
                  key={step.label}
                  number={index + 1}
                  title={step.label}
                  cost={sum(step.price, currency)}
                  total={index > 0 ? sum(step.spent, currency) : null}
                  gain={`${points(step.score_before ?? 0)} → ${points(step.score)}`}
                  changes={step.readings}
                  units={units}
                  seen={seenOf(advice, index)}
                >
                  {step.reason}
                  <Remarks items={step.items} currency={currency} />
                  {index === 0 && (
                    <span className="mt-1 block">
                      <Button
                        size="small"
                        onClick={() => table.act((p) => withPurchase(p, step, new Date()))}
                      >
                        I have bought it
                      </Button>
                    </span>
                  )}
                </Rung>
              ))}
            </ol>
          )}
          {path.length > 0 && (
            <p className="mt-1 text-sm">
              Together {sum(advice.spent, currency)}
              {advice.per_year > 0 && `, about ${sum(advice.per_year, currency)} for each year of its life`}.
            </p>
          )}
          <Shopping plan={plan} advice={advice} />
        </div>
        <Curve advice={advice} currency={currency} />
      </div>
    </Section>
  );
}

/** A step's corner before and after it. */
function seenOf(advice: Advice, index: number) {
  const before = index === 0 ? advice.before : advice.path[index - 1]?.plan;
  const after = advice.path[index]?.plan;
  return before && after ? { before, after } : null;
}

/** What is worth knowing of prices: used, rented first, a year's cost, cautions. */
function Remarks({ items, currency }: { items: Schemas["Item"][]; currency: string }) {
  const said = items.flatMap((item) => [
    ...(item.price_new != null
      ? [`${item.label}: usually bought used; new ${sum(item.price_new, currency)}.`]
      : []),
    ...(item.rent_first != null
      ? [`${item.label}: rent it for a day first, ${sum(item.rent_first, currency)}, and see.`]
      : []),
    ...(item.caution === "" ? [] : [item.caution]),
  ]);
  return said.map((words) => (
    <span key={words} className="text-faint block text-xs">
      {words}
    </span>
  ));
}

/** What is not bought, the nearest first; all of it on demand. */
function PassedOver({ all, currency }: { all: Schemas["PassedOver"][]; currency: string }) {
  const [open, setOpen] = useState(false);
  if (all.length === 0) return null;
  return (
    <details className="text-sm" onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-6 cursor-pointer font-bold">
        Not bought, and why ({count(all.length, "thing")})
      </summary>
      {open && (
        <ul className={`${SHEET} divide-line mt-1.5 divide-y`}>
          {all.map((one) => (
            <li key={one.id} className="flex flex-wrap gap-x-3 px-3 py-1.5">
              <span className="font-semibold">{one.label}</span>
              <span className="text-faint">{sum(one.price, currency)}</span>
              <span className="w-full sm:w-auto">{one.reason}</span>
            </li>
          ))}
        </ul>
      )}
    </details>
  );
}
