// All corners as cards: open, make, import; found by name, sorted.
import { keepPreviousData, useInfiniteQuery, useMutation, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { useNavigate } from "react-router";

import { api, Refused, type Schemas } from "../api/client";
import { sendLeft } from "../table/left";
import { outbox } from "../table/useTable";
import { Banner } from "../ui/Banner";
import { Button, ButtonLink } from "../ui/button";
import { FilePicker } from "../ui/FilePicker";
import { Shell } from "../ui/Shell";
import { Trouble, Waiting } from "../ui/states";
import { CornerCard } from "./CornerCard";
import { Empty } from "./Empty";
import { Sorting } from "./Sorting";
import { sorted, type Order } from "./sorted";

const TOO_LARGE = {
  type: "problem:too_large",
  status: 413,
  title: "The file is larger than 1 MB, which is more than a plan can need.",
};
const LARGEST_BYTES = 1_000_000;

export function CornersPage() {
  const [order, setOrder] = useState<Order>("used");
  const [wanted, setWanted] = useState("");
  const corners = useInfiniteQuery({
    queryKey: ["corners", wanted.trim()],
    queryFn: ({ pageParam }) => api.corners(wanted.trim(), pageParam),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next,
    placeholderData: keepPreviousData,
  });
  const listed = corners.data?.pages.flatMap((page) => page.corners) ?? [];
  const many = corners.data?.pages[0]?.count ?? 0;
  const [gone, setGone] = useState<Schemas["Listed"] | null>(null);
  const undo = useRef<HTMLButtonElement>(null);
  useSendingLeft();
  const bring = useBring();
  const restore = useRestore(() => setGone(null));
  // After a corner is deleted the focus goes to what takes it back.
  useEffect(() => undo.current?.focus(), [gone]);
  const shown = sorted(listed, order);
  return (
    <Shell title="Your corners" aside={<Ways onFile={bring.mutate} />}>
      {gone && (
        <div className="mb-4 overflow-hidden rounded-lg">
          <Banner kind="tell" words={`“${gone.name}” is deleted.`}>
            <button
              ref={undo}
              type="button"
              className="border-line bg-paper min-h-8 cursor-pointer rounded-lg border px-3 text-sm font-semibold"
              onClick={() => restore.mutate(gone.id)}
            >
              Undo
            </button>
          </Banner>
        </div>
      )}
      {bring.isError && (
        <div className="mb-4">
          <p className="mb-2 font-semibold">The file is not opened; nothing was changed.</p>
          <Trouble error={bring.error} />
        </div>
      )}
      {corners.isPending && <Waiting what="Looking for your corners" />}
      {corners.isError && !corners.data && (
        <Trouble error={corners.error} onRetry={() => void corners.refetch()} />
      )}
      {corners.data && many === 0 && wanted.trim() === "" && <Empty />}
      {corners.data && (many > 0 || wanted.trim() !== "") && (
        <>
          <Sorting
            many={wanted.trim() === "" ? many : Infinity}
            order={order}
            wanted={wanted}
            onOrder={setOrder}
            onWanted={setWanted}
          />
          {shown.length === 0 && <p>No corner is called “{wanted}”.</p>}
          <ul className="grid gap-4 sm:grid-cols-2 xl:grid-cols-3">
            {shown.map((corner) => (
              <CornerCard key={corner.id} corner={corner} onDeleted={setGone} />
            ))}
          </ul>
          {corners.hasNextPage && (
            <p className="mt-5 flex flex-wrap items-center gap-3">
              <Button disabled={corners.isFetchingNextPage} onClick={() => void corners.fetchNextPage()}>
                Show more
              </Button>
              <span className="text-faint text-sm">
                {listed.length} of {many} are shown{order === "used" ? "" : ", and sorted"}.
              </span>
            </p>
          )}
        </>
      )}
    </Shell>
  );
}

/** Ways to come by a corner. */
function Ways({ onFile }: { onFile: (file: File) => void }) {
  return (
    <>
      <ButtonLink look="quiet" className="max-sm:order-1" to="/kept">
        Backups and bin
      </ButtonLink>
      {/* On a phone the way to a new corner stands beside the title, the others below. */}
      <FilePicker
        what="Plan or brief file"
        accept=".json,application/json"
        className="max-sm:order-1"
        onFile={onFile}
      >
        Open a file
      </FilePicker>
      <ButtonLink className="max-sm:order-1" to="/new?door=today">
        Check my set-up
      </ButtonLink>
      <ButtonLink look="act" to="/new">
        New corner
      </ButtonLink>
    </>
  );
}

/** What earlier pages left unsaved is sent on its way; what has to be asked about is asked where its corner is opened. */
function useSendingLeft(): void {
  useEffect(() => {
    sendLeft(null, outbox(), api.save, () => crypto.randomUUID()).catch(() => undefined);
  }, []);
}

function useBring() {
  const navigate = useNavigate();
  const queries = useQueryClient();
  return useMutation({
    mutationFn: async (file: File) => {
      // A file that cannot be a plan is not read into memory to be told so.
      if (file.size > LARGEST_BYTES) throw new Refused(TOO_LARGE, TOO_LARGE.status);
      return api.importText(await file.text());
    },
    onSuccess: async (corner) => {
      await queries.invalidateQueries({ queryKey: ["corners"] });
      await navigate(`/corners/${String(corner.id)}`);
    },
  });
}

function useRestore(onDone: () => void) {
  const queries = useQueryClient();
  return useMutation({
    mutationFn: api.restore,
    onSuccess: async () => {
      onDone();
      await queries.invalidateQueries({ queryKey: ["corners"] });
    },
  });
}
