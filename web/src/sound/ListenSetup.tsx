// What is heard: what B is, how loud, with which voice; and the takes as files.
import { useQueryClient } from "@tanstack/react-query";

import { Button } from "../ui/button";
import { handOut, stemOf } from "../ui/download";
import { Choice } from "../ui/fields";
import { Section } from "../ui/Section";
import type { Levels } from "../hearing/player";
import type { Listening, Other } from "./useListening";
import { HELD, OTHERS } from "./variants";
import { VoiceFile } from "./VoiceFile";

export function ListenSetup({ listening, name }: { listening: Listening; name: string }) {
  const queries = useQueryClient();
  const { other, hasHeld, takes } = listening;
  const { levels, side } = takes;
  const heard = takes[side].data;
  const others: readonly (readonly [Other, string])[] = hasHeld ? [HELD, ...OTHERS] : OTHERS;
  return (
    <Section title="What you hear">
      <div className="grid gap-3 sm:grid-cols-2">
        <Choice
          label="B is"
          value={other}
          options={others}
          onPick={(to) => listening.setOther(to as Other)}
        />
        <Choice
          label="Loudness"
          help={
            levels === "matched"
              ? "Louder always seems better. With both equally loud you hear what else differs."
              : "At one input gain: farther is softer."
          }
          value={levels}
          options={[
            ["matched", "made equally loud"],
            ["recorded", "as recorded"],
          ]}
          onPick={(to) => takes.setLevels(to as Levels)}
        />
      </div>
      <p className="mt-2 flex flex-wrap items-center gap-2 text-sm">
        <Button size="small" onClick={listening.hold}>
          Use this as B
        </Button>
        {heard && (
          <Button size="small" onClick={() => handOut(heard.wav, `${stemOf(name)}-${side}.wav`)}>
            Save {side.toUpperCase()} as WAV
          </Button>
        )}
      </p>
      <VoiceFile
        kept={listening.voice}
        own={listening.isOwn}
        onUse={listening.setOwn}
        onChange={() => {
          void queries.invalidateQueries({ queryKey: ["voice"] });
          queries.removeQueries({ queryKey: ["hear"] });
        }}
      />
    </Section>
  );
}
