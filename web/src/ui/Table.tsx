// A plain table of figures, which scrolls by itself where it is wider than its place.

const LOOK =
  "w-full text-sm [&_th]:text-faint [&_th]:border-line [&_th]:border-b [&_th]:py-1 [&_th]:pr-3 [&_th]:text-left [&_th]:align-bottom [&_th]:text-xs [&_th]:font-semibold [&_td]:border-line [&_td]:border-b [&_td]:py-0.5 [&_td]:pr-3 [&_td]:align-baseline [&_tr[aria-current]]:bg-desk max-sm:[&_.wide-only]:hidden [&_th[scope=row]]:font-normal [&_th[scope=row]]:text-ink [&_th[scope=row]]:text-sm";

interface Props {
  children: React.ReactNode;
  /** Spoken name, for one that may scroll. */
  label?: string;
}

export function Table({ children, label }: Props) {
  const table = <table className={LOOK}>{children}</table>;
  if (label === undefined) return table;
  return (
    <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={`${label}, a table`}>
      {table}
    </div>
  );
}
