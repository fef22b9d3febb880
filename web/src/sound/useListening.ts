// Two ways of hearing the corner: A as it is planned, B as something else, both worked out before anybody presses.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";

import { api, type Heard, type Plan, type Schemas } from "../api/client";
import { Player, type Levels, type Side, type Take } from "./player";

export type Variant = Schemas["Variant"];
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

function useHeard(plan: Plan, variant: Variant, ownVoice: boolean) {
  return useQuery({
    queryKey: ["hear", plan, variant, ownVoice],
    queryFn: () => api.hear(plan, variant, ownVoice),
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  });
}

export function useListening(given: Plan) {
  const plan = useSettled(given, 400);
  const [other, setOther] = useState<Other>("on-camera");
  const [held, setHeld] = useState<Plan | null>(null);
  const [side, setSide] = useState<Side>("a");
  const [levels, setLevels] = useState<Levels>("matched");
  const [playing, setPlaying] = useState(false);
  const [late, setLate] = useState<number | null>(null);
  const voice = useQuery({ queryKey: ["voice"], queryFn: api.voice, staleTime: Infinity });
  const [own, setOwn] = useState(false);
  const isOwn = own && voice.data?.seconds != null;
  const second: [Plan, Variant] = other === "held" ? [held ?? plan, "planned"] : [plan, other];
  const a = useHeard(plan, "planned", isOwn);
  const b = useHeard(...second, isOwn);
  const [player] = useState(() => new Player(() => setPlaying(false)));
  const decoded = useRef(new WeakMap<Heard, AudioBuffer>());
  useEffect(() => () => player.close(), [player]);
  // What plays is no longer what is planned: it ends.
  useEffect(() => () => player.end(), [player, a.data, b.data]);

  const load = (): Promise<Take[]> =>
    Promise.all(
      [a.data, b.data]
        .flatMap((one) => (one ? [one] : []))
        .map(async (one) => {
          let buffer = decoded.current.get(one);
          if (!buffer) {
            buffer = await player.audio().decodeAudioData(await one.wav.arrayBuffer());
            decoded.current.set(one, buffer);
          }
          return { buffer, gainDb: one.gainDb, loudnessLufs: one.loudnessLufs };
        }),
    );
  const play = async () => {
    const pressed = performance.now();
    if (!(await player.play(load, side, levels))) return;
    setLate(performance.now() - pressed);
    setPlaying(true);
  };
  const hear = (to: Side) => {
    setSide(to);
    player.hear(to);
  };
  return {
    plan,
    second,
    a,
    b,
    side,
    hear,
    levels,
    setLevels: (to: Levels) => {
      setLevels(to);
      player.level(to);
    },
    other,
    setOther: (to: Other) => {
      setOther(to);
      hear("b");
    },
    hasHeld: held !== null,
    /** B is the corner as it is now, whatever is changed afterwards. */
    hold: () => {
      setHeld(plan);
      setOther("held");
    },
    playing,
    press: () => (playing ? player.end() : void play()),
    ready: a.data !== undefined && (b.data !== undefined || b.isError),
    late,
    voice: voice.data ?? null,
    isOwn,
    setOwn,
  };
}

export type Listening = ReturnType<typeof useListening>;
