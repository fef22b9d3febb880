// What a page says while it waits, when nothing is there, and when something went wrong.
import { Link } from "react-router";

import { Refused } from "../api/client";
import { Shell } from "./Shell";

export function Waiting({ what }: { what: string }) {
  return (
    <p role="status" className="text-faint py-10">
      {what} …
    </p>
  );
}

/** A refusal in words, field by field. */
export function Trouble({
  error,
  onRetry,
  retryWords = "Try again",
}: {
  error: unknown;
  onRetry?: () => void;
  retryWords?: string;
}) {
  const refused = error instanceof Refused ? error : null;
  const words = refused ? refused.details.title : "The server cannot be reached. Is it still running?";
  const fields = refused?.details.errors ?? [];
  return (
    <div role="alert" className="border-ember bg-ember-soft rounded border-2 p-4">
      <p className="font-semibold">
        <span aria-hidden="true">▲ </span>
        {words}
      </p>
      {fields.length > 1 && (
        <ul className="mt-2 list-disc pl-5 text-sm">
          {fields.map((f) => (
            <li key={f.field}>{f.sentence}</li>
          ))}
        </ul>
      )}
      {onRetry && (
        <button type="button" className="button mt-3" onClick={onRetry}>
          {retryWords}
        </button>
      )}
    </div>
  );
}

export function NotFound() {
  return (
    <Shell title="Not here">
      <p className="mb-4">There is no page at this address.</p>
      <Link to="/" className="button">
        All corners
      </Link>
    </Shell>
  );
}
