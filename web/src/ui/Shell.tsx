// The frame of every page: the name, where you are, and what you can do here.
import { Link } from "react-router";

interface Props {
  title: string;
  /** Beside the title: state and actions. */
  aside?: React.ReactNode;
  children: React.ReactNode;
}

export function Shell({ title, aside, children }: Props) {
  return (
    <div className="min-h-screen">
      <a href="#content" className="button bg-paper absolute -top-20 left-2 z-10 focus:top-2">
        Skip to content
      </a>
      <header className="border-line bg-paper border-b">
        <div className="mx-auto flex max-w-[1440px] flex-wrap items-center gap-x-5 gap-y-2 px-4 py-2.5 sm:px-6">
          <Mark />
          <h1 className="mr-auto min-w-0 text-base font-semibold">{title}</h1>
          {aside}
        </div>
      </header>
      <main id="content" className="mx-auto max-w-[1440px] px-4 py-5 sm:px-6">
        {children}
      </main>
    </div>
  );
}

/** The name, which leads to all corners. */
export function Mark() {
  return (
    <Link
      to="/"
      className="flex items-center gap-2 text-xl font-bold tracking-tight"
      aria-label="Fogon, all corners"
    >
      <svg viewBox="0 0 16 16" className="h-5 w-5" aria-hidden="true">
        <path d="M2 14V6l6-4 6 4v8" fill="none" stroke="currentColor" strokeWidth="1.6" />
        <circle cx="8" cy="11" r="3" className="fill-ember" />
      </svg>
      fogon
    </Link>
  );
}
