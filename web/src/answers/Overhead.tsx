// What hangs overhead: sloping parts of the ceiling, and beams.
import { useFieldArray } from "react-hook-form";

import { freeId } from "../units/ids";
import { editLength } from "../units/length";
import { Button } from "../ui/button";
import { Item, Pick, Text } from "./Field";
import { useAnswers } from "./form";

const ids = (things: readonly { id: string }[]) => things.map((thing) => thing.id);

export function Overhead({ walls }: { walls: readonly (readonly [string, string])[] }) {
  const { control, getValues } = useAnswers();
  const slopes = useFieldArray({ control, name: "slopes", keyName: "key" });
  const beams = useFieldArray({ control, name: "beams", keyName: "key" });
  const addSlope = () =>
    slopes.append({
      id: freeId("slope", ids(getValues("slopes"))),
      wall: "0",
      from: "",
      length: "",
      knee: "",
      run: "",
    });
  const addBeam = () => {
    const text = (metres: number) => editLength(metres, getValues("units"));
    beams.append({
      id: freeId("beam", ids(getValues("beams"))),
      fromX: "",
      fromY: "",
      toX: "",
      toY: "",
      width: text(0.15),
      drop: text(0.2),
    });
  };
  return (
    <section className="mb-7" aria-labelledby="overhead">
      <h3 id="overhead" className="mb-2 text-lg font-bold">
        Overhead
      </h3>
      {slopes.fields.map((slope, index) => {
        const at = `slopes.${index}` as const;
        return (
          <Item
            key={slope.key}
            name={slope.id}
            onRemove={
              <Button className="self-end" onClick={() => slopes.remove(index)}>
                Remove {slope.id}
              </Button>
            }
          >
            <Pick path={`${at}.wall`} label="Comes down to wall" options={walls} />
            <Text path={`${at}.knee`} label="Height at that wall" />
            <Text path={`${at}.run`} label="Meets the ceiling after" help="Level, from the wall." />
            <Text path={`${at}.from`} label="Starts along the wall at" help="Empty: at its start." />
            <Text path={`${at}.length`} label="Length along the wall" help="Empty: to its end." />
          </Item>
        );
      })}
      {beams.fields.map((beam, index) => {
        const at = `beams.${index}` as const;
        return (
          <Item
            key={beam.key}
            name={beam.id}
            onRemove={
              <Button className="self-end" onClick={() => beams.remove(index)}>
                Remove {beam.id}
              </Button>
            }
          >
            <Text path={`${at}.fromX`} label="One end, from the left wall" />
            <Text path={`${at}.fromY`} label="One end, from the back wall" />
            <Text path={`${at}.width`} label="Width of the beam" />
            <Text path={`${at}.toX`} label="Other end, from the left wall" />
            <Text path={`${at}.toY`} label="Other end, from the back wall" />
            <Text path={`${at}.drop`} label="Below the ceiling by" />
          </Item>
        );
      })}
      <div className="flex flex-wrap gap-3">
        <Button onClick={addSlope}>Add a slope</Button>
        <Button onClick={addBeam}>Add a beam</Button>
      </div>
    </section>
  );
}
