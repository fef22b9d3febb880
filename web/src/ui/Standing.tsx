// Ready or not, by shape and word.
export function Standing({ ready, words }: { ready: boolean; words: string }) {
  return (
    <span
      className={`inline-flex items-center gap-2 rounded border px-3 py-1 text-sm font-semibold ${
        ready ? "border-line" : "border-ember text-ember border-2"
      }`}
    >
      <span aria-hidden="true">{ready ? "✓" : "▲"}</span>
      {words}
    </span>
  );
}
