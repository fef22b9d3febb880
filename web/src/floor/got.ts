// Distances taped on the floor, as the page asks for them: for every mark the two that it was laid by, and one that checks it.
import type { Schemas } from "../api/client";

export type From = Schemas["GotFrom"];
export type Mark = Schemas["Mark"];

/** A place to tape from, by a word that a select can hold. */
export const wordOf = (from: From): string => Object.entries(from).flat().join(":");

export function fromWord(word: string): From {
  const [kind, name] = word.split(":") as [string, string];
  return { [kind]: name } as unknown as From;
}

/** In words, with the letters that stand on the tape. */
export function wordsOf(from: From, marks: readonly Mark[]): string {
  if ("corner" in from) return `from corner ${from.corner}`;
  if ("wall" in from) return from.wall === "left" ? "from the left wall" : "from the back wall";
  return `from mark ${marks.find((mark) => mark.id === from.mark)?.letter ?? from.mark}`;
}

/** The two that a mark was laid by: corners of the room, or marks where those are hidden. */
export function laidBy(mark: Mark, marks: readonly Mark[], corners: readonly string[]): From[] {
  const from = mark.tape.corners.map(({ corner }): From => {
    const other = marks.find((own) => own.letter === corner);
    return corners.includes(corner) ? { corner } : { mark: other?.id ?? corner };
  });
  // A point of its own is no mark: walls do instead.
  const isKnown = (one: From) => !("mark" in one) || marks.some((own) => own.id === one.mark);
  return from.every(isKnown) ? from : [{ wall: "left" }, { wall: "back" }];
}

/** Every other place that checks it. */
export function othersOf(mark: Mark, marks: readonly Mark[], corners: readonly string[]): From[] {
  const all: From[] = [
    ...corners.map((corner): From => ({ corner })),
    { wall: "left" },
    { wall: "back" },
    ...marks.filter((own) => own.id !== mark.id).map((own): From => ({ mark: own.id })),
  ];
  const own = laidBy(mark, marks, corners).map(wordOf);
  return all.filter((from) => !own.includes(wordOf(from)));
}
