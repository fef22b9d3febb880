// A floor of another shape: a walk round the walls with a tape, its closing error shown and shared out.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { useFieldArray, useWatch } from "react-hook-form";

import { api, Refused, type Schemas } from "../api/client";
import { wallNames } from "../table/floor";
import { formatLength, type UnitSystem } from "../units/length";
import { Button } from "../ui/button";
import { SHEET } from "../ui/Section";
import { Pick, Text } from "./Field";
import { useAnswers, useProblem } from "./form";
import { legsRead, MOST_WALLS } from "./walls";

const TURNS = [
  ["left", "square left"],
  ["right", "square right"],
  ["other", "other angle"],
] as const;

export function WalkRound() {
  const { control, getValues, setValue } = useAnswers();
  const { append, remove, fields } = useFieldArray({ control, name: "legs", keyName: "key" });
  const [legs, units] = useWatch({ control, name: ["legs", "units"] });
  const problem = useProblem("floor");
  const read = legsRead(legs, units);
  const walk = useQuery({
    queryKey: ["walk", read],
    queryFn: () => api.walk(read ?? []),
    enabled: read !== null,
    retry: false,
    placeholderData: keepPreviousData,
    staleTime: Infinity,
  });
  const found = read && walk.isSuccess && !walk.isPlaceholderData ? walk.data : null;
  const floor = found?.floor_m ?? null;
  // The floor that the walk makes is the answer; while a number is being typed the last one stays on the drawing.
  const next = floor ?? (walk.isError || read === null ? null : undefined);
  useEffect(() => {
    if (next === undefined || JSON.stringify(next) === JSON.stringify(getValues("floor"))) return;
    setValue("floor", next, { shouldDirty: true, shouldValidate: problem !== undefined });
  }, [next, getValues, setValue, problem]);
  const names = wallNames(legs.length, false);
  const trouble =
    walk.error instanceof Refused && read
      ? (walk.error.details.errors ?? []).map((e) => `${e.value}: give ${e.accepted}.`).join(" ")
      : undefined;
  const wrong = trouble ?? (found ? undefined : problem);
  return (
    <section className="mb-7" aria-labelledby="walk">
      <h3 id="walk" className="mb-1 text-lg font-bold">
        The walk round
      </h3>
      <p className="text-faint mb-3 text-sm">
        Start at the left end of the back wall and go along it, the room on your left. At each corner turn
        left; at a corner that juts into the room turn right.
      </p>
      <ol className="grid gap-3">
        {fields.map((field, index) => {
          const [, name = ""] = names[index] ?? [];
          const corner = names[(index + 1) % legs.length]?.[1]?.[0] ?? "";
          return (
            <li
              key={field.key}
              className={`${SHEET} grid grid-cols-2 items-start gap-x-4 gap-y-2 p-3 sm:grid-cols-[1fr_1.3fr_1fr_auto]`}
            >
              <Text path={`legs.${index}.length`} label={`Wall ${name}`} />
              <Pick path={`legs.${index}.turn`} label={`Then, at corner ${corner}`} options={TURNS} />
              {legs[index]?.turn === "other" ? (
                <Text
                  path={`legs.${index}.degrees`}
                  label="Degrees to the left"
                  help="Negative to the right."
                />
              ) : (
                <span className="hidden sm:block" />
              )}
              {fields.length > 3 && (
                <Button
                  size="small"
                  className="self-end justify-self-start"
                  aria-label={`Remove wall ${name}`}
                  onClick={() => remove(index)}
                >
                  Remove
                </Button>
              )}
            </li>
          );
        })}
      </ol>
      {fields.length < MOST_WALLS && (
        <div className="mt-3">
          <Button onClick={() => append({ length: "", turn: "left", degrees: "" })}>Add a wall</Button>
        </div>
      )}
      <p role="status" className={`mt-3 ${wrong ? "text-ember font-semibold" : ""}`}>
        {wrong ? <>▲ {wrong}</> : found ? closing(found, units) : "Give every wall its length."}
      </p>
    </section>
  );
}

/** What the walk does not close by, in words. */
function closing(found: Schemas["Walked"], units: UnitSystem): string {
  if (found.closing_error_m < 0.0005) return "The walk closes.";
  const error = `The walk ends ${formatLength(found.closing_error_m, units)} from where it started, ${(100 * found.closing_part).toFixed(1)} % of the way.`;
  return found.closing_part > 0.01
    ? `${error} That is much: measure the walls again. Shared out over them for now.`
    : `${error} Shared out over the walls by their length.`;
}
