// Hear it here: a corner as it would be recorded, beside it in another way.
import { ToggleGroup } from "radix-ui";

import { fixed } from "../units/length";
import { Button } from "../ui/button";
import { Trouble } from "../ui/states";
import type { Side } from "./player";
import type { TwoTakes } from "./useTwoTakes";

interface Props {
  takes: TwoTakes;
  names: Record<Side, string>;
}

export function Listen({ takes, names }: Props) {
  const { a, b, side, playing, ready, late, press, hear } = takes;
  if (a.isError) return <Trouble error={a.error} onRetry={() => void a.refetch()} />;
  return (
    <section aria-label="Hear it here">
      <div className="flex flex-wrap items-stretch gap-2">
        <Button
          look="act"
          className="min-w-24"
          disabled={!ready}
          data-late-ms={late === null ? undefined : Math.round(late)}
          onClick={press}
        >
          {playing ? "Stop" : ready ? "Play" : "Wait …"}
        </Button>
        <ToggleGroup.Root
          type="single"
          aria-label="Which of the two you hear"
          value={side}
          onValueChange={(to) => to !== "" && hear(to as Side)}
          className="border-line grid min-w-56 flex-1 grid-cols-2 overflow-hidden rounded-lg border"
        >
          {(["a", "b"] as const).map((one) => {
            const heard = takes[one].data;
            return (
              <ToggleGroup.Item
                key={one}
                value={one}
                className="bg-paper border-line data-[state=on]:border-b-ember data-[state=on]:bg-ember-soft min-h-12 min-w-0 cursor-pointer border-b-3 border-b-transparent px-3 py-1 text-left text-sm not-first:border-l"
              >
                <span className="block">
                  <b>{one.toUpperCase()}</b> {names[one]}
                </span>
                <span className="text-faint block text-xs">
                  {heard
                    ? `${fixed(heard.snrDb, 0)} dB over noise · STI ${fixed(heard.sti, 2)}`
                    : "working it out …"}
                </span>
              </ToggleGroup.Item>
            );
          })}
        </ToggleGroup.Root>
      </div>
      {b.isError && <Trouble error={b.error} onRetry={() => void b.refetch()} />}
      <p className="text-faint mt-1 text-xs">
        Headphones, turned down before you press play; no loudspeakers while a microphone is on.
      </p>
    </section>
  );
}
