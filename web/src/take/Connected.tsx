// Whether what is logged is on the server.
import type { Log } from "./useLog";

/** Says what is not sent. */
export function Connected({ log }: { log: Log }) {
  if (!log.isCut && !(log.wasCut && log.waiting === 0)) return null;
  const kept = log.waiting === 1 ? "One entry is" : `${String(log.waiting)} entries are`;
  const words = log.isCut
    ? log.waiting > 0
      ? `No connection. ${kept} kept here and sent later.`
      : "No connection. Go on: what you log is kept here and sent later."
    : "Connected again, everything is sent.";
  return (
    <p role="status" className={`text-sm ${log.isCut ? "text-ember font-semibold" : "text-faint"}`}>
      {words}
    </p>
  );
}
