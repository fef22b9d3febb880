// How long sessions are kept: the person's own choice, for all corners.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { takeApi } from "../api/take";
import { FIELD_SMALL } from "../ui/note";
import { Section } from "../ui/Section";
import { Trouble } from "../ui/states";

const CHOICES: readonly (readonly [string, string])[] = [
  ["", "for good"],
  ["30", "for a month"],
  ["90", "for three months"],
  ["365", "for a year"],
];

export function KeptFor() {
  const queries = useQueryClient();
  const logging = useQuery({ queryKey: ["logging"], queryFn: takeApi.logging });
  const choose = useMutation({
    mutationFn: (days: string) => takeApi.chooseLogging({ days: days === "" ? null : Number(days) }),
    onSettled: () => queries.invalidateQueries({ queryKey: ["logging"] }),
  });
  const days = logging.data?.days ?? null;
  const value = days === null ? "" : String(days);
  const options = CHOICES.some(([key]) => key === value)
    ? CHOICES
    : [...CHOICES, [value, `for ${value} days`] as const];
  return (
    <Section first title="How long it is kept">
      <label className="flex flex-wrap items-center gap-2 text-sm">
        Sessions of every corner are kept
        <select
          className={`${FIELD_SMALL} w-auto!`}
          disabled={!logging.data || choose.isPending}
          value={value}
          onChange={(event) => choose.mutate(event.target.value)}
        >
          {options.map(([key, words]) => (
            <option key={key} value={key}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <p className="text-faint mt-1 text-sm">
        The logbook lies in Fogon&rsquo;s own file on this computer and goes nowhere else. Recordings and
        stills are not kept at all.
      </p>
      {choose.error && <Trouble error={choose.error} />}
    </Section>
  );
}
