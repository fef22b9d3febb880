// A plan judged and drawn, to stand beside another.
import { useQuery } from "@tanstack/react-query";

import { api, type Judged, type Plan } from "../api/client";

export interface JudgedPlan {
  judged: Judged | undefined;
  error: unknown;
  retry: () => void;
}

/** Words in the small drawings, in parts of the usual. */
const WORDS = { text_scale: 1.4, frame_text_scale: 1.7, fixes: false };

export function useJudged(plan: Plan | null): JudgedPlan {
  const judged = useQuery({
    queryKey: ["compared", plan],
    queryFn: () => (plan ? api.assess(plan, WORDS) : null),
    enabled: plan !== null,
    staleTime: Infinity,
    gcTime: 60_000,
  });
  return { judged: judged.data ?? undefined, error: judged.error, retry: () => void judged.refetch() };
}
