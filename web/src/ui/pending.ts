// A value that is being changed: shown at once as the hand has put it, asked for one at a time, the newest next. Further steps
// start from what is shown, so that quick ones add up although answers are slow.
import { useEffect, useRef, useState } from "react";

export type Commit<T> = (value: T) => Promise<void> | void;
/** A new value, or how it comes from the one that is shown. */
export type Push<T> = (next: (shown: T) => T) => Promise<void>;

/** What is shown, and a way to change it; the change is over when all that was asked for has been answered. */
export function usePending<T>(value: T, commit: Commit<T>): [T, Push<T>] {
  const [pending, setPending] = useState<{ value: T } | null>(null);
  const shown = pending ? pending.value : value;
  const now = useRef(shown);
  const latest = useRef(commit);
  const asked = useRef<{ value: T } | null>(null);
  const under = useRef<Promise<void> | null>(null);
  useEffect(() => {
    now.current = shown;
    latest.current = commit;
  });
  const run = async () => {
    try {
      while (asked.current) {
        const next = asked.current;
        asked.current = null;
        await latest.current(next.value);
      }
    } finally {
      under.current = null;
      asked.current = null;
      setPending(null);
    }
  };
  const push: Push<T> = (next) => {
    now.current = next(now.current);
    asked.current = { value: now.current };
    setPending(asked.current);
    under.current ??= run();
    return under.current;
  };
  return [shown, push];
}
