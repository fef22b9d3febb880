// Free moves and advice on purchases, asked once for each plan. The advice takes some seconds: meanwhile it is told how far it is
// and what the table of gains says.
import { keepPreviousData, queryOptions, skipToken, useQuery, useQueryClient } from "@tanstack/react-query";

import { advise, type Advice, type BuyLine } from "../api/buying";
import { api, type Plan } from "../api/client";

/** What can be done for nothing. */
export const freeMovesOf = (plan: Plan) =>
  queryOptions({
    queryKey: ["free moves", plan],
    queryFn: ({ signal }) => api.freeMoves(plan, signal),
    staleTime: Infinity,
  });

export interface Advised {
  advice: Advice | undefined;
  /** The advice that is shown is for another sum or another state of the plan. */
  isOld: boolean;
  /** The newest line on the way to the new one. */
  line: BuyLine | undefined;
  error: unknown;
  isWorking: boolean;
  again: () => void;
  stop: () => void;
}

export function useAdvice(plan: Plan): Advised {
  const queries = useQueryClient();
  const key = ["advice", plan];
  const onItsWay = ["advice on its way", plan];
  const query = useQuery({
    queryKey: key,
    queryFn: ({ signal }) => advise(plan, signal, (line) => queries.setQueryData(onItsWay, line)),
    staleTime: Infinity,
    placeholderData: keepPreviousData,
    retry: false,
  });
  const line = useQuery<BuyLine>({ queryKey: onItsWay, queryFn: skipToken }).data;
  return {
    advice: query.data,
    isOld: query.isPlaceholderData,
    line,
    error: query.error,
    isWorking: query.isFetching,
    again: () => void query.refetch(),
    stop: () => void queries.cancelQueries({ queryKey: key }),
  };
}
