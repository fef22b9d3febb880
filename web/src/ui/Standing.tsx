// Ready or not, by shape and word.
import { cva } from "class-variance-authority";

const look = cva("inline-flex items-center gap-2 rounded-full px-3.5 py-1 text-sm font-semibold", {
  variants: { ready: { true: "bg-good-soft text-good", false: "bg-ember-soft text-ember" } },
});

export function Standing({ ready, words }: { ready: boolean; words: string }) {
  return (
    <span className={look({ ready })}>
      <span aria-hidden="true">{ready ? "✓" : "▲"}</span>
      {words}
    </span>
  );
}
