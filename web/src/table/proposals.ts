// What the search found for a brief, asked once for each brief; and taking a layout whole.
import { useQuery, useQueryClient } from "@tanstack/react-query";

import { api, type Brief, type Plan, type Schemas } from "../api/client";
import { withPart } from "./parts";
import { useTable } from "./useTable";

export type Found = Schemas["Proposals"];

/** Proposals for a brief; half a second of search. */
export function useProposals(name: string, brief: Brief) {
  return useQuery({
    queryKey: ["propose", brief],
    queryFn: ({ signal }) => api.propose(name, brief, signal),
    staleTime: Infinity,
  });
}

/** Takes a layout whole. What was found stays found under the school it follows, so that it is still told as taken. */
export function useTake(): (other: Plan, found: Found | undefined) => void {
  const table = useTable();
  const queries = useQueryClient();
  return (other, found) =>
    table.act((plan) => {
      const next = withPart(plan, other, "all");
      if (found) queries.setQueryData(["propose", next.brief], found);
      return next;
    });
}
