// The set-up card as it prints, and its files.
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useParams } from "react-router";

import { api } from "../api/client";
import { Shell } from "../ui/Shell";
import { Trouble, Waiting } from "../ui/states";

export function CardPage() {
  const id = Number(useParams().id);
  const corner = useQuery({ queryKey: ["corner", id], queryFn: () => api.corner(id) });
  const [paper, setPaper] = useState(corner.data?.brief.units === "imperial" ? "letter" : "a4");
  const frame = useRef<HTMLIFrameElement>(null);
  if (corner.isPending) return <Shell title="Set-up card">{<Waiting what="Writing the card" />}</Shell>;
  if (corner.isError)
    return (
      <Shell title="Set-up card">
        {<Trouble error={corner.error} onRetry={() => void corner.refetch()} />}
      </Shell>
    );
  const url = (format: string, more = "") => `/api/v1/corners/${id}/card/${format}?paper=${paper}${more}`;
  return (
    <Shell
      title={`Set-up card: ${corner.data.name}`}
      aside={
        <>
          <Link to={`/corners/${id}`} className="button">
            Back to the corner
          </Link>
          <label className="flex items-center gap-2 text-sm">
            Paper
            <select className="field w-auto" value={paper} onChange={(event) => setPaper(event.target.value)}>
              <option value="a4">A4</option>
              <option value="letter">Letter</option>
            </select>
          </label>
          <a className="button" href={url("svg", "&download=1")}>
            SVG
          </a>
          <a className="button" href={url("csv", "&download=1")}>
            CSV
          </a>
          <button
            type="button"
            className="button button-act"
            onClick={() => frame.current?.contentWindow?.print()}
          >
            Print
          </button>
        </>
      }
    >
      {corner.data.layout ? (
        <iframe
          ref={frame}
          title="Set-up card"
          src={url("html")}
          className="sheet mx-auto block h-[1180px] w-full max-w-[860px] bg-white"
        />
      ) : (
        <p>Nothing fits this corner yet, so there is no card.</p>
      )}
    </Shell>
  );
}
