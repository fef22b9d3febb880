// Sessions put into the good hours of the next days, and taken along as a calendar.
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";

import type { Plan } from "../api/client";
import { takeApi } from "../api/take";
import { NumberBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { handOut, stemOf } from "../ui/download";
import { Section, SHEET } from "../ui/Section";
import { Trouble } from "../ui/states";
import { dateOf } from "../units/time";

/** So many days are looked ahead. */
const AHEAD_MS = 6 * 24 * 3600 * 1000;

export function PlanSessions({ plan }: { plan: Plan }) {
  const [minutes, setMinutes] = useState(plan.brief.recording?.session_min ?? 60);
  const [wanted, setWanted] = useState(2);
  const zone = plan.brief.place?.time_zone ?? "UTC";
  const look = useMutation({
    mutationFn: () =>
      takeApi.sessions({
        plan,
        from: dateOf(Date.now()),
        to: dateOf(Date.now() + AHEAD_MS),
        minutes,
        count: wanted,
      }),
  });
  const when = new Intl.DateTimeFormat(undefined, {
    weekday: "long",
    day: "numeric",
    month: "short",
    hour: "2-digit",
    minute: "2-digit",
    timeZone: zone,
  });
  const found = look.data?.sessions;
  return (
    <Section first title="This week's sessions">
      <div className="flex flex-wrap items-end gap-3">
        <div className="w-24">
          <NumberBox
            label="Sessions"
            within={[1, 7]}
            digits={0}
            value={wanted}
            onCommit={(n) => setWanted(Math.round(n))}
          />
        </div>
        <div className="w-28">
          <NumberBox
            label="Each"
            unit="min"
            within={[5, 720]}
            digits={0}
            value={minutes}
            onCommit={setMinutes}
          />
        </div>
        <Button disabled={look.isPending} onClick={() => look.mutate()}>
          Put them into good hours
        </Button>
      </div>
      {look.error && <Trouble error={look.error} />}
      {found && (
        <div className="mt-2 grid gap-2">
          {found.length === 0 ? (
            <p className="text-sm">No good hour is long enough in these seven days.</p>
          ) : (
            <ul className={`${SHEET} divide-line divide-y text-sm`}>
              {found.map((one) => (
                <li key={one.start} className="px-3 py-1.5 font-semibold">
                  {when.format(new Date(one.start))}
                </li>
              ))}
            </ul>
          )}
          {found.length > 0 && found.length < wanted && (
            <p className="text-faint text-sm">More do not fit into the good hours of these days.</p>
          )}
          {found.length > 0 && (
            <div>
              <Button
                size="small"
                onClick={() =>
                  handOut(
                    new Blob([look.data?.ics ?? ""], { type: "text/calendar" }),
                    `${stemOf(plan.name)}-sessions.ics`,
                  )
                }
              >
                As a calendar
              </Button>
            </div>
          )}
          <p className="text-faint text-xs">
            Local time in {zone}. The light holds then, and nothing noisy is heard.
          </p>
        </div>
      )}
    </Section>
  );
}
