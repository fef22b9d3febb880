// A titled part of a page.
import { useId } from "react";

interface Props {
  title: string;
  /** Beside the title. */
  aside?: React.ReactNode;
  children: React.ReactNode;
  className?: string;
}

export function Section({ title, aside, children, className = "" }: Props) {
  const id = useId();
  return (
    <section aria-labelledby={id} className={className}>
      <div className="mb-1.5 flex flex-wrap items-center gap-2">
        <h3 id={id} className="mr-auto text-sm font-bold">
          {title}
        </h3>
        {aside}
      </div>
      {children}
    </section>
  );
}

/** A sheet of paper on the desk. */
export const SHEET = "border-line bg-paper rounded-lg border";
