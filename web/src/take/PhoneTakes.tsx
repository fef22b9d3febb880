// Takes counted on a phone: on the home network, and when that is gone.
import { useQuery } from "@tanstack/react-query";
import { useParams } from "react-router";

import { takeApi } from "../api/take";
import { ButtonLink } from "../ui/button";
import { Connection } from "../ui/Connection";
import { NotFound, Trouble, Waiting } from "../ui/states";
import { PageTitle, SkipLink } from "../ui/Shell";
import { useAwake } from "../ui/useAwake";
import { HowItStands } from "./HowItStands";
import { RecordPart } from "./RecordPart";
import { useLog } from "./useLog";

export function PhoneTakes() {
  const id = Number(useParams().id);
  return Number.isInteger(id) && id > 0 ? <Page corner={id} /> : <NotFound />;
}

function Page({ corner }: { corner: number }) {
  const log = useLog(corner);
  useAwake();
  const running = useQuery({
    queryKey: ["running", corner],
    queryFn: () => takeApi.running(corner),
    // What has been fetched stays when the network is gone.
    refetchInterval: 20_000,
  });
  const told = running.data;
  return (
    <div className="min-h-dvh">
      <PageTitle of={told ? `${told.name}, takes` : "Takes"} />
      <SkipLink />
      <header className="border-line bg-paper flex min-h-14 flex-wrap items-center gap-x-3 border-b px-4 py-1.5">
        <ButtonLink size="small" to={`/phone/${String(corner)}`}>
          Back
        </ButtonLink>
        <h1 className="mr-auto line-clamp-1 min-w-0 text-sm font-semibold">{told?.name ?? "Takes"}</h1>
        <Connection of={log} words={["entry", "entries"]} />
      </header>
      <main id="content" tabIndex={-1} className="px-4 py-3 outline-none">
        {told ? (
          <div className="grid gap-3">
            <HowItStands log={log} run={told.run} />
            <RecordPart
              corner={corner}
              run={told.run}
              revision={told.revision}
              log={log}
              standsAt={() => Promise.resolve(told.revision)}
            />
          </div>
        ) : running.error ? (
          <Trouble error={running.error} onRetry={() => void running.refetch()} />
        ) : (
          <Waiting what="Reading the run sheet" />
        )}
      </main>
    </div>
  );
}
