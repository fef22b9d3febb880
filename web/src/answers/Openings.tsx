// Doors and windows, one after another.
import { useFieldArray, useWatch } from "react-hook-form";

import { Button } from "../ui/button";
import { Item, Pick, Text } from "./Field";
import { useAnswers } from "./form";
import { MOST_OPENINGS, newOpening, type OpeningText } from "./openings";

const SWINGS = [
  ["in-left", "inwards, hinges left"],
  ["in-right", "inwards, hinges right"],
  ["out", "outwards"],
  ["sliding", "sliding"],
] as const;

/** Each wall is measured from the corner where it begins, going round by the right. */
const CORNERS = ["back-left", "back-right", "front-right", "front-left"];

interface Props {
  walls: readonly (readonly [string, string])[];
  rectangle: boolean;
}

export function Openings({ walls, rectangle }: Props) {
  const { control, getValues } = useAnswers();
  const { append, remove, fields } = useFieldArray({ control, name: "openings", keyName: "key" });
  const openings = useWatch({ control, name: "openings" });
  const add = (kind: OpeningText["kind"]) =>
    append(newOpening(kind, getValues("openings"), getValues("units")));
  const fromCorner = (wall: string) =>
    rectangle
      ? `From the ${CORNERS[Number(wall)] ?? ""} corner`
      : `From corner ${walls[Number(wall)]?.[1]?.[0] ?? "a"}`;
  return (
    <section className="mb-7" aria-labelledby="openings">
      <h3 id="openings" className="mb-2 text-lg font-bold">
        Doors and windows
      </h3>
      {fields.map((opening, index) => {
        const at = `openings.${index}` as const;
        return (
          <Item
            key={opening.key}
            name={opening.id}
            onRemove={
              <Button className="self-end" onClick={() => remove(index)}>
                Remove {opening.id}
              </Button>
            }
          >
            <Pick path={`${at}.wall`} label="In wall" options={walls} />
            <Text
              path={`${at}.from`}
              label={fromCorner(openings[index]?.wall ?? "0")}
              help={`To the near edge of the ${opening.kind}.`}
            />
            <Text path={`${at}.width`} label="Width" />
            {opening.kind === "door" ? (
              <Pick
                path={`${at}.swing`}
                label="Opens"
                help="As seen from inside, facing it."
                options={SWINGS}
              />
            ) : (
              <>
                <Text path={`${at}.sill`} label="Sill height" />
                <Text path={`${at}.height`} label="Height of the window" />
              </>
            )}
          </Item>
        );
      })}
      {fields.length < MOST_OPENINGS && (
        <div className="flex flex-wrap gap-3">
          <Button onClick={() => add("door")}>Add a door</Button>
          <Button onClick={() => add("window")}>Add a window</Button>
        </div>
      )}
    </section>
  );
}
