// Answers that are typed and not saved yet, kept in the browser: leaving the page loses nothing.
import { newAnswers, type Answers } from "./answers";

/** Where they are kept: for a corner, or for a new one. */
export const keptName = (corner: number | null): string =>
  corner === null ? "fogon.new-corner" : `fogon.answers.${String(corner)}`;

export interface Kept {
  answers: Answers;
  /** The answers as they were opened. */
  opened: Answers;
}

export function recall(name: string): Kept | null {
  try {
    const kept = JSON.parse(localStorage.getItem(name) ?? "null") as Kept | null;
    if (!kept?.answers || !kept.opened) return null;
    // What an older page left may lack fields.
    return { answers: { ...newAnswers(), ...kept.answers }, opened: { ...newAnswers(), ...kept.opened } };
  } catch {
    return null;
  }
}

export const remember = (name: string, kept: Kept): void => localStorage.setItem(name, JSON.stringify(kept));

export const forget = (name: string): void => localStorage.removeItem(name);
