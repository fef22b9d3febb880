// How the day stands, in one sentence.
import { missingWords, statesOf, type Run } from "./log";
import type { Log } from "./useLog";

export function HowItStands({ log, run }: { log: Log; run: Run | undefined }) {
  const missing = run && log.open ? missingWords(statesOf(run, log.open)) : "";
  const words = log.open
    ? missing || "Every shot is done. Look at the kept takes, then end the session."
    : log.sessions[0]
      ? "Test it, then begin a session as last time."
      : "Record fifteen seconds before the first take: what is wrong is found now, not in the edit.";
  return (
    <p role="status" className="font-semibold">
      {words}
    </p>
  );
}
