// Where in a corner one is: a step of the work and a part of it, or a place beside the work. It stands in the address.
import { useMemo } from "react";
import { useNavigate, useParams } from "react-router";

import type { Step, Tab } from "../api/client";

export const STEPS: readonly (readonly [Step, string])[] = [
  ["room", "Room"],
  ["you", "You"],
  ["shot", "Shot"],
  ["light", "Light"],
  ["day", "Day"],
  ["sound", "Sound"],
  ["money", "Money"],
  ["card", "Card"],
];

/** The same on every step. */
export const TABS: readonly (readonly [Tab, string])[] = [
  ["now", "Now"],
  ["by-hand", "By hand"],
  ["choices", "Choices"],
  ["numbers", "All numbers"],
];

/** Places of a corner that are no step of the work. */
export const PLACES = [
  ["take", "Take"],
  ["compare", "Compare"],
  ["history", "History"],
  ["shelf", "Shelf"],
  ["schools", "Schools"],
] as const;
/** Those beside the work; the take comes after it. */
export const BESIDE = PLACES.filter(([name]) => name !== "take");
export type PlaceName = (typeof PLACES)[number][0];

export interface Place {
  /** None while the whole corner is looked at, or a place beside the work. */
  step: Step | null;
  tab: Tab;
  beside: PlaceName | null;
}

/** What an address stands for; null where it stands for nothing. */
export function placeOf(first: string | undefined, second: string | undefined): Place | null {
  const tab = second === undefined ? "now" : TABS.find(([key]) => key === second)?.[0];
  if (tab === undefined) return null;
  if (first === undefined) return { step: null, tab, beside: null };
  const beside = PLACES.find(([key]) => key === first)?.[0] ?? null;
  if (beside) return second === undefined ? { step: null, tab, beside } : null;
  const step = STEPS.find(([key]) => key === first)?.[0];
  return step ? { step, tab, beside: null } : null;
}

export const addressOf = (corner: number, step: Step | null, tab: Tab = "now"): string =>
  `/corners/${String(corner)}${step ? `/${step}` : ""}${step && tab !== "now" ? `/${tab}` : ""}`;

/** The place that is open, and the way to others. */
export function useGo(): (step: Step, tab?: Tab) => void {
  const { id } = useParams();
  const navigate = useNavigate();
  return useMemo(
    () =>
      (step, tab = "now") =>
        void navigate(addressOf(Number(id), step, tab), { state: { arrived: true } }),
    [id, navigate],
  );
}
