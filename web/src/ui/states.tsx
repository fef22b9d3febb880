// What a page says while it waits, when nothing is there, when something went wrong, and when it broke down.
import { Refused } from "../api/client";
import { Button, ButtonLink } from "./button";
import { Shell } from "./Shell";

export function Waiting({ what }: { what: string }) {
  return (
    <p role="status" className="text-faint flex items-center gap-3 py-10">
      <span
        aria-hidden="true"
        className="border-line border-t-ember h-5 w-5 animate-spin rounded-full border-2 motion-reduce:animate-none"
      />
      {what} …
    </p>
  );
}

interface TroubleProps {
  error: unknown;
  onRetry?: () => void;
  retryWords?: string;
  /** Other ways out. */
  children?: React.ReactNode;
}

/** A refusal in words, field by field. */
export function Trouble({ error, onRetry, retryWords = "Try again", children }: TroubleProps) {
  const refused = error instanceof Refused ? error : null;
  const words = refused
    ? refused.details.title
    : "The server cannot be reached. Is it still running? What has been changed is kept until it is back.";
  const fields = refused?.details.errors ?? [];
  return (
    <div
      role="alert"
      className="border-ember bg-ember-soft flex flex-wrap items-center gap-x-4 gap-y-2 rounded-lg border px-3 py-2"
    >
      <p className="mr-auto font-semibold">
        <span aria-hidden="true">▲ </span>
        {words}
      </p>
      {fields.length > 1 && (
        <ul className="w-full list-disc pl-5 text-sm">
          {fields.map((f) => (
            <li key={f.field}>{f.sentence}</li>
          ))}
        </ul>
      )}
      {(onRetry !== undefined || children !== undefined) && (
        <div className="flex flex-wrap gap-2">
          {onRetry && (
            <Button size="small" onClick={onRetry}>
              {retryWords}
            </Button>
          )}
          {children}
        </div>
      )}
    </div>
  );
}

export function NotFound() {
  return (
    <Shell title="Not found">
      <p className="mb-4">There is no page at this address.</p>
      <ButtonLink to="/">All corners</ButtonLink>
    </Shell>
  );
}

/** The page broke down: what was typed is safe, and there are ways on. */
export function BrokenDown({ error, children }: { error: unknown; children?: React.ReactNode }) {
  return (
    <Shell title="Something broke">
      <div role="alert" className="max-w-xl">
        <p className="mb-2 text-lg font-bold">
          This page broke down. That is a fault in Fogon, not in your plan.
        </p>
        <p className="mb-4">
          Nothing that you changed is lost: it is saved, or kept in this browser and saved when you open the
          corner again.
        </p>
        <div className="mb-4 flex flex-wrap gap-2">
          <Button look="act" onClick={() => location.reload()}>
            Load the page again
          </Button>
          {children}
          <a className="self-center underline" href="/">
            All corners
          </a>
        </div>
        <p className="text-faint text-sm">{error instanceof Error ? error.message : String(error)}</p>
      </div>
    </Shell>
  );
}
