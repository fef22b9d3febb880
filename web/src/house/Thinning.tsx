// How long saves are kept.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { api, type Schemas } from "../api/client";
import { NumberBox } from "../ui/boxes";
import { Tick } from "../ui/fields";
import { Section, SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";

type Rule = Schemas["Thinning"];

/** Days that may be said; a hundred years. */
const DAYS: [number, number] = [1, 36_500];
const YEAR = 365;
/** How long saves are kept in which number. */
const STRETCHES = [
  ["all_days", "All of them for"],
  ["hourly_days", "Then one an hour until"],
  ["daily_days", "Then one a day until"],
] as const;

export function Thinning() {
  const queries = useQueryClient();
  const rule = useQuery({ queryKey: ["thinning"], queryFn: api.thinning });
  const choose = useMutation({
    mutationFn: api.chooseThinning,
    onSettled: () => queries.invalidateQueries({ queryKey: ["thinning"] }),
  });
  const now = rule.data;
  const change = (by: Partial<Rule>) => now && choose.mutate({ ...now, ...by });
  return (
    <Section first title="How long saves are kept" className={`${SHEET} p-4`}>
      {rule.isPending && <Waiting what="Looking it up" />}
      {rule.isError && <Trouble error={rule.error} onRetry={() => void rule.refetch()} />}
      {now && (
        <>
          <p className="text-faint mb-2 text-sm">
            Every change is a save. Old ones are thinned out once a day; those with a name stay, and so does
            the last one.
          </p>
          <div className="grid gap-3 sm:grid-cols-2">
            {STRETCHES.map(([key, words]) => {
              const days = now[key];
              if (days == null) return null;
              return (
                <NumberBox
                  key={key}
                  label={words}
                  unit="days"
                  digits={0}
                  value={days}
                  within={DAYS}
                  onCommit={(to) => change({ [key]: to })}
                />
              );
            })}
          </div>
          <Tick
            label="Then one a day for good"
            checked={now.daily_days == null}
            onTick={(on) => change({ daily_days: on ? null : YEAR })}
          />
          {choose.error && <Trouble error={choose.error} />}
        </>
      )}
    </Section>
  );
}
