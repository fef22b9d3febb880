// What to change: free moves and purchases, asked once for each plan.
import { queryOptions } from "@tanstack/react-query";

import { api, type Plan } from "../api/client";

export const changesOf = (plan: Plan) =>
  queryOptions({
    queryKey: ["changes", plan],
    queryFn: ({ signal }) => api.changes(plan, signal),
    staleTime: Infinity,
  });
