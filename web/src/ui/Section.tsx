// A titled part of a page.
import { useId } from "react";

interface Props {
  title: string;
  /** Right under the title of the page, not under a title on it. */
  first?: boolean;
  /** Beside the title. */
  aside?: React.ReactNode;
  children: React.ReactNode;
  className?: string;
}

export function Section({ title, first = false, aside, children, className = "" }: Props) {
  const id = useId();
  const Heading = first ? "h2" : "h3";
  return (
    <section aria-labelledby={id} className={className}>
      <div className="mb-1.5 flex flex-wrap items-center gap-2">
        <Heading id={id} className="mr-auto text-sm font-bold">
          {title}
        </Heading>
        {aside}
      </div>
      {children}
    </section>
  );
}

/** A sheet of paper on the desk. */
export const SHEET = "border-line bg-paper rounded-lg border";
