// The set-up card as it prints, whole, as large as its place allows.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import { api } from "../api/client";
import { kept } from "../picture/options";
import { Trouble, Waiting } from "../ui/states";
import { PAPERS, type Paper } from "./paper";

interface Props {
  id: number;
  /** Rises with every save, so that the card shown is the plan that is saved. */
  revision: number;
  paper: Paper;
  /** Pixels that it may take. */
  room: { width: number; height: number };
  frame: React.RefObject<HTMLIFrameElement | null>;
}

/** Pixels of a millimetre as browsers print. */
const MM_PX = 96 / 25.4;

function useCard(id: number, revision: number, paper: Paper, lines: boolean) {
  return useQuery({
    queryKey: ["card", id, revision, paper, lines],
    queryFn: ({ signal }) => api.card(id, paper, lines, signal),
    staleTime: Infinity,
    placeholderData: (before) => before,
  });
}

export function CardSheet({ id, revision, paper, room, frame }: Props) {
  // The card is there at once with its line drawing; its photograph takes its time.
  const lines = kept().lines;
  const drawn = useCard(id, revision, paper, true);
  const photographed = useCard(id, revision, paper, lines);
  const isThere = photographed.data !== undefined && !photographed.isPlaceholderData;
  const card = isThere ? photographed : drawn;
  const address = api.cardAddress(id, revision, paper, lines || !isThere);
  const [width, height] = PAPERS[paper].mm.map((mm) => mm * MM_PX) as [number, number];
  // The card may be longer than a page: it is shown whole.
  const [long, setLong] = useState(height);
  const scale = Math.min(room.width / width, room.height / long);
  if (card.isPending) return <Waiting what="Writing the card" />;
  if (card.isError) return <Trouble error={card.error} onRetry={() => void card.refetch()} />;
  return (
    <div className="mx-auto" style={{ width: width * scale, height: long * scale }}>
      <iframe
        ref={frame}
        title="Set-up card"
        // It holds no script, and could run none.
        sandbox="allow-same-origin allow-modals"
        src={address}
        className="border-line origin-top-left border bg-white"
        style={{ width, height: long, transform: `scale(${String(scale)})` }}
        onLoad={(event) => {
          const whole = event.currentTarget.contentDocument?.documentElement.scrollHeight ?? height;
          setLong(Math.max(height, whole));
        }}
      />
    </div>
  );
}
