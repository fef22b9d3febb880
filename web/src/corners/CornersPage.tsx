// All corners: open, make, import, delete.
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useNavigate } from "react-router";

import { api, Refused, type Schemas } from "../api/client";
import { Shell } from "../ui/Shell";
import { Trouble, Waiting } from "../ui/states";
import { formatLength } from "../units/length";
import { Standing } from "../ui/Standing";

const TOO_LARGE = {
  type: "problem:too_large",
  status: 413,
  title: "The file is larger than 1 MB, which is more than a plan can need.",
};

export function CornersPage() {
  const corners = useQuery({ queryKey: ["corners"], queryFn: api.corners });
  const picker = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const queries = useQueryClient();
  const bring = useMutation({
    mutationFn: async (file: File) => {
      // A file that cannot be a plan is not read into memory to be told so.
      if (file.size > 1_000_000) throw new Refused(TOO_LARGE, TOO_LARGE.status);
      return api.importText(await file.text());
    },
    onSuccess: async (corner) => {
      await queries.invalidateQueries({ queryKey: ["corners"] });
      await navigate(`/corners/${corner.id}`);
    },
  });
  return (
    <Shell
      title="Your corners"
      aside={
        <>
          <input
            ref={picker}
            type="file"
            accept=".json,application/json"
            className="sr-only"
            aria-label="Plan or brief file"
            tabIndex={-1}
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) bring.mutate(file);
              event.target.value = "";
            }}
          />
          <button type="button" className="button" onClick={() => picker.current?.click()}>
            Open a file
          </button>
          <Link to="/new?door=today" className="button">
            What is wrong with mine?
          </Link>
          <Link to="/new" className="button button-act">
            New corner
          </Link>
        </>
      }
    >
      <div className="max-w-4xl">
        {bring.isError && (
          <div className="mb-4">
            <p className="mb-2 font-semibold">The file was not taken; nothing was changed.</p>
            <Trouble error={bring.error} />
          </div>
        )}
        {corners.isPending && <Waiting what="Looking for your corners" />}
        {corners.isError && <Trouble error={corners.error} onRetry={() => void corners.refetch()} />}
        {corners.data?.length === 0 && (
          <div className="sheet p-6">
            <p className="heading mb-1">No corner yet</p>
            <p className="text-faint mb-4">Give a room, yourself and what you own; a layout follows.</p>
            <p className="flex flex-wrap gap-3">
              <Link to="/new" className="button button-act">
                Make the first one
              </Link>
              <Link to="/new?door=today" className="button">
                I already have a set-up: tell me what is wrong
              </Link>
            </p>
          </div>
        )}
        {corners.data && corners.data.length > 0 && (
          <ul className="sheet divide-line divide-y">
            {corners.data.map((corner) => (
              <Row key={corner.id} corner={corner} />
            ))}
          </ul>
        )}
      </div>
    </Shell>
  );
}

function Row({ corner }: { corner: Schemas["Listed"] }) {
  const queries = useQueryClient();
  const [sure, setSure] = useState(false);
  const remove = useMutation({
    mutationFn: () => api.remove(corner.id, corner.revision),
    onSettled: () => queries.invalidateQueries({ queryKey: ["corners"] }),
  });
  const { told } = corner;
  const size = told?.room_m.map((side) => formatLength(side, told.units)).join(" × ");
  const saved = new Date(corner.updated_ms).toLocaleString(undefined, {
    dateStyle: "medium",
    timeStyle: "short",
  });
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-2 px-4 py-3">
      <div className="mr-auto min-w-0">
        {told ? (
          <Link
            to={`/corners/${corner.id}`}
            className="text-lg font-semibold underline-offset-4 hover:underline"
          >
            {corner.name}
          </Link>
        ) : (
          <span className="text-lg font-semibold">{corner.name}</span>
        )}
        <p className="text-faint text-sm">
          {size && `${size} · `}saved {saved}
        </p>
        {corner.trouble && <p className="text-ember text-sm font-semibold">▲ {corner.trouble}</p>}
        {remove.isError && <Trouble error={remove.error} />}
      </div>
      {told?.verdict && <Standing ready={told.verdict.ready} words={told.verdict.sentence} />}
      {told && !told.verdict && !corner.trouble && <Standing ready={false} words="Nothing fits yet." />}
      {!told && (
        <a className="button" href={`/api/v1/corners/${corner.id}/file`} download>
          Save its file
        </a>
      )}
      {sure ? (
        <span className="flex gap-2">
          <button type="button" className="button button-act" onClick={() => remove.mutate()}>
            Delete it
          </button>
          <button type="button" className="button" onClick={() => setSure(false)}>
            Keep it
          </button>
        </span>
      ) : (
        <button
          type="button"
          className="button"
          aria-label={`Delete ${corner.name}`}
          onClick={() => setSure(true)}
        >
          Delete
        </button>
      )}
    </li>
  );
}
