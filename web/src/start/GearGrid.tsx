// Gear by kind in a grid: one of them, or so many of each.
import { Button } from "../ui/button";
import { Icon } from "../ui/icons";
import { SHEET } from "../ui/Section";
import { Drawn } from "./art";
import type { Usual } from "./gear";

interface OneProps {
  label: string;
  things: readonly Usual[];
  value: string;
  /** What is said of having none of them. */
  none: string;
  onValue: (id: string) => void;
}

const TILE = `${SHEET} flex flex-col items-center gap-1 p-2 text-center text-sm`;

/** One of several. */
export function OneOf({ label, things, value, none, onValue }: OneProps) {
  const all = [
    ...things.map(({ id, name, art }) => [id, name, art] as const),
    ["none", none, "none"] as const,
  ];
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{label}</legend>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-4">
        {all.map(([id, name, art]) => (
          <label
            key={id}
            className={`${TILE} has-checked:border-ember has-checked:bg-ember-soft has-focus-visible:outline-ember cursor-pointer has-focus-visible:outline-3`}
          >
            <input
              type="radio"
              name={label}
              className="sr-only"
              checked={value === id}
              onChange={() => onValue(id)}
            />
            <Drawn art={art} />
            {name}
          </label>
        ))}
      </div>
    </fieldset>
  );
}

interface ManyProps {
  label: string;
  things: readonly Usual[];
  counts: Record<string, number>;
  onCounts: (counts: Record<string, number>) => void;
  none: string;
}

const MOST = 4;

/** So many of each. */
export function ManyOf({ label, things, counts, onCounts, none }: ManyProps) {
  const nothing = things.every(({ id }) => (counts[id] ?? 0) === 0);
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">{label}</legend>
      <div className="grid grid-cols-2 gap-2 sm:grid-cols-3">
        {things.map(({ id, name, art }) => {
          const many = counts[id] ?? 0;
          const set = (to: number) => onCounts({ ...counts, [id]: to });
          return (
            <div
              key={id}
              className={`${TILE} ${many > 0 ? "border-ember bg-ember-soft" : ""}`}
              role="group"
              aria-label={name}
            >
              <Drawn art={art} />
              <span className="grow">{name}</span>
              <span className="flex items-center gap-2">
                <Button
                  size="icon"
                  aria-label={`One less: ${name}`}
                  disabled={many === 0}
                  onClick={() => set(many - 1)}
                >
                  <Icon name="minus" />
                </Button>
                <output className="w-5 font-bold" aria-label={`Number of: ${name}`}>
                  {many}
                </output>
                <Button
                  size="icon"
                  aria-label={`One more: ${name}`}
                  disabled={many >= MOST}
                  onClick={() => set(many + 1)}
                >
                  <Icon name="plus" />
                </Button>
              </span>
            </div>
          );
        })}
      </div>
      <div className="mt-2 flex flex-wrap items-center gap-2 text-sm">
        <Button size="small" aria-pressed={nothing} onClick={() => onCounts({})}>
          None of these
        </Button>
        {nothing && <span>{none}</span>}
      </div>
    </fieldset>
  );
}
