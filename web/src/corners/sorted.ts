// Corners in the order that is wanted.
import type { Schemas } from "../api/client";

export type Order = "used" | "name" | "ready";

export const ORDERS: readonly (readonly [Order, string])[] = [
  ["used", "last used first"],
  ["name", "by name"],
  ["ready", "not ready first"],
];

type Listed = Pick<Schemas["Listed"], "name" | "updated_ms" | "told">;

const isReady = ({ told }: Listed) => Number(told?.verdict?.ready ?? false);

const BY: Record<Order, (a: Listed, b: Listed) => number> = {
  used: (a, b) => b.updated_ms - a.updated_ms,
  name: (a, b) => a.name.localeCompare(b.name),
  ready: (a, b) => isReady(a) - isReady(b) || b.updated_ms - a.updated_ms,
};

export function sorted<T extends Listed>(corners: readonly T[], order: Order): T[] {
  return corners.toSorted(BY[order]);
}
