// Doors and windows, one after another.
import { Choice, TextField } from "../ui/fields";
import type { Change } from "./change";
import type { Draft } from "./draft";
import { MOST_OPENINGS, newOpening, type OpeningDraft } from "./openings";
import type { Problems } from "./reader";

interface Props {
  draft: Draft;
  problems: Problems;
  change: Change;
  walls: readonly (readonly [string, string])[];
  /** The corner a wall is measured from, in words. */
  fromCorner: (wall: string) => string;
}

const SWINGS = [
  ["in-left", "inwards, hinges left"],
  ["in-right", "inwards, hinges right"],
  ["out", "outwards"],
  ["sliding", "sliding"],
] as const;

export function Openings({ draft, problems, change, walls, fromCorner }: Props) {
  const { openings } = draft;
  const set = (index: number, patch: Partial<OpeningDraft>) =>
    change({ openings: openings.map((o, i) => (i === index ? { ...o, ...patch } : o)) });
  const add = (kind: OpeningDraft["kind"]) =>
    change({
      openings: [
        ...openings,
        newOpening(kind, openings, draft.texts.units === "imperial" ? "imperial" : "metric"),
      ],
    });
  return (
    <section className="mb-7" aria-labelledby="openings">
      <h3 id="openings" className="heading mb-2">
        Doors and windows
      </h3>
      {openings.map((opening, index) => {
        const field = (name: "from" | "width" | "sill" | "height", label: string, help?: string) => (
          <TextField
            label={label}
            help={help}
            problem={problems[`openings.${index}.${name}`]}
            value={opening[name]}
            onChange={(value) => set(index, { [name]: value })}
          />
        );
        return (
          <fieldset key={opening.id} className="sheet mb-3 p-4">
            <legend className="px-1 font-semibold">{opening.id}</legend>
            <div className="grid items-start gap-x-4 gap-y-3 sm:grid-cols-3">
              <Choice
                label="In wall"
                problem={problems[`openings.${index}.wall`]}
                value={opening.wall}
                options={walls}
                onChange={(wall) => set(index, { wall })}
              />
              {field("from", fromCorner(opening.wall), `To the near edge of the ${opening.kind}.`)}
              {field("width", "Width")}
              {opening.kind === "door" ? (
                <Choice
                  label="Opens"
                  help="As seen from inside, facing it."
                  value={opening.swing}
                  options={SWINGS}
                  onChange={(swing) => set(index, { swing })}
                />
              ) : (
                <>
                  {field("sill", "Sill height")}
                  {field("height", "Height of the opening")}
                </>
              )}
              <button
                type="button"
                className="button self-end"
                onClick={() => change({ openings: openings.filter((_, i) => i !== index) })}
              >
                Take {opening.id} out
              </button>
            </div>
          </fieldset>
        );
      })}
      {openings.length < MOST_OPENINGS && (
        <div className="flex flex-wrap gap-3">
          <button type="button" className="button" onClick={() => add("door")}>
            Add a door
          </button>
          <button type="button" className="button" onClick={() => add("window")}>
            Add a window
          </button>
        </div>
      )}
    </section>
  );
}
