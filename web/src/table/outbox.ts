// What is not saved yet, kept in the browser's storage until the server acknowledges it or a person decides otherwise: it
// outlives the tab. An open table has one entry for its corner; one that is closed leaves it to the next that opens the corner.
import type { Plan } from "../api/client";

/** A file on its way, under a key by which the server knows it again. */
export interface Sent {
  key: string;
  /** The revision that it was made from. */
  revision: number;
  file: Plan;
}

export interface Entry {
  /** Its name in the storage. */
  name: string;
  /** The page that looks after it. */
  page: string;
  corner: number;
  at_ms: number;
  /** The revision that the newest was made from, unless one is under way. */
  revision: number;
  /** Sent and not answered yet. */
  sent: Sent | null;
  /** Newer than that. */
  newest: Plan | null;
  /** Only tried out. */
  trial?: boolean;
}

const PREFIX = "fogon.outbox.";

/** Where one open table keeps what it has not saved. */
export interface Box {
  put: (entry: Omit<Entry, "name" | "page" | "corner" | "at_ms">) => void;
  empty: () => void;
  /** The table is closed: what is left in it is for whoever opens the corner next. */
  close: () => void;
}

export interface Outbox {
  open: (corner: number) => Box;
  /** Entries that no open table looks after, oldest first: for a corner, or for all. */
  left: (corner: number | null) => Promise<Entry[]>;
  /** Tells when another page that looks after an entry of a corner has gone, until it is called off. */
  whenLeft: (corner: number, tell: () => void) => () => void;
  /** Tells when another page has dropped one of these entries, until it is called off. */
  whenDropped: (names: readonly string[], tell: () => void) => () => void;
  /** The newest plan that is not saved yet of a corner, looked after or not. */
  newest: (corner: number) => Plan | null;
  /** Puts an entry back, changed. */
  rewrite: (entry: Entry) => void;
  drop: (entry: Entry) => void;
}

const lockOf = (page: string) => `fogon.page.${page}`;

/** The outbox in this browser. Where its storage is full or shut off, an entry lives no longer than its page. */
export function browserOutbox(storage: Storage): Outbox {
  const page = crypto.randomUUID();
  // Held for as long as the page lives; where locks cannot be had, entries are taken over early, which does no harm.
  void globalThis.navigator?.locks?.request(lockOf(page), () => new Promise<never>(() => undefined));
  const open = new Set<string>();
  let count = 0;
  const rewrite = (entry: Entry) => {
    try {
      storage.setItem(entry.name, JSON.stringify(entry));
    } catch {
      // The page still holds it, and sends it.
    }
  };
  return {
    open: (corner) => {
      count += 1;
      const name = `${PREFIX}${String(corner)}.${page}.${String(count)}`;
      open.add(name);
      return {
        put: (entry) => rewrite({ ...entry, name, page, corner, at_ms: Date.now() }),
        empty: () => storage.removeItem(name),
        close: () => open.delete(name),
      };
    },
    left: async (corner) => {
      const held = (await globalThis.navigator?.locks?.query())?.held?.map((lock) => lock.name) ?? [];
      const isLookedAfter = (entry: Entry) =>
        entry.page === page ? open.has(entry.name) : held.includes(lockOf(entry.page));
      return entries(storage, corner).filter((entry) => !isLookedAfter(entry));
    },
    whenLeft: (corner, tell) => {
      const calledOff = new AbortController();
      const { signal } = calledOff;
      const known = new Set<string>([page]);
      // A page holds its lock for as long as it lives: who gets it knows that the page is gone. Told once it is given back,
      // or it would still count as held.
      const wait = () => {
        for (const { page: other } of entries(storage, corner)) {
          if (known.has(other)) continue;
          known.add(other);
          globalThis.navigator?.locks
            ?.request(lockOf(other), { signal }, () => undefined)
            .then(() => signal.aborted || tell())
            .catch(() => undefined);
        }
      };
      wait();
      // What other pages write later.
      globalThis.addEventListener?.("storage", wait, { signal });
      return () => calledOff.abort();
    },
    whenDropped: (names, tell) => {
      const calledOff = new AbortController();
      const changed = ({ key, newValue }: StorageEvent) => {
        if (key !== null && newValue === null && names.includes(key)) tell();
      };
      globalThis.addEventListener?.("storage", changed, { signal: calledOff.signal });
      return () => calledOff.abort();
    },
    newest: (corner) => {
      const last = entries(storage, corner).at(-1);
      return last?.newest ?? last?.sent?.file ?? null;
    },
    rewrite,
    drop: (entry) => storage.removeItem(entry.name),
  };
}

function entries(storage: Storage, corner: number | null): Entry[] {
  const names = Array.from({ length: storage.length }, (_, i) => storage.key(i) ?? "");
  const wanted = corner === null ? PREFIX : `${PREFIX}${String(corner)}.`;
  const own = names.filter((name) => name.startsWith(wanted));
  const read = own.flatMap((name) => {
    try {
      return [JSON.parse(storage.getItem(name) ?? "") as Entry];
    } catch {
      return [];
    }
  });
  return read.sort((a, b) => a.at_ms - b.at_ms);
}
