// What is asked of the server about a day.
import { queryOptions } from "@tanstack/react-query";

import { api, type Plan } from "../api/client";

/** A day in a corner as it goes. */
export const courseOf = (plan: Plan, date: string) =>
  queryOptions({
    queryKey: ["day", plan, date],
    queryFn: ({ signal }) => api.day({ plan, date }, signal),
    staleTime: Infinity,
  });

/** A year in a corner, day by day. */
export const yearOf = (plan: Plan, year: number) =>
  queryOptions({
    queryKey: ["year", plan, year],
    queryFn: ({ signal }) => api.year({ plan, year }, signal),
    staleTime: Infinity,
  });

/** Good hours of some days. */
export const hoursOf = (plan: Plan, from: string, to: string) =>
  queryOptions({
    queryKey: ["hours", plan, from, to],
    queryFn: ({ signal }) => api.hours({ plan, from, to }, signal),
    staleTime: Infinity,
  });

/** Places to pick from. */
export const regions = queryOptions({
  queryKey: ["regions"],
  queryFn: () => api.regions(),
  staleTime: Infinity,
});

/** A local date as it is written, some days later. */
export function dateAfter(date: string, days: number): string {
  const at = new Date(`${date}T12:00:00Z`);
  at.setUTCDate(at.getUTCDate() + days);
  return at.toISOString().slice(0, 10);
}

/** Today where the browser is. */
export function today(now: Date): string {
  const two = (part: number) => String(part).padStart(2, "0");
  return `${String(now.getFullYear())}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
