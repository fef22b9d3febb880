// The table in React: one for the corner that is open, its parts looked at through narrow windows.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { createContext, useContext, useEffect, useState, useSyncExternalStore } from "react";

import { api, type Corner, type Judged } from "../api/client";
import { LiveHand } from "../api/live";
import { judging, remember, Shown, type Asked } from "./judging";
import { browserOutbox, type Outbox } from "./outbox";
import { Table, type View } from "./table";

let opened: Outbox | null = null;

/** The outbox of this page. */
export function outbox(): Outbox {
  return (opened ??= browserOutbox(window.localStorage));
}

export const TableContext = createContext<Table | null>(null);

export function useTable(): Table {
  const table = useContext(TableContext);
  if (!table) throw new Error("there is no table here");
  return table;
}

/** A part of what lies on the table; drawn again only when that part changes. */
export function useTableView<T>(select: (view: View) => T): T {
  const table = useTable();
  return useSyncExternalStore(table.subscribe, () => select(table.view()));
}

/** The browser asks before the page is left. */
const ask = (event: BeforeUnloadEvent) => event.preventDefault();

/** The table of a corner with its judgement, for as long as the corner is open. */
export function useOpenTable(corner: Corner, asked: Asked) {
  const queries = useQueryClient();
  const [shown] = useState(() => new Shown(asked));
  const [hand] = useState(() => new LiveHand());
  const [table] = useState(() => {
    const { id } = corner;
    return new Table(corner, {
      save: (revision, file, key) => api.save(id, revision, file, key),
      corner: () => api.corner(id),
      step: (which, revision) => api[which](id, revision),
      move: async (plan, by, live) => {
        const how = shown.drawn(live);
        const moved = await (live ? hand.move(plan, by, how) : api.move(plan, by, how));
        return { ...moved, judged: shown.share(moved.judged) };
      },
      judge: (plan, version) => queries.ensureQueryData(judging(id, plan, version, shown.asked, shown)),
      judged: (version, judged) => remember(queries, id, version, shown.asked, judged),
      settle: api.measured,
      kept: (kept) => {
        queries.setQueryData(["corner", id], kept);
        void queries.invalidateQueries({ queryKey: ["corners"] });
      },
      box: outbox().open(id),
      key: () => crypto.randomUUID(),
      later: (ms, task) => {
        const timer = window.setTimeout(task, ms);
        return () => window.clearTimeout(timer);
      },
      waits: (are) => {
        if (are) window.addEventListener("beforeunload", ask);
        else window.removeEventListener("beforeunload", ask);
      },
    });
  });
  const view = useSyncExternalStore(table.subscribe, table.view);
  const query = useQuery(judging(corner.id, view.plan, view.version, asked, shown));
  const judged: Judged | null = view.live?.judged ?? query.data ?? shown.newest;
  useEffect(() => shown.asks(asked), [shown, asked]);
  useEffect(() => {
    hand.open();
    return () => hand.close();
  }, [hand]);
  // What another window saved is shown.
  useEffect(() => table.seen(corner), [table, corner]);
  useLeaving(table);
  return { table, view, judged, trouble: query.error, again: () => void query.refetch() };
}

/** When the page goes away what is typed is taken, and what waits is sent on its way; it lies in the outbox already. */
function useLeaving(table: Table): void {
  useEffect(() => {
    const leave = () => {
      if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
      void table.flush();
    };
    const back = () => void table.flush();
    window.addEventListener("pagehide", leave);
    window.addEventListener("online", back);
    return () => {
      window.removeEventListener("pagehide", leave);
      window.removeEventListener("online", back);
      table.close();
    };
  }, [table]);
}
