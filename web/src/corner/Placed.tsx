// Where everything stands and what decided that, in the order the marks are laid.
import type { Schemas } from "../api/client";

export function Placed({ placed, reason }: { placed: Schemas["Placed"][]; reason: React.ReactNode }) {
  return (
    <section aria-labelledby="placed">
      <h2 id="placed" className="heading mb-2">
        Where everything stands, and why
      </h2>
      <div className="sheet p-4">
        {reason}
        <dl className="divide-line mt-2 divide-y">
          {placed.map((thing) => (
            <div key={`${thing.letter}${thing.thing}`} className="gap-3 py-2 sm:flex">
              <dt className="w-36 shrink-0 font-semibold">
                <span className="border-ink mr-2 inline-flex h-6 w-6 items-center justify-center rounded-full border text-sm font-bold">
                  {thing.letter}
                </span>
                {thing.thing}
              </dt>
              <dd className="min-w-0">
                <p>{thing.place}</p>
                <p className="text-faint text-sm">{thing.why}</p>
              </dd>
            </div>
          ))}
        </dl>
      </div>
    </section>
  );
}
