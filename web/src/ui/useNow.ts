// The time, while it is looked at.
import { useEffect, useState } from "react";

/** It is drawn so often, ms. */
const EVERY_MS = 200;

export function useNow(isOn: boolean, now_ms: () => number): number {
  const [now, setNow] = useState(now_ms);
  useEffect(() => {
    if (!isOn) return;
    const every = setInterval(() => setNow(now_ms()), EVERY_MS);
    return () => clearInterval(every);
  }, [isOn, now_ms]);
  return now;
}
