// What is said under a field: help, or the problem in words beside its mark.

export function FieldNote({
  id,
  help,
  problem,
}: {
  id: string;
  help?: string | undefined;
  problem?: string | undefined;
}) {
  if (problem)
    return (
      <p id={id} className="text-ember mt-1 text-sm font-semibold">
        <span aria-hidden="true">▲ </span>
        {problem}
      </p>
    );
  return help ? (
    <p id={id} className="text-faint mt-1 text-xs">
      {help}
    </p>
  ) : null;
}

/** How a field that is typed in or chosen from looks. */
export const FIELD =
  "border-faint bg-paper text-ink min-h-10 w-full rounded-lg border px-2.5 py-1.5 aria-invalid:border-ember aria-invalid:border-2 disabled:opacity-60";
export const FIELD_SMALL = `${FIELD} min-h-9 py-0.5 text-sm`;
