// What can be set of a light: where it is as seen from the eyes, its dial and colour, what is put before it. Each figure is
// typed or drawn along.
import { limits } from "../api/limits";
import type { Handle, Move, Plan, Schemas } from "../api/client";
import { withLight } from "../corner/edits";
import type { Hands } from "../corner/useWorktable";
import { LengthBox, NumberBox } from "../ui/boxes";
import { Choice } from "../ui/fields";
import { Slide } from "../ui/Slide";
import type { UnitSystem } from "../units/length";

type Light = Schemas["Light"];

interface Props {
  handle: Handle;
  light: Light;
  hands: Hands;
  units: UnitSystem;
  still: boolean;
}

const GELS = [
  ["", "none"],
  ["warm-quarter", "quarter orange"],
  ["warm-half", "half orange"],
  ["warm-full", "full orange"],
  ["cool-half", "half blue"],
  ["cool-full", "full blue"],
] as const;

/** Colours that a lamp may be set to instead of white, as CIE 1931 x and y: Fogon's own choice. */
const COLOURS: readonly (readonly [string, string, number, number])[] = [
  ["red", "red", 0.64, 0.33],
  ["amber", "amber", 0.55, 0.42],
  ["green", "green", 0.3, 0.6],
  ["teal", "teal", 0.2, 0.35],
  ["blue", "blue", 0.17, 0.1],
  ["violet", "violet", 0.26, 0.12],
];

const colourOf = (colour: Light["colour"]) =>
  colour ? (COLOURS.find(([, , x, y]) => x === colour.x && y === colour.y)?.[0] ?? "other") : "";

export function LightBoxes({ handle, light, hands, units, still }: Props) {
  const seen = handle.from_eyes;
  if (!seen) return null;
  const move = (by: Omit<Move, "thing">) => hands.move({ thing: handle.id, ...by }, null, false);
  const set = (change: Partial<Light>) => hands.edit((p) => withLight(p, handle.id, change));
  const angle = (field: "azimuth_deg" | "elevation_deg") => (value: number) =>
    move({ from_eyes: { ...seen, [field]: value } });
  const distance = (distance_m: number) => move({ from_eyes: { ...seen, distance_m } });
  const slide = (what: string) => `Slide ${what} of ${handle.name}`;
  return (
    <>
      <div>
        <NumberBox
          label="Off the lens, camera right +"
          term="Azimuth"
          unit="°"
          value={seen.azimuth_deg}
          within={[-180, 180]}
          disabled={still}
          onCommit={(value) => void angle("azimuth_deg")(value)}
        />
        <Slide
          name={slide("the angle")}
          value={seen.azimuth_deg}
          within={[-180, 180]}
          step={1}
          disabled={still}
          onSlide={angle("azimuth_deg")}
        />
      </div>
      <div>
        <NumberBox
          label="Above the eyes"
          term="Elevation"
          unit="°"
          value={seen.elevation_deg}
          within={[-89, 89]}
          disabled={still}
          onCommit={(value) => void angle("elevation_deg")(value)}
        />
        <Slide
          name={slide("the height")}
          value={seen.elevation_deg}
          within={[-30, 80]}
          step={1}
          disabled={still}
          onSlide={angle("elevation_deg")}
        />
      </div>
      <div>
        <LengthBox
          label="From the eyes"
          value={seen.distance_m}
          units={units}
          within={[0.05, 60]}
          disabled={still}
          onCommit={(value) => void distance(value)}
        />
        <Slide
          name={slide("the distance")}
          value={seen.distance_m}
          within={[0.3, 3]}
          step={0.01}
          disabled={still}
          onSlide={distance}
        />
      </div>
      <div>
        <NumberBox
          label="Dial"
          unit="%"
          value={100 * (light.dim ?? 1)}
          within={[0, 100]}
          digits={0}
          onCommit={(percent) => set({ dim: percent / 100 })}
        />
        <Slide
          name={slide("the dial")}
          value={100 * (light.dim ?? 1)}
          within={[0, 100]}
          step={1}
          onSlide={(percent) => set({ dim: percent / 100 })}
        />
      </div>
      {light.cct_k !== null && light.cct_k !== undefined && (
        <NumberBox
          label="Colour temperature"
          unit="K"
          value={light.cct_k}
          within={limits["Light.cct_k"]}
          digits={0}
          step={100}
          onCommit={(cct_k) => set({ cct_k })}
        />
      )}
      <Choice
        label="Colour set on it"
        value={colourOf(light.colour)}
        options={[
          ["", "white"],
          ...COLOURS.map(([id, words]) => [id, words] as const),
          ...(colourOf(light.colour) === "other" ? [["other", "as in the file"] as const] : []),
        ]}
        onChange={(id) => {
          const found = COLOURS.find(([one]) => one === id);
          set({ colour: found ? { x: found[2], y: found[3] } : null });
        }}
      />
      <Choice
        label="Foil before it"
        value={light.gel ?? ""}
        options={GELS}
        onChange={(gel) => set({ gel: gel === "" ? null : (gel as NonNullable<Light["gel"]>) })}
      />
    </>
  );
}

/** Cloths at hand, by id: panels that light passes. */
export const clothsOf = (plan: Plan): [string, string][] =>
  Object.entries(plan.brief.gear ?? {}).flatMap(([id, gear]) =>
    gear.kind === "reflector" && gear.transmittance != null ? [[id, gear.label]] : [],
  );

/** A cloth hung before a lamp, and how far behind it the lamp stands. */
export function ClothBoxes({
  handle,
  light,
  hands,
  units,
  cloths,
}: Omit<Props, "still"> & { cloths: [string, string][] }) {
  const set = (cloth: Schemas["Cloth"] | null) => hands.edit((p) => withLight(p, handle.id, { cloth }));
  const { cloth } = light;
  if (cloths.length === 0 && !cloth) return null;
  return (
    <>
      <Choice
        label="Cloth before it"
        value={cloth?.gear ?? ""}
        options={[["", "none"], ...cloths]}
        onChange={(gear) => set(gear === "" ? null : { gear, ahead_m: cloth?.ahead_m ?? 0.6 })}
      />
      {cloth && (
        <LengthBox
          label="Lamp behind the cloth"
          value={cloth.ahead_m}
          units={units}
          within={limits["Cloth.ahead_m"]}
          onCommit={(ahead_m) => set({ ...cloth, ahead_m })}
        />
      )}
    </>
  );
}
