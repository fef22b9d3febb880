// What the lines and areas of the drawings mean: opened when it is wanted.
import { Popover } from "radix-ui";

import type { Step } from "../api/client";
import { button } from "../ui/button";
import { Icon } from "../ui/icons";

type Row = readonly [string, string];

const ALWAYS: readonly Row[] = [
  ["field", "what the lens sees"],
  ["sharp", "what is sharp"],
  ["feet", "floor that a stand takes"],
  ["swing", "a door's way"],
  ["overhead", "a slope, beam or sail overhead"],
];

const OF_STEP: Partial<Record<Step, readonly Row[]>> = {
  shot: [["area-shot", "the darker, the sharper"]],
  light: [
    ["area-light", "light against your face, half a stop a shade"],
    ["isolux", "light of the lamp in hand, a stop a line; 0 passes your eyes"],
    ["cone", "the lamp in hand as large as your face sees it"],
    ["keep-out", "the picture's edge: lamps stay outside"],
  ],
  sound: [
    ["area-sound", "your voice over the room: the darker, the clearer"],
    ["critical", "here your voice is as loud as the room"],
    ["voice", "from your mouth to the microphone"],
    ["echo", "first reflections"],
    ["treatment", "hung to reduce echo"],
    ["keep-out", "the picture's edge: the microphone stays outside"],
  ],
};

export function KeyOf({ step }: { step: Step | null }) {
  const rows = [...(step === null ? [] : (OF_STEP[step] ?? [])), ...ALWAYS];
  return (
    <Popover.Root>
      <Popover.Trigger className={button({ size: "small", look: "quiet" })}>
        <Icon name="key" />
        Key
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          aria-label="Key of the drawings"
          align="end"
          sideOffset={4}
          className="border-line bg-paper z-30 w-80 rounded-xl border p-4 text-sm"
        >
          <ul className="grid gap-1.5">
            {rows.map(([ink, words]) => (
              <li key={ink} className="flex items-center gap-3">
                <span className="w-10 shrink-0">
                  <svg viewBox="0 0 40 18" className="drawing" aria-hidden="true">
                    {LINES.has(ink) ? (
                      <line x1="1" x2="39" y1="9" y2="9" className={`ink-${ink}`} />
                    ) : (
                      <rect
                        x="2"
                        y="2"
                        width="36"
                        height="14"
                        className={ink.startsWith("area") ? `area area-key ${ink}` : `ink-${ink}`}
                      />
                    )}
                  </svg>
                </span>
                {words}
              </li>
            ))}
          </ul>
          <p className="mt-3">
            Drag a thing, or reach it with Tab and move it with the arrow keys: 1 cm, with Shift 10 cm. Escape
            puts it back; Alt lets it through where a rule holds it.
          </p>
          <p className="text-faint mt-2">
            Left and right are the camera&rsquo;s. Small letters are the room&rsquo;s corners.
          </p>
          <Popover.Arrow className="fill-line" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

const LINES = new Set(["isolux", "keep-out", "critical", "voice", "echo"]);
