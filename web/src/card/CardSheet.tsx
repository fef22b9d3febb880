// The set-up card as it prints, and its files.
import { useQuery } from "@tanstack/react-query";
import { useRef, useState } from "react";

import { api } from "../api/client";
import { Trouble, Waiting } from "../ui/states";

interface Props {
  id: number;
  /** Rises with every save, so that the card shown is the plan kept. */
  revision: number;
  imperial: boolean;
}

export function CardSheet({ id, revision, imperial }: Props) {
  const [paper, setPaper] = useState(imperial ? "letter" : "a4");
  const frame = useRef<HTMLIFrameElement>(null);
  const url = (format: string, more = "") => `/api/v1/corners/${id}/card/${format}?paper=${paper}${more}`;
  const card = useQuery({
    queryKey: ["card", id, revision, paper],
    queryFn: () => api.card(id, paper),
    staleTime: Infinity,
  });
  return (
    <section className="card-sheet" aria-labelledby="card">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <h2 id="card" className="heading mr-auto">
          Set-up card
        </h2>
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
          disabled={card.data === undefined}
          onClick={() => frame.current?.contentWindow?.print()}
        >
          Print
        </button>
      </div>
      {card.isPending && <Waiting what="Writing the card" />}
      {card.isError && <Trouble error={card.error} onRetry={() => void card.refetch()} />}
      {card.data !== undefined && (
        <iframe
          ref={frame}
          title="Set-up card"
          srcDoc={card.data}
          className="sheet mx-auto block h-[1180px] w-full max-w-[860px] bg-white"
        />
      )}
    </section>
  );
}
