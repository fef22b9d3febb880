// The frame of every page: the name, where you are, and what you can do here.
import { Link } from "react-router";

import { button } from "./button";

interface Props {
  title: string;
  /** Beside the title: state and actions. */
  aside?: React.ReactNode;
  children: React.ReactNode;
}

export function Shell({ title, aside, children }: Props) {
  return (
    <div className="min-h-screen">
      <PageTitle of={title} />
      <SkipLink />
      <header className="border-line bg-paper border-b">
        <div className="mx-auto flex max-w-[1440px] flex-wrap items-center gap-x-5 gap-y-2 px-4 py-2.5 sm:px-6">
          <Mark />
          <h1 className="mr-auto min-w-0 text-base font-semibold">{title}</h1>
          {aside}
        </div>
      </header>
      <main id="content" tabIndex={-1} className="mx-auto max-w-[1440px] px-4 py-5 outline-none sm:px-6">
        {children}
      </main>
    </div>
  );
}

/** The title in the browser's tab. */
export function PageTitle({ of }: { of: string }) {
  return <title>{`${of} · Fogon`}</title>;
}

export function SkipLink() {
  return (
    <a href="#content" className={button({ className: "absolute -top-20 left-2 z-40 focus:top-2" })}>
      Skip to content
    </a>
  );
}

/** The name, which leads to all corners. */
export function Mark() {
  return (
    <Link
      to="/"
      className="flex items-baseline gap-1 text-xl font-bold tracking-tight"
      aria-label="Fogon, all corners"
    >
      fogon
      <svg viewBox="0 0 10 10" className="h-2.5 w-2.5" aria-hidden="true">
        <path d="M1 9V5a4 4 0 0 1 8 0v4z" className="fill-ember" />
      </svg>
    </Link>
  );
}
