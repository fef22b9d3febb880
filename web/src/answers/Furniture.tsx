// Furniture, piece by piece; another kind brings its usual size.
import { useFieldArray, useWatch } from "react-hook-form";

import { freeId } from "../units/ids";
import { Button } from "../ui/button";
import { Choice } from "../ui/fields";
import { Check, Item, Pick, Text } from "./Field";
import { useAnswers } from "./form";
import { KINDS, newPiece, withKind } from "./pieces";

const WALLS = [
  ["0", "front wall"],
  ["90", "right wall"],
  ["180", "back wall"],
  ["270", "left wall"],
] as const;

export function Furniture() {
  const { control, getValues, setValue } = useAnswers();
  const { append, remove, fields } = useFieldArray({ control, name: "furniture", keyName: "key" });
  const [pieces, units] = useWatch({ control, name: ["furniture", "units"] });
  const add = () =>
    append(
      newPiece(
        freeId(
          "piece",
          getValues("furniture").map((piece) => piece.id),
        ),
        units,
      ),
    );
  return (
    <section className="mb-7" aria-labelledby="furniture">
      <h3 id="furniture" className="mb-2 text-lg font-bold">
        Furniture
      </h3>
      {fields.map((field, index) => {
        const at = `furniture.${index}` as const;
        const piece = pieces[index] ?? field;
        const square = WALLS.some(([bearing]) => bearing === piece.bearing);
        return (
          <Item
            key={field.key}
            name={field.id}
            onRemove={
              <Button className="self-end" onClick={() => remove(index)}>
                Remove {field.id}
              </Button>
            }
          >
            <Choice
              label="Kind"
              value={piece.kind}
              options={KINDS}
              onPick={(kind) => setValue(at, withKind(piece, kind, units), { shouldDirty: true })}
            />
            <Pick
              path={`${at}.bearing`}
              label="Its front faces the"
              options={square ? WALLS : [...WALLS, [piece.bearing, `bearing ${piece.bearing}°`]]}
            />
            <Check path={`${at}.fixed`} label="It stays where it is" />
            <Text path={`${at}.width`} label="Width" />
            <Text path={`${at}.depth`} label="Depth, front to back" />
            <Text path={`${at}.height`} label="Height" />
            <Text path={`${at}.foot`} label="Above the floor" help="0 where it stands on the floor." />
            <Text
              path={`${at}.x`}
              label="Middle, from the left wall"
              help={piece.fixed ? undefined : "Empty: it goes where it is needed."}
            />
            <Text path={`${at}.y`} label="Middle, from the back wall" />
          </Item>
        );
      })}
      <Button onClick={add}>Add a piece</Button>
    </section>
  );
}
