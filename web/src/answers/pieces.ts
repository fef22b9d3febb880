// Usual pieces of furniture: the size that stands in until it is measured (common practice, no source).
import { editLength, type UnitSystem } from "../units/length";
import type { PieceText } from "./answers";

/** Width across the front, depth, height, and how high over the floor it begins, m; a box may have any size. */
type Size = readonly [number, number, number, number];
const SHELF: Size = [0.8, 0.3, 1.8, 0];
const USUAL: Record<string, Size | null> = {
  desk: [1.2, 0.6, 0.74, 0],
  table: [1.4, 0.8, 0.74, 0],
  chair: [0.45, 0.5, 0.9, 0],
  shelf: SHELF,
  bookcase: [0.8, 0.3, 2.0, 0],
  bed: [0.9, 2.0, 0.5, 0],
  sofa: [1.8, 0.9, 0.8, 0],
  wardrobe: [1.0, 0.6, 2.0, 0],
  cabinet: [0.8, 0.45, 0.9, 0],
  radiator: [1.0, 0.1, 0.6, 0.12],
  mirror: [0.5, 0.03, 1.2, 0.4],
  picture: [0.5, 0.03, 0.4, 1.4],
  lamp: [0.35, 0.35, 1.5, 0],
  plant: [0.4, 0.4, 1.0, 0],
  box: null,
};

export const KINDS = Object.keys(USUAL).map((kind) => [kind, kind] as const);

type Sizes = Pick<PieceText, "width" | "depth" | "height" | "foot">;

function typed([width, depth, height, foot]: Size, units: UnitSystem): Sizes {
  const text = (metres: number) => editLength(metres, units);
  return { width: text(width), depth: text(depth), height: text(height), foot: text(foot) };
}

/** The usual size of a kind as it is typed; none for a box. */
export function usualSize(kind: string, units: UnitSystem): Sizes | null {
  const usual = USUAL[kind];
  return usual ? typed(usual, units) : null;
}

/** One more piece: a shelf, until it is told what it is. */
export const newPiece = (id: string, units: UnitSystem): PieceText => ({
  id,
  kind: "shelf",
  ...typed(SHELF, units),
  x: "",
  y: "",
  bearing: "0",
  fixed: true,
});

/** Another kind brings its usual size, unless the size was typed. */
export function withKind(piece: PieceText, kind: string, units: UnitSystem): PieceText {
  const [before, after] = [usualSize(piece.kind, units), usualSize(kind, units)];
  const untouched =
    before !== null && (Object.keys(before) as (keyof Sizes)[]).every((size) => before[size] === piece[size]);
  return { ...piece, kind, ...(untouched && after ? after : {}) };
}
