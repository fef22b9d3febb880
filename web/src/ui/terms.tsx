// Words of the trade: each explains itself on focus, from the one glossary.
import { useQuery } from "@tanstack/react-query";
import { Tooltip } from "radix-ui";
import { createContext, useContext, useMemo, useRef, useState } from "react";

import { api, type Term as Entry } from "../api/client";

const SETTLE_MS = 150;

type Meanings = (wordOrReading: string) => string | undefined;

const Glossary = createContext<Meanings>(() => undefined);

/** Asks for the glossary once, for all that is inside. */
export function GlossaryProvider({ children }: { children: React.ReactNode }) {
  const terms = useQuery({ queryKey: ["glossary"], queryFn: api.glossary, staleTime: Infinity }).data;
  const meanings = useMemo(() => meaningsOf(terms ?? []), [terms]);
  return <Glossary value={meanings}>{children}</Glossary>;
}

/** Meanings by word and by reading; `*` in a reading's id stands for the id of a thing. */
function meaningsOf(terms: Entry[]): Meanings {
  const exact = new Map(terms.flatMap((t) => [t.word, t.reading].map((key) => [key, t.meaning] as const)));
  exact.delete("");
  const patterns = terms
    .filter((t) => t.reading.includes("*"))
    .map((t) => [...t.reading.split("*"), t.meaning] as [string, string, string]);
  return (key) =>
    exact.get(key) ?? patterns.find(([head, tail]) => key.startsWith(head) && key.endsWith(tail))?.[2];
}

/** The meaning of a word, or of a reading by its id. */
export function useMeaning(wordOrReading: string | undefined): string | undefined {
  const meanings = useContext(Glossary);
  return wordOrReading === undefined ? undefined : meanings(wordOrReading);
}

/** Explains the focusable thing inside it, on focus and under the pointer. */
export function Explained({ of, children }: { of: string | undefined; children: React.ReactElement }) {
  return <Hinted words={useMeaning(of)}>{children}</Hinted>;
}

/** Says what the focusable thing inside it is, on focus and under the pointer. */
export function Hinted({ words, children }: { words: string | undefined; children: React.ReactElement }) {
  const [open, setOpen] = useState(false);
  const timer = useRef(0);
  // Focus may scroll the page, and scrolling closes an explanation: it opens once that is over.
  const settle = (event: React.FocusEvent<HTMLElement>) => {
    const { currentTarget: explained, target } = event;
    event.preventDefault();
    // The focus in a dialog that opened from here is not here.
    if (!explained.contains(target)) return;
    timer.current = window.setTimeout(() => {
      if (explained.contains(document.activeElement)) setOpen(true);
    }, SETTLE_MS);
  };
  // What is pressed opens something of its own: Escape belongs to that.
  const pressed = () => {
    window.clearTimeout(timer.current);
    setOpen(false);
  };
  return (
    <Tooltip.Root open={open} onOpenChange={setOpen}>
      <Tooltip.Trigger asChild onFocus={settle} onClick={pressed}>
        {children}
      </Tooltip.Trigger>
      {words !== undefined && (
        <Tooltip.Portal>
          <Tooltip.Content
            sideOffset={6}
            collisionPadding={8}
            className="bg-ink text-paper z-40 max-w-80 rounded px-2.5 py-1.5 text-sm"
          >
            {words}
          </Tooltip.Content>
        </Tooltip.Portal>
      )}
    </Tooltip.Root>
  );
}

/** A word in running text that explains itself. */
export function Term({ word, children }: { word: string; children?: React.ReactNode }) {
  return (
    <Explained of={word}>
      <button
        type="button"
        className="decoration-faint min-h-6 cursor-help underline decoration-dotted underline-offset-4"
      >
        {children ?? word}
      </button>
    </Explained>
  );
}
