// What every part of a step's page is given.
import type { Corner, Judged, Plan, Reading, StepTold } from "../api/client";
import type { UnitSystem } from "../units/length";

export interface StepProps {
  corner: Corner;
  plan: Plan;
  judged: Judged;
  told: StepTold;
  units: UnitSystem;
}

/** Readings by their ids, in that order. */
export function readingsOf({ assessment }: Judged, ids: readonly string[]): Reading[] {
  return ids.flatMap((id) => assessment.readings.find((reading) => reading.id === id) ?? []);
}

/** The value of a reading. */
export const valueOf = ({ assessment }: Judged, id: string): number | null =>
  assessment.readings.find((reading) => reading.id === id)?.value ?? null;
