// Two takes, both worked out before anybody presses: they run together, and one of them is heard.
import { useQuery } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";

import { api, type Heard, type Plan, type Schemas } from "../api/client";
import { Player, type Levels, type Side, type Take } from "./player";

export type Variant = Schemas["Variant"];
/** A corner, and in which way it is heard. */
export type Way = readonly [Plan, Variant];

function useHeard([plan, variant]: Way, ownVoice: boolean) {
  return useQuery({
    queryKey: ["hear", plan, variant, ownVoice],
    queryFn: () => api.hear(plan, variant, ownVoice),
    staleTime: Infinity,
    gcTime: 60_000,
    retry: false,
  });
}

export function useTwoTakes(first: Way, second: Way, ownVoice = false) {
  const [side, setSide] = useState<Side>("a");
  const [levels, setLevels] = useState<Levels>("matched");
  const [playing, setPlaying] = useState(false);
  const [late, setLate] = useState<number | null>(null);
  const a = useHeard(first, ownVoice);
  const b = useHeard(second, ownVoice);
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
    a,
    b,
    side,
    hear,
    levels,
    setLevels: (to: Levels) => {
      setLevels(to);
      player.level(to);
    },
    playing,
    press: () => (playing ? player.end() : void play()),
    ready: a.data !== undefined && (b.data !== undefined || b.isError),
    late,
  };
}

export type TwoTakes = ReturnType<typeof useTwoTakes>;
