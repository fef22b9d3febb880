// The good hours of the next seven days as a list, and to take along.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api, type Plan, type Schemas } from "../api/client";
import { Button } from "../ui/button";
import { handOut, stemOf } from "../ui/download";
import { Section, SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import { dateAfter, hoursOf } from "./asked";
import { byDay, longestSlot, nextSlot, slotWords } from "./week";
import { duration } from "./words";
import { windowsShine } from "./windows";

const TYPES = { csv: "text/csv", ics: "text/calendar" } as const;
/** Days that are taken along. */
const TAKEN = 28;

export function Week({ plan, from }: { plan: Plan; from: string }) {
  const to = dateAfter(from, 6);
  const hours = useQuery(hoursOf(plan, from, to));
  const used = windowsShine(plan.brief);
  const hasLamp = Object.keys(plan.layout.lights ?? {}).length > 0;
  const zone = plan.brief.place?.time_zone ?? "UTC";
  const save = async (format: Schemas["HoursFormat"]) => {
    const text = await api.hoursFile({ plan, from, to: dateAfter(from, TAKEN - 1), format });
    handOut(new Blob([text], { type: TYPES[format] }), `${stemOf(plan.name)}-hours.${format}`);
  };
  return (
    <Section
      title={used ? "Good hours this week" : "Good hours this week with nothing covered"}
      aside={
        <span className="flex gap-2">
          <Button size="small" onClick={() => void save("ics")}>
            Four weeks as a calendar
          </Button>
          <Button size="small" onClick={() => void save("csv")}>
            As a table
          </Button>
        </span>
      }
    >
      {hours.isPending && <Waiting what="Looking for good hours" />}
      {hours.isError && <Trouble error={hours.error} onRetry={() => void hours.refetch()} />}
      {hours.data && <Slots all={hours.data.intervals} zone={zone} />}
      {hours.data && (
        <ul className={`${SHEET} divide-line divide-y text-sm`}>
          {byDay(hours.data.intervals, zone, from, 7).map(({ date, label, stretches }) => (
            <li key={date} className="flex flex-wrap gap-x-4 px-3 py-1.5">
              <span className="w-28 font-semibold">{label}</span>
              <span>{stretches.length === 0 ? "no good hour" : stretches.join(", ")}</span>
            </li>
          ))}
        </ul>
      )}
      <p className="text-faint mt-1 text-xs">
        Local time in {zone}. The light that you want holds, and nothing of your noisy hours is heard.
        {!used && hasLamp && " Behind a covered window every quiet hour is as good."}
      </p>
    </Section>
  );
}

/** The next good slot and the longest one of the week. */
function Slots({ all, zone }: { all: Schemas["Interval"][]; zone: string }) {
  const [now] = useState(() => new Date());
  const [next, longest] = [nextSlot(all, now), longestSlot(all)];
  if (!longest) return <p className="mb-1.5 text-sm">No good hour in these seven days.</p>;
  const told = (slot: typeof longest) => `${slotWords(slot, zone)} (${duration(slot.minutes)})`;
  return (
    <p className="mb-1.5 text-sm">
      {next && next.start !== longest.start && `Next good slot: ${told(next)}. `}
      Longest: {told(longest)}.
    </p>
  );
}
