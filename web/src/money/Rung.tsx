// One step of the ladder: what it is, what it costs, what it gains; its readings on demand.
import type { Schemas } from "../api/client";
import { sentence } from "../table/show";
import type { UnitSystem } from "../units/length";

interface Props {
  number: number;
  title: string;
  cost: string;
  /** Points before and after. */
  gain?: string;
  changes: Schemas["Change"][];
  units: UnitSystem;
  children?: React.ReactNode;
}

export function Rung({ number, title, cost, gain, changes, units, children }: Props) {
  return (
    <li className="grid grid-cols-[1.5rem_minmax(0,1fr)_auto] items-start gap-x-2 px-3 py-2 text-sm">
      <span className="font-bold">{number}</span>
      <div>
        <p className="font-semibold">{title}</p>
        {children && <div>{children}</div>}
        {changes.length > 0 && (
          <details className="text-xs">
            <summary className="text-faint min-h-6 cursor-pointer list-none underline decoration-dotted underline-offset-4">
              What it changes
            </summary>
            <ul>
              {changes.map((c) => (
                <li key={c.reading}>
                  {c.label}: {sentence(c.from, c.unit, units, c.reading)} →{" "}
                  {sentence(c.to, c.unit, units, c.reading)}
                </li>
              ))}
            </ul>
          </details>
        )}
      </div>
      <div className="grid justify-items-end gap-1">
        <span className="font-bold whitespace-nowrap">{cost}</span>
        {gain && <span className="text-faint text-xs whitespace-nowrap">{gain} of 100</span>}
      </div>
    </li>
  );
}
