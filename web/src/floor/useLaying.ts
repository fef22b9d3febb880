// A corner as it is laid: its steps, and what is ticked of them here and elsewhere.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState, useSyncExternalStore } from "react";

import type { Schemas } from "../api/client";
import { floorApi } from "../api/floor";
import { Keeper, type View } from "../api/keeper";
import { ticksOf, type Tick } from "./ticks";

/** So often others' ticks are asked for, and what waits is sent, ms. */
const EVERY_MS = 2000;

export interface Laying extends Omit<View<Tick>, "items"> {
  /** By the name of the step. */
  ticks: Map<string, Tick>;
  told: Schemas["Laying"] | undefined;
  error: unknown;
  tick: (step: string, done: boolean) => void;
  /** The server's clock, ms. */
  now_ms: () => number;
}

export function useLaying(corner: number): Laying {
  const [keeper] = useState(
    () =>
      new Keeper<Tick>({
        name: ticksOf(corner),
        storage: localStorage,
        keyOf: (tick) => tick.step,
        send: async (ticks) => {
          const sent = ticks.map(({ step, done, at_ms }) => ({ step, done, at_ms }));
          const answer = await floorApi.tick(corner, sent);
          return { items: answer.ticks, now_ms: answer.now_ms };
        },
        now_ms: Date.now,
      }),
  );
  const { data, error } = useQuery({
    queryKey: ["laying", corner],
    queryFn: async () => {
      const told = await floorApi.laying(corner);
      keeper.heard({ items: told.ticks, now_ms: told.now_ms });
      return told;
    },
    // The steps change with the plan; what has been fetched stays when the network is gone.
    refetchInterval: 10 * EVERY_MS,
  });
  useEffect(() => {
    const every = setInterval(() => void keeper.sync(), EVERY_MS);
    return () => clearInterval(every);
  }, [keeper]);
  const { items, ...view } = useSyncExternalStore(keeper.subscribe, () => keeper.view);
  const tick = (step: string, done: boolean) => keeper.put((at_ms) => ({ step, done, at_ms }));
  return { told: data, error, ...view, ticks: items, tick, now_ms: keeper.now_ms };
}
