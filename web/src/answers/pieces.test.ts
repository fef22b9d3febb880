import { expect, test } from "vitest";

import { KINDS, newPiece, usualSize, withKind } from "./pieces";

const shelf = newPiece("piece-1", "metric");

test("another kind brings its usual size, until the size was typed", () => {
  const bed = withKind(shelf, "bed", "metric");
  expect(bed).toMatchObject({ kind: "bed", ...usualSize("bed", "metric"), x: "", fixed: true });
  expect(withKind(bed, "picture", "metric").foot).toBe(usualSize("picture", "metric")?.foot);
  const measured = { ...shelf, width: "0.93 m" };
  expect(withKind(measured, "bookcase", "metric")).toEqual({ ...measured, kind: "bookcase" });
  // A box is free: it keeps what stands there.
  expect(withKind(shelf, "box", "metric")).toEqual({ ...shelf, kind: "box" });
});

test("every kind but a free box has a size in either system", () => {
  for (const [kind] of KINDS)
    for (const units of ["metric", "imperial"] as const)
      expect(usualSize(kind, units) === null, kind).toBe(kind === "box");
});
