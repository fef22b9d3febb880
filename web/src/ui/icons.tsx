// Small marks on buttons, drawn by hand on a grid of 16.

const PATHS = {
  undo: "M6 3 2.5 6.5 6 10M3 6.5h6.2a3.8 3.8 0 0 1 0 7.6H6",
  redo: "M10 3l3.5 3.5L10 10M13 6.5H6.8a3.8 3.8 0 0 0 0 7.6H10",
  more: "M3 8h.01M8 8h.01M13 8h.01",
  close: "M3.5 3.5l9 9M12.5 3.5l-9 9",
  plus: "M8 3v10M3 8h10",
  minus: "M3 8h10",
  lock: "M4.5 7.5h7v6h-7zM6 7.5V5.2a2 2 0 0 1 4 0v2.3",
  key: "M2.5 12.5l4-4M4.5 10.5l1.5 1.5M6.2 8.8a3 3 0 1 1 1.5 1.5",
} as const;

export function Icon({ name }: { name: keyof typeof PATHS }) {
  return (
    <svg viewBox="0 0 16 16" className="h-4 w-4 shrink-0" aria-hidden="true">
      <path
        d={PATHS[name]}
        fill="none"
        stroke="currentColor"
        strokeWidth={name === "more" ? 2.4 : 1.5}
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}
