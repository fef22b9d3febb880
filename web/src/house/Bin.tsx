// What was deleted: brought back, or gone for good.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api, type Schemas } from "../api/client";
import { ago } from "../corners/ago";
import { Button } from "../ui/button";
import { Ask } from "../ui/dialog";
import { Section, SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";

type Deleted = Schemas["Deleted"];
const DAY = new Intl.DateTimeFormat(undefined, { dateStyle: "medium" });

export function Bin() {
  const queries = useQueryClient();
  const bin = useQuery({ queryKey: ["bin"], queryFn: api.bin });
  const [asking, setAsking] = useState<Deleted | "all" | null>(null);
  const onSettled = () => queries.invalidateQueries();
  const restore = useMutation({ mutationFn: api.restore, onSettled });
  const remove = useMutation({
    mutationFn: (what: Deleted | "all") => (what === "all" ? api.emptyBin() : api.deleteForGood(what.id)),
    onSettled,
  });
  const error = restore.error ?? remove.error;
  const all = bin.data ?? [];
  return (
    <Section
      first
      title="Bin"
      className={`${SHEET} p-4`}
      aside={
        all.length > 0 && (
          <Button size="small" onClick={() => setAsking("all")}>
            Empty it
          </Button>
        )
      }
    >
      {bin.isPending && <Waiting what="Looking into the bin" />}
      {bin.isError && <Trouble error={bin.error} onRetry={() => void bin.refetch()} />}
      {bin.data && all.length === 0 && (
        <p className="text-faint text-sm">Nothing is in it. What you delete stays here for 30 days.</p>
      )}
      <ul>
        {all.map((one) => (
          <li
            key={one.id}
            className="border-line flex flex-wrap items-center gap-2 border-b py-2 last:border-b-0"
          >
            <span className="mr-auto min-w-0">
              <span className="font-semibold">{one.name}</span>
              <span className="text-faint block text-sm">
                deleted {ago(one.deleted_ms)}, goes for good on {DAY.format(one.goes_ms)}
              </span>
            </span>
            <span className="flex gap-1">
              <Button size="small" onClick={() => restore.mutate(one.id)}>
                Bring it back
              </Button>
              <Button size="small" look="quiet" onClick={() => setAsking(one)}>
                Delete for good
              </Button>
            </span>
          </li>
        ))}
      </ul>
      {error && <Trouble error={error} />}
      <Ask
        open={asking !== null}
        onOpenChange={(open) => !open && setAsking(null)}
        title={asking === "all" || asking === null ? "Empty the bin?" : `Delete “${asking.name}” for good?`}
        words="It cannot be brought back: the file is written anew without it, and so is the last snapshot; older snapshots are dropped."
        yes="Delete for good"
        no="Cancel"
        onYes={() => asking && remove.mutate(asking)}
      />
    </Section>
  );
}
