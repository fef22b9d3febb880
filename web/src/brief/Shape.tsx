// The size of the floor: width and depth, or a walk round the walls, its closing error shown and shared out.
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useEffect } from "react";

import { api, Refused, type Schemas } from "../api/client";
import { Choice, TextField } from "../ui/fields";
import { formatLength, type UnitSystem } from "../units/length";
import type { Change } from "./change";
import type { Draft } from "./draft";
import type { Problems } from "./reader";
import { firstLegs, legsRead, MOST_WALLS, wallNames, type LegDraft } from "./walls";

interface Props {
  draft: Draft;
  problems: Problems;
  change: Change;
}

export function ShapeChoice({ draft, change }: Omit<Props, "problems">) {
  const system = draft.texts.units === "imperial" ? "imperial" : "metric";
  return (
    <Choice
      label="Shape of the floor"
      value={draft.texts.shape ?? "rectangle"}
      options={[
        ["rectangle", "one rectangle"],
        ["walk", "I walk round it"],
      ]}
      onChange={(shape) =>
        change({
          texts: { shape },
          ...(shape === "walk" && draft.legs.length === 0 ? { legs: firstLegs(system) } : {}),
        })
      }
    />
  );
}

export function WalkRound({ draft, problems, change }: Props) {
  const { legs } = draft;
  const system = draft.texts.units === "imperial" ? "imperial" : "metric";
  const read = legsRead(legs, system);
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
  useEffect(() => {
    const refused = walk.isError || read === null;
    const next = floor ?? (refused ? null : undefined);
    if (next !== undefined && JSON.stringify(next) !== JSON.stringify(draft.floor)) change({ floor: next });
  }, [floor, walk.isError, read, draft.floor, change]);
  const set = (index: number, patch: Partial<LegDraft>) =>
    change({ legs: legs.map((leg, i) => (i === index ? { ...leg, ...patch } : leg)) });
  const names = wallNames(legs.length, false);
  const trouble =
    walk.error instanceof Refused && read
      ? (walk.error.details.errors ?? []).map((e) => `${e.value}: give ${e.accepted}.`).join(" ")
      : undefined;
  return (
    <section className="mb-7" aria-labelledby="walk">
      <h3 id="walk" className="heading mb-1">
        The walk round
      </h3>
      <p className="text-faint mb-3 text-sm">
        Begin at the left end of the back wall and go along it, the room on your left hand. At each corner you
        turn left, at a corner that juts into the room you turn right.
      </p>
      <ol className="grid gap-3">
        {legs.map((leg, index) => {
          const [, name = ""] = names[index] ?? [];
          const next = names[(index + 1) % legs.length]?.[1]?.[0] ?? "";
          return (
            <li
              key={index}
              className="sheet grid grid-cols-2 items-start gap-x-4 gap-y-2 p-3 sm:grid-cols-[1fr_1.3fr_1fr_auto]"
            >
              <TextField
                label={`Wall ${name}`}
                value={leg.length}
                problem={problems[`walk.${index}`]}
                onChange={(length) => set(index, { length })}
              />
              <Choice
                label={`Then, at corner ${next}`}
                value={leg.turn}
                options={[
                  ["left", "square left"],
                  ["right", "square right"],
                  ["other", "other angle"],
                ]}
                onChange={(turn) => set(index, { turn: turn as LegDraft["turn"] })}
              />
              {leg.turn === "other" ? (
                <TextField
                  label="Degrees to the left"
                  help="Negative to the right."
                  value={leg.degrees}
                  onChange={(degrees) => set(index, { degrees })}
                />
              ) : (
                <span className="hidden sm:block" />
              )}
              {legs.length > 3 && (
                <button
                  type="button"
                  className="button button-small self-end justify-self-start"
                  aria-label={`Take wall ${name} out`}
                  onClick={() => change({ legs: legs.filter((_, i) => i !== index) })}
                >
                  Take out
                </button>
              )}
            </li>
          );
        })}
      </ol>
      {legs.length < MOST_WALLS && (
        <button
          type="button"
          className="button mt-3"
          onClick={() => change({ legs: [...legs, { length: "", turn: "left", degrees: "" }] })}
        >
          Add a wall
        </button>
      )}
      <p role="status" className={`mt-3 ${trouble || problems.walk ? "text-ember font-semibold" : ""}`}>
        {trouble ? (
          <>▲ {trouble}</>
        ) : found ? (
          closing(found, system)
        ) : problems.walk ? (
          <>▲ {problems.walk}</>
        ) : (
          "Give every wall its length."
        )}
      </p>
    </section>
  );
}

/** What the walk does not close by, in words. */
function closing(found: Schemas["Walked"], system: UnitSystem): string {
  if (found.closing_error_m < 0.0005) return "The walk closes.";
  const error = `The walk ends ${formatLength(found.closing_error_m, system)} from where it began, ${(100 * found.closing_part).toFixed(1)} % of the way.`;
  return found.closing_part > 0.01
    ? `${error} That is much: measure the walls again. Shared out over them for now.`
    : `${error} Shared out over the walls by their length.`;
}
