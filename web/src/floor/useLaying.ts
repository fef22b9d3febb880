// A corner as it is laid: its steps, and what is ticked of them here and elsewhere.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState, useSyncExternalStore } from "react";

import type { Schemas } from "../api/client";
import { floorApi } from "../api/floor";
import { Keeper, type View } from "./keeper";

/** So often others' ticks are asked for, and what waits is sent, ms. */
const EVERY_MS = 2000;

export interface Laying extends View {
  told: Schemas["Laying"] | undefined;
  error: unknown;
  tick: (step: string, done: boolean) => void;
  /** The server's clock, ms. */
  now_ms: () => number;
}

export function useLaying(corner: number): Laying {
  const [keeper] = useState(
    () =>
      new Keeper({
        corner,
        storage: localStorage,
        send: (ticks) =>
          floorApi.tick(
            corner,
            ticks.map(({ step, done, at_ms }) => ({ step, done, at_ms })),
          ),
        now_ms: Date.now,
      }),
  );
  const { data, error } = useQuery({
    queryKey: ["laying", corner],
    queryFn: async () => {
      const told = await floorApi.laying(corner);
      keeper.heard(told);
      return told;
    },
    // The steps change with the plan; what has been fetched stays when the network is gone.
    refetchInterval: 10 * EVERY_MS,
    networkMode: "always",
  });
  useEffect(() => {
    const every = setInterval(() => void keeper.sync(), EVERY_MS);
    return () => clearInterval(every);
  }, [keeper]);
  const view = useSyncExternalStore(keeper.subscribe, () => keeper.view);
  return { told: data, error, ...view, tick: (step, done) => keeper.tick(step, done), now_ms: keeper.now_ms };
}
