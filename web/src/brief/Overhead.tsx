// What hangs overhead: sloping parts of the ceiling, and beams.
import { Choice, TextField } from "../ui/fields";
import { freeId } from "../ui/ids";
import type { Change } from "./change";
import type { Draft } from "./draft";
import type { Problems } from "./reader";
import type { BeamDraft, SlopeDraft } from "./walls";

interface Props {
  draft: Draft;
  problems: Problems;
  change: Change;
  walls: readonly (readonly [string, string])[];
}

const ids = (things: readonly { id: string }[]) => things.map((thing) => thing.id);

export function Overhead({ draft, problems, change, walls }: Props) {
  const { slopes, beams } = draft;
  const slope = (index: number, patch: Partial<SlopeDraft>) =>
    change({ slopes: slopes.map((s, i) => (i === index ? { ...s, ...patch } : s)) });
  const beam = (index: number, patch: Partial<BeamDraft>) =>
    change({ beams: beams.map((b, i) => (i === index ? { ...b, ...patch } : b)) });
  return (
    <section className="mb-7" aria-labelledby="overhead">
      <h3 id="overhead" className="heading mb-2">
        Overhead
      </h3>
      {slopes.map((s, index) => {
        const field = (name: "from" | "length" | "knee" | "run", label: string, help?: string) => (
          <TextField
            label={label}
            help={help}
            problem={problems[`slopes.${index}.${name}`]}
            value={s[name]}
            onChange={(value) => slope(index, { [name]: value })}
          />
        );
        return (
          <fieldset key={s.id} className="sheet mb-3 p-4">
            <legend className="px-1 font-semibold">{s.id}</legend>
            <div className="grid items-start gap-x-4 gap-y-3 sm:grid-cols-3">
              <Choice
                label="Comes down to wall"
                value={s.wall}
                options={walls}
                onChange={(wall) => slope(index, { wall })}
              />
              {field("knee", "Height at that wall")}
              {field("run", "Meets the ceiling after", "Level, from the wall.")}
              {field("from", "Begins along the wall at", "Empty = at the wall’s beginning.")}
              {field("length", "Length along the wall", "Empty = to the wall’s end.")}
              <button
                type="button"
                className="button self-end"
                onClick={() => change({ slopes: slopes.filter((_, i) => i !== index) })}
              >
                Take {s.id} out
              </button>
            </div>
          </fieldset>
        );
      })}
      {beams.map((b, index) => {
        const field = (name: Exclude<keyof BeamDraft, "id">, label: string) => (
          <TextField
            label={label}
            problem={problems[`beams.${index}.${name}`]}
            value={b[name]}
            onChange={(value) => beam(index, { [name]: value })}
          />
        );
        return (
          <fieldset key={b.id} className="sheet mb-3 p-4">
            <legend className="px-1 font-semibold">{b.id}</legend>
            <div className="grid items-start gap-x-4 gap-y-3 sm:grid-cols-3">
              {field("fromX", "One end, from the left wall")}
              {field("fromY", "One end, from the back wall")}
              {field("width", "Width of the beam")}
              {field("toX", "Other end, from the left wall")}
              {field("toY", "Other end, from the back wall")}
              {field("drop", "Hangs below the ceiling by")}
              <button
                type="button"
                className="button self-end"
                onClick={() => change({ beams: beams.filter((_, i) => i !== index) })}
              >
                Take {b.id} out
              </button>
            </div>
          </fieldset>
        );
      })}
      <div className="flex flex-wrap gap-3">
        <button
          type="button"
          className="button"
          onClick={() =>
            change({
              slopes: [
                ...slopes,
                { id: freeId("slope", ids(slopes)), wall: "0", from: "", length: "", knee: "", run: "" },
              ],
            })
          }
        >
          Add a slope
        </button>
        <button
          type="button"
          className="button"
          onClick={() =>
            change({
              beams: [
                ...beams,
                {
                  id: freeId("beam", ids(beams)),
                  fromX: "",
                  fromY: "",
                  toX: "",
                  toY: "",
                  width: "0.15 m",
                  drop: "0.20 m",
                },
              ],
            })
          }
        >
          Add a beam
        </button>
      </div>
    </section>
  );
}
