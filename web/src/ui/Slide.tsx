// A slider under a box: it follows the hand, and asks again only when the last answer has come.
import { useRef, useState } from "react";

interface Props {
  /** Spoken name. */
  name: string;
  value: number;
  within: readonly [number, number];
  step: number;
  disabled?: boolean;
  onSlide: (value: number) => Promise<void> | void;
}

export function Slide({ name, value, within, step, disabled, onSlide }: Props) {
  const [held, setHeld] = useState<number | null>(null);
  const busy = useRef(false);
  const wanted = useRef<number | null>(null);
  const send = async (next: number) => {
    wanted.current = next;
    if (busy.current) return;
    busy.current = true;
    try {
      while (wanted.current !== null) {
        const now: number = wanted.current;
        wanted.current = null;
        await onSlide(now);
      }
    } finally {
      busy.current = false;
    }
  };
  return (
    <input
      type="range"
      className="slide"
      aria-label={name}
      min={within[0]}
      max={within[1]}
      step={step}
      disabled={disabled}
      value={held ?? Math.min(within[1], Math.max(within[0], value))}
      onChange={(event) => {
        const next = Number(event.target.value);
        setHeld(next);
        void send(next);
      }}
      onPointerUp={() => setHeld(null)}
      onBlur={() => setHeld(null)}
      onKeyUp={() => setHeld(null)}
    />
  );
}
