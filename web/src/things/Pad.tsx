// Nudges by a press: 1 cm, or ten times as far with Shift.
import type { Handle } from "../api/client";
import type { Vector } from "../table/handles";
import { useTable } from "../table/useTable";
import { Button } from "../ui/button";

const STEPS: [string, string, Vector][] = [
  ["←", "towards the left wall", [-1, 0, 0]],
  ["→", "towards the right wall", [1, 0, 0]],
  ["↑", "towards the front wall", [0, 1, 0]],
  ["↓", "towards the back wall", [0, -1, 0]],
  ["▴", "up", [0, 0, 1]],
  ["▾", "down", [0, 0, -1]],
];

export function Pad({ handle, still }: { handle: Handle; still: boolean }) {
  const table = useTable();
  return (
    <div className="mt-2 flex flex-wrap gap-1" role="group" aria-label={`Nudge ${handle.name}`}>
      {STEPS.filter(([, , by]) => by[2] === 0 || handle.lifts).map(([mark, words, by]) => (
        <Button
          key={words}
          size="icon"
          aria-label={`${handle.name}: a small step ${words}, with Shift a large one`}
          disabled={still}
          onClick={(event) => {
            const step = event.shiftKey ? 0.1 : 0.01;
            const way = by.map((part) => part * step) as Vector;
            void table.nudge(handle.id, "place", way).catch(() => undefined);
          }}
        >
          {mark}
        </Button>
      ))}
    </div>
  );
}
