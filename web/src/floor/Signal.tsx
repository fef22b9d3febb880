// What a phone does beside showing: a beep and a buzz at every tick, if wanted, and a screen that stays awake where it may.
import { useEffect, useRef, useState } from "react";

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

/** Keeps the screen awake; whether that worked, null until it is known. Browsers allow it on safe addresses only, and let go when the page is hidden. */
function useAwake(): boolean | null {
  const [isAwake, setAwake] = useState<boolean | null>(null);
  useEffect(() => {
    let held: WakeLockSentinel | null = null;
    const hold = () => {
      if (document.visibilityState !== "visible") return;
      // Over plain HTTP it is not there, whatever the types say.
      const lock = (navigator as { wakeLock?: WakeLock }).wakeLock;
      if (!lock) {
        setAwake(false);
        return;
      }
      void lock
        .request("screen")
        .then((sentinel) => {
          held = sentinel;
          setAwake(true);
        })
        .catch(() => setAwake(false));
    };
    hold();
    document.addEventListener("visibilitychange", hold);
    return () => {
      document.removeEventListener("visibilitychange", hold);
      void held?.release();
    };
  }, []);
  return isAwake;
}
