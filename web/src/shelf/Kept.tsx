// How many of a thing there are, how well it is kept, where it lies, when it was bought and for how much.
import type { Gear } from "../api/client";
import { limits } from "../api/limits";
import { OptionalBox } from "../ui/boxes";
import { Choice, TextField } from "../ui/fields";

const CONDITIONS = [
  ["", "not told"],
  ["new", "As new"],
  ["good", "Good"],
  ["worn", "Worn"],
  ["broken", "Broken: not used"],
] as const;

interface Props {
  thing: Gear;
  /** What is set to null is no longer told. */
  onChange: (change: Record<string, unknown>) => void;
}

export function Kept({ thing, onChange }: Props) {
  const { bought } = thing;
  const withBought = (change: { date?: string | null; price?: number | null }) => {
    const told = Object.entries({ ...bought, ...change }).filter(
      ([, value]) => value != null && value !== "",
    );
    onChange({ bought: told.length > 0 ? Object.fromEntries(told) : null });
  };
  return (
    <details className="mt-2">
      <summary className="min-h-6 cursor-pointer text-sm font-semibold">How many, where, bought</summary>
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        <OptionalBox
          label="How many alike"
          unit=""
          value={thing.count ?? null}
          without="1"
          within={limits["Common.count"]}
          digits={0}
          step={1}
          onCommit={(count) => onChange({ count: count === null ? null : Math.round(count) })}
        />
        <Choice
          label="Condition"
          value={thing.condition ?? ""}
          options={CONDITIONS}
          onPick={(condition) => onChange({ condition: condition === "" ? null : condition })}
        />
        <TextField
          label="Where it lies"
          defaultValue={thing.place ?? ""}
          maxLength={80}
          onBlur={(event) => onChange({ place: event.target.value.trim() || null })}
        />
        <TextField
          label="Bought on"
          type="date"
          defaultValue={bought?.date ?? ""}
          onBlur={(event) => withBought({ date: event.target.value || null })}
        />
        <OptionalBox
          label="Paid for one"
          unit=""
          value={bought?.price ?? null}
          without="list price"
          within={limits["BoughtFor.price"]}
          digits={2}
          step={1}
          onCommit={(price) => withBought({ price })}
        />
      </div>
    </details>
  );
}
