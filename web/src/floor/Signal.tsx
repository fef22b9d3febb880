// What a phone does beside showing: a beep and a buzz at every tick, if wanted, and a screen that stays awake where it may.
import { useEffect, useRef, useState } from "react";

import { useAwake } from "../ui/useAwake";

const NAME = "fogon.beep";
/** A short tone, s and Hz; the buzz, ms. */
const TONE = { length_s: 0.09, frequency_hz: 880, loudness: 0.2 };
const BUZZ_MS = 60;

export function Signal({ done }: { done: number }) {
  const [isOn, setOn] = useState(() => localStorage.getItem(NAME) === "yes");
  const before = useRef(done);
  useEffect(() => {
    if (isOn && done > before.current) {
      navigator.vibrate?.(BUZZ_MS);
      beep();
    }
    before.current = done;
  }, [done, isOn]);
  const isAwake = useAwake();
  return (
    <div className="text-faint grid gap-1 text-sm">
      <label className="flex min-h-8 items-center gap-2">
        <input
          type="checkbox"
          className="accent-ember h-5 w-5"
          checked={isOn}
          onChange={(event) => {
            localStorage.setItem(NAME, event.target.checked ? "yes" : "no");
            setOn(event.target.checked);
          }}
        />
        Beep and buzz at every tick
      </label>
      {isAwake === false && (
        <p>The screen may go dark here: set a longer time-out in the phone&rsquo;s own display settings.</p>
      )}
    </div>
  );
}

function beep(): void {
  const audio = new AudioContext();
  const [tone, volume] = [audio.createOscillator(), audio.createGain()];
  tone.frequency.value = TONE.frequency_hz;
  volume.gain.value = TONE.loudness;
  tone.connect(volume).connect(audio.destination);
  tone.onended = () => void audio.close();
  tone.start();
  tone.stop(audio.currentTime + TONE.length_s);
}
