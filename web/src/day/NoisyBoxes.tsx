// The hours of the week that are not quiet.
import type { Plan, Schemas } from "../api/client";
import { withQuiet } from "../table/edits";
import { useTable } from "../table/useTable";
import { Button } from "../ui/button";
import { Choice, TextField } from "../ui/fields";
import { Section, SHEET } from "../ui/Section";

type Noisy = Schemas["NoisyHours"];
type Day = Schemas["Day"];

const DAYS: readonly (readonly [Day, string])[] = [
  ["mon", "Mo"],
  ["tue", "Tu"],
  ["wed", "We"],
  ["thu", "Th"],
  ["fri", "Fr"],
  ["sat", "Sa"],
  ["sun", "Su"],
];

const KINDS = [
  ["traffic", "Traffic"],
  ["school", "A school"],
  ["neighbours", "Neighbours"],
  ["building-work", "Building work"],
  ["household", "Your own household"],
] as const;

/** What a new row begins with. */
const USUAL: Noisy = {
  days: ["mon", "tue", "wed", "thu", "fri"],
  from: "07:30",
  to: "09:00",
  kind: "traffic",
};

export function NoisyBoxes({ plan }: { plan: Plan }) {
  const table = useTable();
  const all = plan.brief.quiet ?? [];
  const set = (at: number, change: Partial<Noisy>) =>
    table.act((p) =>
      withQuiet(
        p,
        (p.brief.quiet ?? []).map((one, index) => (index === at ? { ...one, ...change } : one)),
      ),
    );
  return (
    <Section
      title="When it is not quiet"
      aside={
        <Button
          size="small"
          onClick={() => table.act((p) => withQuiet(p, [...(p.brief.quiet ?? []), USUAL]))}
        >
          Add hours
        </Button>
      }
    >
      {all.length === 0 && (
        <p className="text-sm">Nothing told: every hour counts as quiet. Good hours leave these out.</p>
      )}
      <ul className="grid gap-2">
        {all.map((one, at) => (
          <li key={at} className={`${SHEET} flex flex-wrap items-end gap-3 p-3`}>
            <Choice
              label="What is heard"
              value={one.kind}
              options={KINDS}
              onPick={(kind) => set(at, { kind: kind as Noisy["kind"] })}
            />
            <TextField
              label="From"
              type="time"
              value={one.from}
              onText={(from) => from && set(at, { from })}
            />
            <TextField label="To" type="time" value={one.to} onText={(to) => to && set(at, { to })} />
            <div role="group" aria-label="Days" className="flex gap-1">
              {DAYS.map(([day, label]) => {
                const isOn = one.days.includes(day);
                const days = isOn ? one.days.filter((other) => other !== day) : [...one.days, day];
                return (
                  <Button
                    key={day}
                    size="small"
                    aria-pressed={isOn}
                    disabled={isOn && one.days.length === 1}
                    onClick={() =>
                      set(at, { days: DAYS.map(([id]) => id).filter((id) => days.includes(id)) })
                    }
                  >
                    {label}
                  </Button>
                );
              })}
            </div>
            <Button
              size="small"
              onClick={() =>
                table.act((p) =>
                  withQuiet(
                    p,
                    (p.brief.quiet ?? []).filter((_, index) => index !== at),
                  ),
                )
              }
            >
              Remove
            </Button>
          </li>
        ))}
      </ul>
    </Section>
  );
}
