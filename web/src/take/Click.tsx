// A click to play along with: tempo, bars counted in; it runs on, so that a passage can be repeated at once.
import { useEffect, useRef, useState } from "react";

import { NumberBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { SHEET } from "../ui/Section";
import { Metronome, TEMPO, type Beat, type Meter } from "./metronome";

const NAME = "fogon.click";
const USUAL: Meter = { tempo: 90, beats: 4, countIn: 1 };

function kept(): Meter {
  try {
    return { ...USUAL, ...(JSON.parse(localStorage.getItem(NAME) ?? "{}") as Partial<Meter>) };
  } catch {
    return USUAL;
  }
}

export function Click() {
  const [meter, setMeter] = useState(kept);
  const [beat, setBeat] = useState<Beat | null>(null);
  const [isOn, setOn] = useState(false);
  const metronome = useRef<Metronome | null>(null);
  useEffect(() => () => metronome.current?.stop(), []);
  const set = (change: Partial<Meter>) => {
    const next = { ...meter, ...change };
    localStorage.setItem(NAME, JSON.stringify(next));
    setMeter(next);
    if (isOn) metronome.current?.start(next);
  };
  const press = () => {
    metronome.current ??= new Metronome(setBeat);
    if (isOn) metronome.current.stop();
    else metronome.current.start(meter);
    setOn(!isOn);
  };
  return (
    <details className={`${SHEET} px-4 py-2`}>
      <summary className="min-h-8 cursor-pointer py-1 text-sm font-semibold">
        A click to play along with
      </summary>
      <div className="grid gap-3 pb-2">
        <div className="flex flex-wrap items-end gap-3">
          <div className="w-28">
            <NumberBox
              label="Beats a minute"
              within={TEMPO}
              digits={0}
              value={meter.tempo}
              onCommit={(tempo) => set({ tempo })}
            />
          </div>
          <div className="w-24">
            <NumberBox
              label="Beats a bar"
              within={[1, 12]}
              digits={0}
              value={meter.beats}
              onCommit={(beats) => set({ beats: Math.round(beats) })}
            />
          </div>
          <div className="w-28">
            <NumberBox
              label="Bars counted in"
              within={[0, 4]}
              digits={0}
              value={meter.countIn}
              onCommit={(countIn) => set({ countIn: Math.round(countIn) })}
            />
          </div>
          <Button look={isOn ? "usual" : "act"} onClick={press}>
            {isOn ? "Stop the click" : "Start the click"}
          </Button>
          <p className="text-3xl font-bold" aria-hidden="true">
            {beat ? (beat.isCountIn ? `in ${String(beat.ofBar)}` : beat.ofBar) : "–"}
          </p>
        </div>
        <p className="text-faint text-sm">
          Turn the headphones down before you put them on. The click must not hurt your ears, and the
          microphone must not hear it.
        </p>
      </div>
    </details>
  );
}
