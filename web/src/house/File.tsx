// The file that holds the corners: where it lies, whether it is sound, which copies of it there are.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";

import { api } from "../api/client";
import { Button } from "../ui/button";
import { Section, SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import { count } from "../units/text";
import { size } from "./size";

const WHEN = new Intl.DateTimeFormat(undefined, { dateStyle: "medium", timeStyle: "short" });

export function File() {
  const queries = useQueryClient();
  const file = useQuery({ queryKey: ["file"], queryFn: api.file });
  const snapshot = useMutation({
    mutationFn: api.snapshot,
    onSettled: () => queries.invalidateQueries({ queryKey: ["file"] }),
  });
  const report = file.data?.report;
  return (
    <Section first title="The file" className={`${SHEET} p-4`}>
      {file.isPending && <Waiting what="Looking the file through" />}
      {file.isError && <Trouble error={file.error} onRetry={() => void file.refetch()} />}
      {file.data && report && (
        <>
          <p className="text-sm">
            Everything is kept in one file on this machine:
            <span className="my-1 block font-mono text-xs break-all">{file.data.path}</span>
            {size(file.data.bytes)}, {count(report.corners, "corner", "corners")} with{" "}
            {count(report.saves, "save", "saves")}.
          </p>
          {report.wrong.length === 0 ? (
            <p className="mt-2 text-sm">
              <span className="text-good font-semibold">✓ Nothing is wrong with it.</span>
            </p>
          ) : (
            <div role="alert" className="border-ember bg-ember-soft mt-2 rounded-lg border p-3 text-sm">
              <ul className="list-disc pl-5">
                {report.wrong.map((words) => (
                  <li key={words}>{words}</li>
                ))}
              </ul>
              {report.mending && (
                <>
                  <p className="mt-2 font-semibold">It can be mended: {report.mending}</p>
                  <p>
                    Stop Fogon, then run <code className="font-mono">fogon doctor --mend</code> in a terminal.
                  </p>
                </>
              )}
            </div>
          )}
          <h3 className="mt-3 mb-1 text-sm font-semibold">Snapshots</h3>
          <p className="text-faint text-sm">
            One a day, the last seven are kept. To go back to one, stop Fogon and run{" "}
            <code className="font-mono">fogon restore</code> with its file.
          </p>
          <ul className="mt-1 text-sm">
            {report.snapshots.map((one) => (
              <li key={one.path} className="border-line border-b py-1 last:border-b-0">
                {WHEN.format(one.at_ms)}, {size(one.bytes)}
                <span className="text-faint block font-mono text-xs break-all">{one.path}</span>
              </li>
            ))}
          </ul>
          <Button
            size="small"
            className="mt-2"
            disabled={snapshot.isPending}
            onClick={() => snapshot.mutate()}
          >
            Take one now
          </Button>
          {snapshot.error && <Trouble error={snapshot.error} />}
        </>
      )}
    </Section>
  );
}
