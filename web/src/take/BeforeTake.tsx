// The list before a take: ticked or by keys, in ten seconds, and logged.
import { useState } from "react";

import { time } from "../units/time";
import { Button } from "../ui/button";
import { SHEET } from "../ui/Section";
import type { SessionTold } from "./log";
import type { Log } from "./useLog";

/** The list takes the keys as soon as it is there. */
const focused = (list: HTMLElement | null) => list?.focus();

interface Props {
  lines: string[];
  session: SessionTold;
  log: Log;
}

export function BeforeTake({ lines, session, log }: Props) {
  const [open, setOpen] = useState<{ begun_ms: number; ticked: ReadonlySet<number> } | null>(null);
  const last = session.checks.at(-1);
  const keep = (ticked: ReadonlySet<number>, begun_ms: number) => {
    const in_order = lines.filter((_, index) => ticked.has(index));
    const left = lines.filter((_, index) => !ticked.has(index));
    const seconds = Math.max(0, Math.round((log.now_ms() - begun_ms) / 100) / 10);
    log.write(
      { kind: "check", in_order, ...(left.length > 0 ? { left } : {}), seconds },
      { session: session.uid },
    );
    setOpen(null);
  };
  if (!open)
    return (
      <p className="flex flex-wrap items-center gap-2 text-sm">
        <span className="mr-auto">
          {last
            ? `✓ Checked at ${time(last.entry.at_ms)}${(last.what.left?.length ?? 0) > 0 ? `, ${String(last.what.left?.length)} left` : ""}.`
            : "Not checked yet in this session."}
        </span>
        <Button size="small" onClick={() => setOpen({ begun_ms: log.now_ms(), ticked: new Set() })}>
          Check before the take
        </Button>
      </p>
    );
  const { ticked, begun_ms } = open;
  const toggle = (index: number) => {
    const next = new Set(ticked);
    if (!next.delete(index)) next.add(index);
    setOpen({ begun_ms, ticked: next });
  };
  return (
    <section
      ref={focused}
      tabIndex={-1}
      aria-label="Before the take"
      className={`${SHEET} p-3 outline-none`}
      onKeyDown={(event) => {
        // The number of a line ticks it.
        const index = Number(event.key) - 1;
        if (Number.isInteger(index) && index >= 0 && index < lines.length) toggle(index);
      }}
    >
      <ol className="grid gap-1">
        {lines.map((line, index) => (
          <li key={line}>
            <label className="flex min-h-9 items-center gap-2.5 text-sm">
              <input
                type="checkbox"
                className="accent-ember h-6 w-6 shrink-0"
                checked={ticked.has(index)}
                onChange={() => toggle(index)}
              />
              <span>
                <span className="text-faint">{index + 1}</span> {line}
              </span>
            </label>
          </li>
        ))}
      </ol>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button
          look={ticked.size === lines.length ? "act" : "usual"}
          onClick={() => keep(ticked.size === 0 ? new Set(lines.keys()) : ticked, begun_ms)}
        >
          {ticked.size === 0
            ? "All in order"
            : ticked.size === lines.length
              ? "Done"
              : `Done, ${String(lines.length - ticked.size)} left`}
        </Button>
        <Button look="quiet" onClick={() => setOpen(null)}>
          Not now
        </Button>
      </div>
    </section>
  );
}
