// Hear it here: the corner as it would be recorded, beside the same corner in another way.
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";

import { api, type Heard, type Plan, type Schemas } from "../api/client";
import { Choice } from "../ui/fields";
import { Trouble } from "../ui/states";
import { fixed } from "../units/length";
import { Impulse } from "./Impulse";
import { Player, type Levels, type Side, type Take } from "./player";
import { VoiceFile } from "./VoiceFile";

type Variant = Schemas["Variant"];
/** What B is: the corner in another way, or as it stood when it was held. */
type Other = Variant | "held";

const OTHERS: readonly (readonly [Variant, string])[] = [
  ["built-in", "a microphone built into the camera"],
  ["on-camera", "a short shotgun on the camera"],
  ["boom-shotgun", "a short shotgun on a boom"],
  ["boom", "a small condenser on a boom"],
  ["lavalier", "a lavalier on the chest"],
  ["desk", "a microphone on the desk"],
  ["headset", "a headset"],
  ["bare", "as it is, nothing hung"],
  ["treated", "everything hung that is advised below"],
];

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

export function Listen({ plan: given }: { plan: Plan }) {
  const plan = useSettled(given, 400);
  const [other, setOther] = useState<Other>("on-camera");
  const [held, setHeld] = useState<Plan | null>(null);
  const [side, setSide] = useState<Side>("a");
  const [levels, setLevels] = useState<Levels>("matched");
  const [playing, setPlaying] = useState(false);
  const [late, setLate] = useState<number | null>(null);
  const queries = useQueryClient();
  const voice = useQuery({ queryKey: ["voice"], queryFn: api.voice, staleTime: Infinity });
  const [own, setOwn] = useState(false);
  const isOwn = own && voice.data?.seconds != null;
  const second: [Plan, Variant] = other === "held" ? [held ?? plan, "planned"] : [plan, other];
  // Worked out before anybody presses, so that sound comes at once.
  const heard = { a: useHeard(plan, "planned", isOwn), b: useHeard(...second, isOwn) };
  const [player] = useState(() => new Player(() => setPlaying(false)));
  const decoded = useRef(new WeakMap<Heard, AudioBuffer>());
  useEffect(() => () => player.close(), [player]);

  const takes = async (): Promise<Take[]> => {
    const both = [heard.a, heard.b].flatMap(({ data }) => (data ? [data] : []));
    return Promise.all(
      both.map(async (one) => {
        let buffer = decoded.current.get(one);
        if (!buffer) {
          buffer = await player.audio().decodeAudioData(await one.wav.arrayBuffer());
          decoded.current.set(one, buffer);
        }
        return { buffer, gainDb: one.gainDb, loudnessLufs: one.loudnessLufs };
      }),
    );
  };
  const play = async () => {
    const pressed = performance.now();
    const both = await takes();
    if (both.length === 0) return;
    await player.play(both, side, levels);
    setLate(performance.now() - pressed);
    setPlaying(true);
  };
  const hear = (to: Side) => {
    setSide(to);
    player.hear(to);
  };
  // What plays is no longer what is planned: it ends.
  useEffect(() => () => player.end(), [player, heard.a.data, heard.b.data]);
  const ready = heard.a.data !== undefined && (heard.b.data !== undefined || heard.b.isError);
  const shown = heard[side].data;
  const others: readonly (readonly [Other, string])[] = held
    ? [["held", "the corner as you held it"], ...OTHERS]
    : OTHERS;
  const name = (one: Side) => (one === "a" ? "as planned" : (others.find(([v]) => v === other)?.[1] ?? ""));
  return (
    <section aria-labelledby="listen" className="listen">
      <h3 id="listen" className="subheading">
        Hear it here
      </h3>
      {heard.a.isError && (
        <Trouble error={heard.a.error} onRetry={() => void heard.a.refetch()} retryWords="Try again" />
      )}
      {!heard.a.isError && (
        <>
          <p className="caution-line">
            Headphones, turned down before you press play; no loudspeakers while a microphone is on.
          </p>
          <div className="listen-row">
            <button
              type="button"
              className="button button-act listen-play"
              disabled={!ready}
              data-late-ms={late === null ? undefined : Math.round(late)}
              onClick={() => (playing ? player.end() : void play())}
            >
              {playing ? "Stop" : ready ? "Play" : "Working it out"}
            </button>
            <div className="listen-sides" role="group" aria-label="Which of the two is heard">
              {(["a", "b"] as const).map((one) => (
                <button
                  key={one}
                  type="button"
                  className="listen-side"
                  aria-pressed={side === one}
                  onClick={() => hear(one)}
                >
                  <b>{one.toUpperCase()}</b> {name(one)}
                </button>
              ))}
            </div>
          </div>
          <div className="grid gap-3 sm:grid-cols-2">
            <Choice
              label="B is"
              value={other}
              options={others}
              onChange={(to) => {
                setOther(to as Other);
                hear("b");
              }}
            />
            <Choice
              label="Loudness"
              help={
                levels === "matched"
                  ? "Louder always seems better: alike, the rest is heard."
                  : "At one input gain: farther is softer."
              }
              value={levels}
              options={[
                ["matched", "made equally loud"],
                ["recorded", "as recorded"],
              ]}
              onChange={(to) => {
                setLevels(to as Levels);
                player.level(to as Levels);
              }}
            />
          </div>
          <p className="mt-2 text-sm">
            <button
              type="button"
              className="button button-small"
              onClick={() => {
                setHeld(plan);
                setOther("held");
              }}
            >
              {held ? "Hold it anew as B" : "Hold this as B"}
            </button>{" "}
            then move or change something: A is what is planned now.
          </p>
          {heard.b.isError && (
            <Trouble error={heard.b.error} onRetry={() => void heard.b.refetch()} retryWords="Try again" />
          )}
          <Figures a={heard.a.data} b={heard.b.data} />
          <VoiceFile
            kept={voice.data ?? null}
            own={isOwn}
            onUse={setOwn}
            onChange={() => {
              void queries.invalidateQueries({ queryKey: ["voice"] });
              queries.removeQueries({ queryKey: ["hear"] });
            }}
          />
          {shown && (
            <p className="mb-3 text-sm">
              <a
                className="button button-small"
                href={shown.url}
                download={`${plan.name.toLowerCase().replaceAll(/[^a-z0-9]+/g, "-")}-${side}.wav`}
              >
                Download {side.toUpperCase()} as WAV
              </a>
            </p>
          )}
          <Impulse
            plan={side === "a" ? plan : second[0]}
            variant={side === "a" ? "planned" : second[1]}
            title={name(side)}
          />
        </>
      )}
    </section>
  );
}

/** Both in numbers. */
function Figures({ a, b }: { a: Heard | undefined; b: Heard | undefined }) {
  if (!a) return null;
  const row = (label: string, of: (one: Heard) => string) => (
    <tr>
      <th scope="row">{label}</th>
      <td>{of(a)}</td>
      <td>{b ? of(b) : "–"}</td>
    </tr>
  );
  return (
    <table className="takes listen-figures">
      <thead>
        <tr>
          <td />
          <th scope="col">A</th>
          <th scope="col">B</th>
        </tr>
      </thead>
      <tbody>
        {row("Voice at the microphone", (one) => `${fixed(one.levelDba, 0)} dBA`)}
        {row("Voice over noise", (one) => `${fixed(one.snrDb, 0)} dB`)}
        {row("Speech transmission index", (one) => fixed(one.sti, 2))}
      </tbody>
    </table>
  );
}
