// The form that the fields of the answers stand in.
import { useFormContext, type FieldPath } from "react-hook-form";

import type { Answers } from "./answers";
import type { Read } from "./schema";

export type Path = FieldPath<Answers>;

export const useAnswers = () => useFormContext<Answers, unknown, Read>();

/** The problem of a field, by its path. */
export function useProblem(path: string): string | undefined {
  const { formState } = useAnswers();
  let found: unknown = formState.errors;
  for (const part of path.split(".")) found = (found as Record<string, unknown> | undefined)?.[part];
  return (found as { message?: string } | undefined)?.message;
}
