// Which thing is in hand: shown in the drawings, open in the lists.
import { createContext, useContext } from "react";

export interface Selection {
  selected: string | null;
  /** A thing has the focus. */
  select: (thing: string) => void;
  /** A hand takes it, by pointer or keys: its step opens. */
  take: (thing: string) => void;
}

export const SelectionContext = createContext<Selection>({
  selected: null,
  select: () => undefined,
  take: () => undefined,
});

export const useSelection = (): Selection => useContext(SelectionContext);
