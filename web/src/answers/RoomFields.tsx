// The room: its size and shape, doors and windows, furniture, what hangs overhead, the mains.
import { useWatch } from "react-hook-form";

import { wallNames } from "../table/floor";
import { FURNISHINGS } from "../table/surfaces";
import { Group, Pick, Text } from "./Field";
import { useAnswers } from "./form";
import { Furniture } from "./Furniture";
import { Openings } from "./Openings";
import { Overhead } from "./Overhead";
import { inUnits } from "./units";
import { WalkRound } from "./WalkRound";
import { firstLegs } from "./walls";
import { Choice } from "../ui/fields";

export function RoomFields() {
  const { control, getValues, reset, setValue } = useAnswers();
  const [units, shape, legs] = useWatch({ control, name: ["units", "shape", "legs"] });
  const imperial = units === "imperial";
  const rectangle = shape === "rectangle";
  const walls = wallNames(rectangle ? 4 : legs.length, rectangle);
  return (
    <>
      <Group>
        <Choice
          label="Measured in"
          value={units}
          options={[
            ["metric", "metres"],
            ["imperial", "feet and inches"],
          ]}
          onPick={(to) => {
            const next = inUnits(getValues(), to === "imperial" ? "imperial" : "metric");
            reset(next, { keepDefaultValues: true, keepErrors: true });
          }}
        />
        <Text path="name" label="Name of the corner" placeholder="My corner" />
      </Group>
      <Group title="Size">
        <Choice
          label="Shape of the floor"
          value={shape}
          options={[
            ["rectangle", "one rectangle"],
            ["walk", "another shape: walk round it"],
          ]}
          onPick={(to) => {
            if (to === "walk" && getValues("legs").length === 0) setValue("legs", firstLegs(units));
            setValue("shape", to === "walk" ? "walk" : "rectangle", { shouldDirty: true });
          }}
        />
        {rectangle && (
          <>
            <Text
              path="width"
              label="Width, along the back wall"
              placeholder={imperial ? "11' 2\"" : "3.40 m"}
            />
            <Text path="depth" label="Depth" placeholder={imperial ? "9' 6\"" : "2.90 m"} />
          </>
        )}
        <Text path="height" label="Ceiling height" />
        <Pick path="furnishing" label="What is in the room" options={FURNISHINGS} />
      </Group>
      {!rectangle && <WalkRound />}
      <Openings walls={walls} rectangle={rectangle} />
      <Furniture />
      <Overhead walls={walls} />
      <Group title="Mains" note={`Empty: assumed ${imperial ? "120 V, 60 Hz, 15 A" : "230 V, 50 Hz, 16 A"}.`}>
        <Text path="volts" label="Volts" placeholder={imperial ? "120" : "230"} />
        <Text path="hertz" label="Hertz" placeholder={imperial ? "60" : "50"} />
        <Text path="breaker" label="Breaker, A" placeholder={imperial ? "15" : "16"} />
      </Group>
    </>
  );
}
