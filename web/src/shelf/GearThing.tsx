// One thing on the shelf: its state, its figures, and how to measure a lamp.
import type { Gear } from "../api/client";
import type { UnitSystem } from "../units/length";
import { Button } from "../ui/button";
import { FIELD } from "../ui/note";
import { SHEET } from "../ui/Section";
import { FIGURES, told } from "./figures";
import { FiguresForm } from "./FiguresForm";
import { withFigures, withGear, withoutGear, type OnChange } from "./gear";
import { Kept } from "./Kept";
import { MeasuredLamp } from "./MeasuredLamp";

const STATES = [
  ["owned", "Owned"],
  ["borrowed", "Borrowed"],
  ["rented", "Rented"],
  ["wanted", "Wanted"],
  ["never", "Never"],
] as const;

interface Props {
  id: string;
  thing: Gear;
  used: boolean;
  units: UnitSystem;
  onChange: OnChange;
}

export function GearThing({ id, thing, used, units, onChange }: Props) {
  const onFigures = (figures: Record<string, unknown>) =>
    onChange((shelf) => withFigures(shelf, id, figures));
  const facts = [
    told(thing, units),
    used ? "in the layout" : "",
    thing.figures_assumed ? "figures assumed" : "",
  ];
  return (
    <li className={`${SHEET} p-4`}>
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <p className="mr-auto">
          <strong>{thing.label}</strong>
          <span className="text-faint block text-sm">{facts.filter((words) => words !== "").join(", ")}</span>
        </p>
        <span className="w-28">
          <select
            className={FIELD}
            aria-label={`State of ${thing.label}`}
            value={thing.state ?? "owned"}
            onChange={(event) => {
              const state = event.target.value;
              onChange((shelf) => withGear(shelf, id, { state }));
            }}
          >
            {STATES.map(([state, words]) => (
              <option key={state} value={state}>
                {words}
              </option>
            ))}
          </select>
        </span>
        <Button
          disabled={used}
          aria-label={`Remove ${thing.label}`}
          onClick={() => onChange((shelf) => withoutGear(shelf, id))}
        >
          Remove
        </Button>
      </div>
      <Kept thing={thing} onChange={(change) => onChange((shelf) => withGear(shelf, id, change))} />
      {FIGURES[thing.kind] && (
        <details className="mt-2">
          <summary className="min-h-6 cursor-pointer text-sm font-semibold">Figures</summary>
          <FiguresForm thing={thing} units={units} onFigures={onFigures} />
        </details>
      )}
      {thing.kind === "light" && <MeasuredLamp thing={thing} units={units} onFigures={onFigures} />}
    </li>
  );
}
