// What was not typed anew stays as it was, to the last digit: a form shows lengths rounded, and must not write them back.
import type { Brief } from "../api/client";

type Tree = Record<string, unknown>;
const isTree = (value: unknown): value is Tree =>
  typeof value === "object" && value !== null && !Array.isArray(value);

/** A null is as good as nothing, for a field that may be left out. */
function same(a: unknown, b: unknown): boolean {
  if (a == null || b == null) return a == null && b == null;
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((value, index) => same(value, b[index]));
  if (isTree(a) && isTree(b))
    return [...Object.keys(a), ...Object.keys(b)].every((key) => same(a[key], b[key]));
  return a === b;
}

/** What is read now, with the value of before wherever it reads as it did when nothing had been typed. */
function kept(now: unknown, untouched: unknown, before: unknown): unknown {
  if (same(now, untouched)) return before;
  if (Array.isArray(now) && Array.isArray(untouched) && now.length === untouched.length)
    return now.map((value, index) =>
      kept(value, untouched[index], Array.isArray(before) ? before[index] : undefined),
    );
  if (!isTree(now) || !isTree(untouched)) return now;
  const was = isTree(before) ? before : {};
  const entries = Object.entries(now).map(([key, value]) =>
    key in untouched ? [key, kept(value, untouched[key], was[key])] : [key, value],
  );
  return Object.fromEntries(entries.filter(([, value]) => value !== undefined)) as Tree;
}

/** A brief as typed, every value that was not typed anew as the brief before has it. */
export function keepExact(typed: Brief, untouched: Brief, before: Brief): Brief {
  const brief = kept(typed, untouched, before) as Brief;
  for (const [id, gear] of Object.entries(brief.gear ?? {})) {
    const was = before.gear?.[id];
    // Figures once assumed stay so until one of them is typed anew.
    if (was?.figures_assumed === true && gear.figures_assumed === true && !same(gear, was))
      gear.figures_assumed = false;
  }
  return brief;
}
