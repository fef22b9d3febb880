// The judgement of a plan as the page shows it: asked for by the plan's version and by what the step wants to see, so that what
// was worked out is found again and nothing stale is shown.
import { keepPreviousData, queryOptions, replaceEqualDeep, type QueryClient } from "@tanstack/react-query";

import { api, Refused, type Drawn, type Judged, type Plan } from "../api/client";

/** What a step asks for beside the judgement. */
export type Wanted = "chart" | "light" | "sound" | null;

/** The screen that drawings and picture have, px. */
export interface Room {
  sheet: { width: number; height: number };
  frameWidth: number;
}

export interface Asked {
  wanted: Wanted;
  room: Room;
}

const AGAIN_MS = 2_000;

/** Height of words in the picture: px, and in parts of the frame's width. */
const WORDS_PX = 12;
const FRAME_TEXT = 0.027;

function drawn({ wanted, room }: Asked, live: boolean, turns?: number): Drawn {
  const scale = WORDS_PX / (FRAME_TEXT * room.frameWidth);
  return {
    frame_text_scale: Math.min(4, Math.max(0.5, Math.round(scale * 20) / 20)),
    sheet_width_px: Math.round(room.sheet.width),
    sheet_height_px: Math.round(room.sheet.height),
    ...(wanted ? { [wanted]: true } : {}),
    ...(live ? { fixes: false } : {}),
    ...(live && turns !== undefined ? { quarter_turns: turns } : {}),
  };
}

export const judgedKey = (corner: number, version: number, asked: Asked) => [
  "judged",
  corner,
  version,
  asked.wanted,
  asked.room,
];

/** What the page shows now: a hand asks for the same, and what has not changed stays the same object, so that only what has
 * changed is drawn again. */
export class Shown {
  #last: Judged | undefined;

  constructor(public asked: Asked) {}

  /** The newest judgement that came: better than none while the server cannot be reached. */
  get newest(): Judged | null {
    return this.#last ?? null;
  }

  /** What a hand's move is to be judged with; a drawing does not turn under the hand. */
  drawn(live: boolean): Drawn {
    return drawn(this.asked, live, this.#last?.drawing.quarter_turns);
  }

  asks(asked: Asked): void {
    this.asked = asked;
  }

  share(judged: Judged): Judged {
    this.#last = replaceEqualDeep(this.#last, judged);
    return this.#last;
  }
}

export const judging = (corner: number, plan: Plan | null, version: number, asked: Asked, shown: Shown) =>
  queryOptions({
    queryKey: judgedKey(corner, version, asked),
    queryFn: async () => shown.share(await api.assess(plan as Plan, drawn(asked, false))),
    enabled: plan !== null,
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
    // A server that cannot be reached is asked again until it can.
    refetchInterval: ({ state: { error } }) => error !== null && !(error instanceof Refused) && AGAIN_MS,
    placeholderData: keepPreviousData,
    structuralSharing: false,
  });

/** A judgement that came with a move, found where it will be looked for. */
export function remember(
  queries: QueryClient,
  corner: number,
  version: number,
  asked: Asked,
  judged: Judged,
): void {
  queries.setQueryData(judgedKey(corner, version, asked), judged);
}
