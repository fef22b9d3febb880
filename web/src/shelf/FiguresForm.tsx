// The figures of a thing, typed; each is taken when it is left, if it can be read.
import { zodResolver } from "@hookform/resolvers/zod";
import { useForm } from "react-hook-form";

import type { Gear } from "../api/client";
import { formatLength, type UnitSystem } from "../units/length";
import { Choice, TextField } from "../ui/fields";
import { FIGURES } from "./figures";
import { changed, figuresSchema, MODIFIERS, textsOf, type FigureTexts } from "./figureTexts";

interface Props {
  thing: Gear;
  units: UnitSystem;
  onFigures: (figures: Record<string, unknown>) => void;
}

/** What a figure is called, with its unit; catalogues tell light and fans at a metre, whatever people measure in. */
function labelOf(label: string, unit: string, units: UnitSystem): string {
  const named = label.replace("1 m", formatLength(1, units, 0));
  const read = unit === "m" ? "" : unit === "kg" && units === "imperial" ? "lb" : unit;
  return read === "" ? named : `${named}, ${read}`;
}

export function FiguresForm({ thing, units, onFigures }: Props) {
  const figures = FIGURES[thing.kind]?.figures ?? [];
  const { register, handleSubmit, formState } = useForm<FigureTexts, unknown, Record<string, number | null>>({
    // What comes from elsewhere, as an undo, is shown; what is being typed stays.
    values: textsOf(thing, units),
    resetOptions: { keepDirtyValues: true },
    resolver: zodResolver(figuresSchema(thing.kind, units)),
    mode: "onBlur",
  });
  const take = () =>
    void handleSubmit((read) => {
      const anew = changed(thing, read, units);
      if (Object.keys(anew).length > 0) onFigures(anew);
    })();
  return (
    <form
      className="mt-2 grid gap-3 sm:grid-cols-3"
      noValidate
      onBlur={take}
      onSubmit={(event) => event.preventDefault()}
      onKeyDown={(event) => {
        // There is nothing to press at the end of the form: Enter takes what is typed.
        if (event.key === "Enter" && event.target instanceof HTMLInputElement) take();
      }}
    >
      {figures.map(({ field, label, unit, without }) => (
        <TextField
          key={field}
          label={labelOf(label, unit, units)}
          placeholder={without}
          problem={formState.errors[field]?.message}
          {...register(field)}
        />
      ))}
      {thing.kind === "light" && (
        <Choice
          label="Modifier"
          value={thing.modifier ?? ""}
          options={MODIFIERS}
          onPick={(modifier) => onFigures({ modifier: modifier === "" ? null : modifier })}
        />
      )}
    </form>
  );
}
