// Measures in words: what stands in the way first, what is in order folded away.
import type { Schemas } from "../api/client";
import { STANDING_MARKS, STANDING_WORDS } from "../table/show";
import { SHEET } from "../ui/Section";

type One = Schemas["MeasureTold"];

const RANK: Record<Schemas["Standing"], number> = { poor: 0, fair: 1, plain: 2, good: 3 };

export function ToldList({ all, label }: { all: One[]; label: string }) {
  const sorted = [...all].sort((a, b) => RANK[a.standing] - RANK[b.standing]);
  const open = sorted.filter(({ standing }) => standing === "poor" || standing === "fair");
  const rest = sorted.filter(({ standing }) => standing === "plain" || standing === "good");
  const good = rest.filter(({ standing }) => standing === "good").length;
  return (
    <div className="grid gap-2">
      {open.length > 0 && <Rows all={open} label={label} />}
      {rest.length > 0 && (
        <details open={open.length === 0} className="group">
          <summary className="min-h-8 cursor-pointer py-1 text-sm font-semibold">
            {good} in order{rest.length > good && `, ${String(rest.length - good)} for information`}
          </summary>
          <Rows all={rest} label={`${label}, the rest`} />
        </details>
      )}
    </div>
  );
}

function Rows({ all, label }: { all: One[]; label: string }) {
  return (
    <ul aria-label={label} className={`${SHEET} divide-line divide-y`}>
      {all.map((one) => (
        <li
          key={one.measure}
          className="grid gap-x-4 px-3 py-2 sm:grid-cols-[11rem_1fr]"
          data-measure={one.measure}
        >
          <div>
            <p className="flex items-baseline gap-1.5 text-sm font-semibold">
              <span className={one.standing === "poor" ? "text-ember" : ""}>
                <span aria-hidden="true" className="inline-block w-4">
                  {one.standing === "plain" ? "·" : STANDING_MARKS[one.standing]}
                </span>
                <span className="sr-only">
                  {one.standing === "plain" ? "for information" : STANDING_WORDS[one.standing]}
                </span>
              </span>
              {one.label}
            </p>
            <p className="pl-5.5">
              <span className="font-bold">{one.found}</span>
              {one.promised && <span className="text-faint block text-xs">planned {one.promised}</span>}
              {one.good && <span className="text-faint block text-xs">good: {one.good}</span>}
            </p>
          </div>
          <div className="text-sm">
            <p>{one.sentence}</p>
            {one.action && <p className="font-semibold">{one.action}</p>}
          </div>
        </li>
      ))}
    </ul>
  );
}

/** Beside the last takes of this corner. */
export function AgainstLast({ against }: { against: Schemas["Against"] }) {
  if (against.takes === 0)
    return <p className="text-faint text-sm">Keep it in the logbook: the next take is held against it.</p>;
  const last = against.takes === 1 ? "the last take" : `the last ${String(against.takes)} takes`;
  return (
    <div className={`${SHEET} px-3 py-2 text-sm`}>
      <p className="font-semibold">Against {last}</p>
      <ul>
        {against.told.map((words) => (
          <li key={words}>{words}</li>
        ))}
      </ul>
      <details>
        <summary className="text-faint min-h-6 cursor-pointer text-xs">Figures</summary>
        <dl className="grid grid-cols-[auto_1fr] gap-x-4">
          {against.figures.map((one) => (
            <div key={one.figure} className="contents">
              <dt>{one.label}</dt>
              <dd className={one.drifted ? "font-bold" : "text-faint"}>{one.words}</dd>
            </div>
          ))}
        </dl>
      </details>
    </div>
  );
}
