// A slider under a box: it follows the hand at once, and asks again only when the last answer has come.
import { Slider } from "radix-ui";

import { usePending } from "./pending";

interface Props {
  /** Spoken name. */
  name: string;
  value: number;
  within: readonly [number, number];
  step: number;
  /** The value as it is spoken. */
  words: (value: number) => string;
  disabled?: boolean;
  onSlide: (value: number) => Promise<void> | void;
}

export function Slide({ name, value, within, step, words, disabled = false, onSlide }: Props) {
  const [shown, push] = usePending(value, onSlide);
  const [least, most] = within;
  const at = Math.min(most, Math.max(least, shown));
  return (
    <Slider.Root
      className="relative mt-1 flex h-6 w-full touch-none items-center select-none data-disabled:opacity-50"
      min={least}
      max={most}
      step={step}
      value={[at]}
      disabled={disabled}
      onValueChange={([next]) => next !== undefined && void push(() => next).catch(() => undefined)}
    >
      <Slider.Track className="bg-line relative h-1 grow rounded-full">
        <Slider.Range className="bg-faint absolute h-full rounded-full" />
      </Slider.Track>
      <Slider.Thumb
        className="border-ink bg-paper block h-6 w-6 rounded-full border-2"
        aria-label={name}
        aria-valuetext={words(at)}
      />
    </Slider.Root>
  );
}
