// How soon a plan stands, asked once for each plan.
import { useQuery } from "@tanstack/react-query";

import type { Plan } from "../api/client";
import { floorApi } from "../api/floor";

export function usePutUp(plan: Plan) {
  return useQuery({
    queryKey: ["put-up", plan],
    queryFn: () => floorApi.ready(plan),
    placeholderData: (before) => before,
  });
}
