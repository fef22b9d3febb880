// The take: what is to be shot, the script, the test, recording, and what is kept of it.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useSearchParams } from "react-router";

import { api, type Corner, type Plan } from "../api/client";
import { takeApi } from "../api/take";
import { useTable } from "../table/useTable";
import { Connection } from "../ui/Connection";
import { Trouble, Waiting } from "../ui/states";
import { Tabbed } from "../ui/tabs";
import { HowItStands } from "./HowItStands";
import { LogbookPart } from "./LogbookPart";
import { RecordPart } from "./RecordPart";
import { ScriptPart } from "./ScriptPart";
import { ShotsPart } from "./ShotsPart";
import { TestPart } from "./TestPart";
import { useLog, type Log } from "./useLog";

const PARTS = [
  ["shots", "Shots"],
  ["script", "Script"],
  ["test", "Test take"],
  ["record", "Record"],
  ["logbook", "Logbook"],
] as const;

export function TakePage({ corner, plan }: { corner: Corner; plan: Plan }) {
  const [asked, ask] = useSearchParams();
  const table = useTable();
  const queries = useQueryClient();
  const log = useLog(corner.id);
  const told = useQuery({
    queryKey: ["run", plan],
    queryFn: () => takeApi.run(plan),
    placeholderData: (before) => before,
    staleTime: Infinity,
  });
  const part = PARTS.find(([key]) => key === asked.get("part"))?.[0] ?? "test";
  const run = told.data?.run;
  const open = log.open;
  const tick = (shot: string, done: boolean) => {
    if (open)
      log.write({ kind: "shot", shot, done }, { uid: `${open.uid.slice(0, 24)}-${shot}`, session: open.uid });
  };
  const bringBack = (revision: number) => {
    void table
      .flush()
      .then(() => api.bringBack(corner.id, corner.revision, revision))
      .then((kept) => queries.setQueryData(["corner", corner.id], kept))
      .catch(() => undefined);
  };
  return (
    <div className="grid gap-2">
      <HowItStands log={log} run={run} />
      <Connection of={log} words={["entry", "entries"]} />
      <Tabbed
        label="Parts of the take"
        tabs={PARTS.map(([key, name]) => [
          key,
          name,
          key === "shots" ? (run?.shots.length ?? null) : key === "logbook" ? log.sessions.length : null,
        ])}
        value={part}
        onValue={(key) => ask({ part: key }, { replace: true })}
      >
        {told.error && !run && <Trouble error={told.error} onRetry={() => void told.refetch()} />}
        {!run && !told.error && <Waiting what="Reading the run sheet" />}
        {run && part === "shots" && <ShotsPart plan={plan} run={run} session={open} onTick={tick} />}
        {run && part === "script" && <ScriptPart plan={plan} run={run} />}
        {part === "test" && (
          <TestPart
            corner={corner.id}
            planned={told.data?.planned}
            keep={(what) => log.write(what, { session: open?.uid ?? alone(log, corner, run) })}
          />
        )}
        {run && part === "record" && (
          <RecordPart
            corner={corner.id}
            run={run}
            revision={corner.revision}
            log={log}
            standsAt={() => table.flush().then(() => table.view().kept.revision)}
            onBringBack={bringBack}
          />
        )}
        {part === "logbook" && <LogbookPart corner={corner.id} plan={plan} log={log} />}
      </Tabbed>
    </div>
  );
}

/** A test outside a session begins and ends one of its own. */
function alone(log: Log, corner: Corner, run: { stood: string[]; settings: string[] } | undefined): string {
  const at_ms = log.now_ms();
  return log.write(
    {
      kind: "session",
      begun_ms: at_ms,
      ended_ms: at_ms,
      revision: corner.revision,
      name: "Test",
      stood: run?.stood.slice(0, 60) ?? [],
      settings: run?.settings.slice(0, 60) ?? [],
    },
    {},
  );
}
