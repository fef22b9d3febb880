// Two ways of hearing the corner: A as it is planned, B as something else.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";

import { api, type Plan } from "../api/client";
import { useTwoTakes, type Variant, type Way } from "../hearing/useTwoTakes";

/** What B is: the corner in another way, or as it stood when it was put aside. */
export type Other = Variant | "held";

/** A plan that has stood still for a moment: while a hand drags nothing is worked out. */
function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = window.setTimeout(() => setSettled(value), ms);
    return () => window.clearTimeout(timer);
  }, [value, ms]);
  return settled;
}

export function useListening(given: Plan) {
  const plan = useSettled(given, 400);
  const [other, setOther] = useState<Other>("on-camera");
  const [held, setHeld] = useState<Plan | null>(null);
  const voice = useQuery({ queryKey: ["voice"], queryFn: api.voice, staleTime: Infinity });
  const [own, setOwn] = useState(false);
  const isOwn = own && voice.data?.seconds != null;
  const second: Way = other === "held" ? [held ?? plan, "planned"] : [plan, other];
  const takes = useTwoTakes([plan, "planned"], second, isOwn);
  return {
    plan,
    second,
    takes,
    other,
    setOther: (to: Other) => {
      setOther(to);
      takes.hear("b");
    },
    hasHeld: held !== null,
    /** B is the corner as it is now, whatever is changed afterwards. */
    hold: () => {
      setHeld(plan);
      setOther("held");
    },
    voice: voice.data ?? null,
    isOwn,
    setOwn,
  };
}

export type Listening = ReturnType<typeof useListening>;
