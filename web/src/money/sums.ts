// Sums of money as they are told, and the steps of the budget.
import { fixed } from "../units/length";

/** "40 EUR". */
export const sum = (value: number, currency: string): string => `${fixed(value, 0)} ${currency}`.trim();

/** A score as points of 100. */
export const points = (score: number): string => fixed(100 * score, 0);

/** Steps of the budget slider: fine where sums are small. */
export const BUDGETS = [
  0, 25, 50, 75, 100, 150, 200, 250, 300, 400, 500, 650, 800, 1000, 1300, 1600, 2000, 2500, 3200, 4000, 5000,
  6500, 8000, 10_000,
];

/** The step nearest to a sum. */
export function budgetStep(value: number): number {
  const off = BUDGETS.map((one) => Math.abs(Math.log1p(one) - Math.log1p(value)));
  return off.indexOf(Math.min(...off));
}
