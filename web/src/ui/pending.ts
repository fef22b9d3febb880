// A value that is being changed: shown at once as the hand has put it, and asked for at once, so that what is done elsewhere
// meanwhile comes after it. Further steps start from what is shown: quick ones add up although answers are slow.
import { useEffect, useRef, useState } from "react";

export type Commit<T> = (value: T) => Promise<void> | void;
/** A new value, or how it comes from the one that is shown. */
export type Push<T> = (next: (shown: T) => T) => Promise<void>;

/** What is shown, and a way to change it; only the newest change is told that it failed. */
export function usePending<T>(value: T, commit: Commit<T>): [T, Push<T>] {
  const [pending, setPending] = useState<{ value: T } | null>(null);
  const shown = pending ? pending.value : value;
  const now = useRef(shown);
  const newest = useRef<{ value: T } | null>(null);
  useEffect(() => {
    now.current = shown;
  });
  const push: Push<T> = async (next) => {
    now.current = next(now.current);
    const mine = { value: now.current };
    newest.current = mine;
    setPending(mine);
    try {
      await commit(mine.value);
    } catch (trouble) {
      if (newest.current === mine) throw trouble;
    } finally {
      if (newest.current === mine) setPending(null);
    }
  };
  return [shown, push];
}
