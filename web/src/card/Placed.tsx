// Where everything is and what decided that, in the order the marks are laid.
import type { Schemas } from "../api/client";
import { Section, SHEET } from "../ui/Section";

export function Placed({ placed, children }: { placed: Schemas["Placed"][]; children?: React.ReactNode }) {
  return (
    <Section title="Where everything goes, and why">
      {children}
      <dl className={`${SHEET} divide-line divide-y text-sm`}>
        {placed.map((thing) => (
          <div key={`${thing.letter}${thing.thing}`} className="gap-3 px-3 py-2 sm:flex">
            <dt className="flex w-32 shrink-0 items-start gap-2 font-semibold">
              {thing.letter && (
                <span className="border-ink inline-flex h-5 w-5 shrink-0 items-center justify-center rounded-full border text-xs">
                  {thing.letter}
                </span>
              )}
              {thing.thing}
            </dt>
            <dd className="min-w-0">
              <p>{thing.place}</p>
              <p className="text-faint">{thing.why}</p>
            </dd>
          </div>
        ))}
      </dl>
    </Section>
  );
}
