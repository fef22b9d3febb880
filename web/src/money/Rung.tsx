// One step of the ladder: what it is, what it costs, what it gains; why, on demand: its readings, and picture and sound before
// and after.
import { useState } from "react";

import type { Plan, Schemas } from "../api/client";
import { Pair } from "../picture/Pair";
import { useJudged } from "../picture/useJudged";
import { Listen } from "../hearing/Listen";
import { useTwoTakes } from "../hearing/useTwoTakes";
import { changed } from "../table/show";
import type { UnitSystem } from "../units/length";

interface Seen {
  before: Plan;
  after: Plan;
}

interface Props {
  number: number;
  title: string;
  cost: string;
  /** What has been spent after it, where that is more than its own cost. */
  total?: string | null;
  /** Points before and after. */
  gain?: string;
  changes: Schemas["Change"][];
  units: UnitSystem;
  /** The corner before and after it, to be looked at. */
  seen?: Seen | null;
  children?: React.ReactNode;
}

export function Rung({
  number,
  title,
  cost,
  total = null,
  gain,
  changes,
  units,
  seen = null,
  children,
}: Props) {
  const [open, setOpen] = useState(false);
  return (
    <li className="grid grid-cols-[1.5rem_minmax(0,1fr)_auto] items-start gap-x-2 px-3 py-2 text-sm">
      <span className="font-bold">{number}</span>
      <div>
        <p className="font-semibold">{title}</p>
        {children && <div>{children}</div>}
      </div>
      <div className="grid justify-items-end gap-1">
        <span className="font-bold whitespace-nowrap">{cost}</span>
        {total && <span className="text-faint text-xs whitespace-nowrap">{total} in all</span>}
        {gain && <span className="text-faint text-xs whitespace-nowrap">{gain} of 100</span>}
      </div>
      {changes.length > 0 && (
        <details
          className="col-span-full text-xs sm:col-span-2 sm:col-start-2"
          onToggle={(event) => setOpen(event.currentTarget.open)}
        >
          <summary className="text-faint min-h-6 cursor-pointer list-none underline decoration-dotted underline-offset-4">
            What it changes
          </summary>
          {open && seen && <BeforeAndAfter seen={seen} />}
          {open && seen && changes.some((c) => c.reading.startsWith("sound.")) && <Heard seen={seen} />}
          <ul>
            {changes.map((change) => {
              const words = changed(change, units);
              return words && <li key={change.reading}>{words}</li>;
            })}
          </ul>
        </details>
      )}
    </li>
  );
}

function BeforeAndAfter({ seen: { before, after } }: { seen: Seen }) {
  const [left, right] = [useJudged(before).judged, useJudged(after).judged];
  if (!left || !right) return null;
  return (
    <Pair
      left={{ plan: before, view: left.drawing.frame, name: "Before" }}
      right={{ plan: after, view: right.drawing.frame, name: "After" }}
      tallest="22vh"
    />
  );
}

function Heard({ seen: { before, after } }: { seen: Seen }) {
  const takes = useTwoTakes([before, "planned"], [after, "planned"]);
  return (
    <div className="my-2">
      <Listen takes={takes} names={{ a: "before", b: "after" }} />
    </div>
  );
}
