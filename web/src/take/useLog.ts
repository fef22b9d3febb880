// The logbook of a corner on this device: what is known of it, and what is written into it.
import { useEffect, useMemo, useState, useSyncExternalStore } from "react";

import { Keeper } from "../api/keeper";
import { takeApi } from "../api/take";
import { openSession, sessionsOf, type Entry, type SessionTold } from "./log";

/** So often others' entries are asked for, and what waits is sent, ms. */
const EVERY_MS = 2000;

export interface Log {
  sessions: SessionTold[];
  /** The session that is on. */
  open: SessionTold | undefined;
  waiting: number;
  isCut: boolean;
  wasCut: boolean;
  /** It was heard from the server, or there is nothing that it could add. */
  isHeard: boolean;
  /** Writes an entry; one of a name that there is, anew. Its name. */
  write: (what: Entry["what"], of: { session?: string; uid?: string; gone?: boolean }) => string;
  /** Asks the server again: something was deleted there. */
  again: () => Promise<void>;
  /** The server's clock, ms. */
  now_ms: () => number;
}

/** A name that no other entry has; also where the page came over plain HTTP, as on a phone. */
function newUid(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return [...bytes].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}

export function useLog(corner: number): Log {
  const [heard, setHeard] = useState(false);
  const [keeper] = useState(() => {
    // What the server has, joined from what it tells piece by piece; from the beginning again where something was deleted there.
    let known = new Map<string, Entry>();
    let written = 0;
    const heardOf = async (entries: Entry[]) => {
      const told = await takeApi.log(corner, entries, written);
      for (const entry of told.entries) known.set(entry.uid, entry);
      written = told.written;
      return told;
    };
    return new Keeper<Entry>({
      name: `fogon.log.${String(corner)}`,
      storage: localStorage,
      keyOf: (entry) => entry.uid,
      send: async (entries) => {
        let told = await heardOf(entries);
        if (told.count !== known.size) {
          [known, written] = [new Map<string, Entry>(), 0];
          told = await heardOf([]);
        }
        setHeard(true);
        return { items: [...known.values()], now_ms: told.now_ms };
      },
      now_ms: Date.now,
    });
  });
  useEffect(() => {
    void keeper.sync();
    const every = setInterval(() => void keeper.sync(), EVERY_MS);
    return () => clearInterval(every);
  }, [keeper]);
  const view = useSyncExternalStore(keeper.subscribe, () => keeper.view);
  const sessions = useMemo(() => sessionsOf(view.items.values()), [view.items]);
  const write: Log["write"] = (what, { session, uid, gone }) => {
    const own = uid ?? newUid();
    keeper.put((at_ms) => ({
      uid: own,
      session: session ?? own,
      at_ms,
      by: "",
      what,
      ...(gone ? { gone } : {}),
    }));
    return own;
  };
  return {
    sessions,
    open: openSession(sessions),
    waiting: view.waiting,
    isCut: view.isCut,
    wasCut: view.wasCut,
    isHeard: heard || view.items.size > 0,
    write,
    again: keeper.sync,
    now_ms: keeper.now_ms,
  };
}
