// A page that is fetched when it is gone to; fetched before, it is there at once.
import { lazy, useState, type ComponentType } from "react";

export interface Fetched {
  Page: ComponentType;
  fetch: () => Promise<unknown>;
}

export function fetched(load: () => Promise<ComponentType>): Fetched {
  let there: ComponentType | null = null;
  const fetch = async () => {
    there = await load();
    return { default: there };
  };
  const Later = lazy(fetch);
  function Page() {
    // One page keeps to one of the two: another component would begin anew.
    const [Shown] = useState<ComponentType>(() => there ?? Later);
    return <Shown />;
  }
  return { Page, fetch };
}
