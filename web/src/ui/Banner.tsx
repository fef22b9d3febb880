// A line across the page that asks or tells something, with its ways on.
import { cva } from "class-variance-authority";

const look = cva("flex flex-wrap items-center gap-2 border-b px-4 py-2 text-sm", {
  variants: {
    kind: {
      ask: "border-ember bg-ember-soft font-semibold",
      tell: "border-line bg-paper",
    },
  },
});

interface Props {
  kind: "ask" | "tell";
  words: React.ReactNode;
  className?: string;
  children?: React.ReactNode;
}

export function Banner({ kind, words, className, children }: Props) {
  return (
    <div className={look({ kind, className })} role={kind === "ask" ? "alert" : "status"}>
      <span className="mr-auto min-w-52">{words}</span>
      {children}
    </div>
  );
}
