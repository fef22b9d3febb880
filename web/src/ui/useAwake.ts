// A screen that stays awake while the hands are busy.
import { useEffect, useState } from "react";

/** Keeps the screen awake; whether that worked, null until it is known. Browsers allow it on safe addresses only, and let go when the page is hidden. */
export function useAwake(): boolean | null {
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
