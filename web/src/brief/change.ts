import type { Draft } from "./draft";

/** Changes some answers: texts by name, lists and the floor whole. */
export type Change = (
  patch: Partial<
    Pick<Draft, "texts" | "furniture" | "openings" | "legs" | "floor" | "slopes" | "beams" | "schools">
  >,
) => void;
