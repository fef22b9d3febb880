// A corner that is opened: what an earlier page left unsaved of it goes first, then the worktable.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { ErrorBoundary } from "react-error-boundary";
import { useParams } from "react-router";

import { api } from "../api/client";
import { sendLeft, type Left } from "../table/left";
import { placeOf } from "../table/place";
import { outbox } from "../table/useTable";
import { Button } from "../ui/button";
import { Shell } from "../ui/Shell";
import { BrokenDown, NotFound, Trouble, Waiting } from "../ui/states";
import { saveFile } from "./file";
import { Worktable } from "./Worktable";

export function CornerPage() {
  const { id: text, place: first, tab } = useParams();
  const id = Number(text);
  const place = placeOf(first, tab);
  const left = useQuery({
    queryKey: ["left", id],
    queryFn: () => sendLeft(id, outbox(), api.save, () => crypto.randomUUID()),
    staleTime: Infinity,
    gcTime: 0,
    retry: false,
  });
  const corner = useQuery({
    queryKey: ["corner", id],
    queryFn: () => api.corner(id),
    enabled: left.isSuccess,
  });
  useLeftLater(id);
  useAnsweredElsewhere(id, left.data);
  if (place === null || !Number.isInteger(id)) return <NotFound />;
  const error = left.error ?? corner.error;
  if (error && !corner.data)
    return (
      <Shell title="Corner">
        <Trouble error={error} onRetry={() => void (left.isError ? left.refetch() : corner.refetch())}>
          {outbox().newest(id) && (
            <Button size="small" onClick={() => saveFile(id, "corner")}>
              Save the unsaved plan as a file
            </Button>
          )}
        </Trouble>
      </Shell>
    );
  if (!corner.data || !left.data)
    return <Shell title="Corner">{<Waiting what="Opening the corner" />}</Shell>;
  const { data } = corner;
  return (
    <ErrorBoundary
      resetKeys={[id, first]}
      fallbackRender={({ error: broken }) => (
        <BrokenDown error={broken}>
          <Button onClick={() => saveFile(id, data.name)}>Save the plan as a file</Button>
        </BrokenDown>
      )}
    >
      <Worktable key={data.id} corner={data} place={place} left={left.data satisfies Left[]} />
    </ErrorBoundary>
  );
}

/** A page that is still open, or not quite closed, may leave something behind later: it is sent then, and shown. */
function useLeftLater(id: number): void {
  const queries = useQueryClient();
  useEffect(
    () =>
      outbox().whenLeft(id, () => {
        void queries
          .refetchQueries({ queryKey: ["left", id] })
          .then(() => queries.invalidateQueries({ queryKey: ["corner", id] }));
      }),
    [id, queries],
  );
}

/** What was left behind is asked about on every page of its corner, and answered on one of them. */
function useAnsweredElsewhere(id: number, left: Left[] | undefined): void {
  const queries = useQueryClient();
  useEffect(() => {
    const names = left?.map(({ entry }) => entry.name) ?? [];
    return outbox().whenDropped(names, () => void queries.refetchQueries({ queryKey: ["left", id] }));
  }, [id, left, queries]);
}
