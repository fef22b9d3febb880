// Answers read in other units. A bare number keeps the unit it was typed in; what new answers brought comes in the new units.
import { unitTold, type UnitSystem } from "../units/length";
import { newAnswers, type Answers } from "./answers";

const LENGTHS = ["width", "depth", "height", "stature", "seatHeight", "eyeHeight", "lean"] as const;
const PLACES = ["seat", "lens", "key", "microphone"] as const;
const ROWS = ["openings", "furniture", "legs", "slopes", "beams"] as const;
/** Fields of rows that are no lengths. */
const OTHERS = ["id", "kind", "wall", "swing", "turn", "degrees", "bearing"];

export function inUnits(answers: Answers, units: UnitSystem): Answers {
  const before = answers.units;
  if (before === units) return answers;
  const [was, is] = [newAnswers(before), newAnswers(units)];
  const told = (text: string, brought?: string, brings?: string) =>
    brought !== undefined && brings !== undefined && text === brought ? brings : unitTold(text, before);
  const lengths = Object.fromEntries(LENGTHS.map((name) => [name, told(answers[name], was[name], is[name])]));
  const places = Object.fromEntries(
    PLACES.map((name) => [
      name,
      Object.fromEntries(
        Object.entries<string>({ ...answers[name] }).map(([axis, text]) => [axis, told(text)]),
      ),
    ]),
  );
  const rows = Object.fromEntries(
    ROWS.map((name) => [
      name,
      answers[name].map((row, index) => {
        const of = (all: Answers) =>
          (all[name][index] ?? {}) as unknown as Record<string, string | undefined>;
        return Object.fromEntries(
          Object.entries(row).map(([field, value]: [string, unknown]) =>
            typeof value === "string" && !OTHERS.includes(field)
              ? [field, told(value, of(was)[field], of(is)[field])]
              : [field, value],
          ),
        );
      }),
    ]),
  );
  return { ...answers, ...lengths, ...places, ...rows, units };
}
