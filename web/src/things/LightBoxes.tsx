// What can be set of a light: where it is as seen from the eyes, its dial and colour, what is put in front of it. Each figure is
// typed or slid.
import { limits } from "../api/limits";
import type { Handle, Schemas } from "../api/client";
import { withLight } from "../table/edits";
import { useTable } from "../table/useTable";
import type { UnitSystem } from "../units/length";
import { formatLength } from "../units/length";
import { LengthBox, NumberBox } from "../ui/boxes";
import { Choice } from "../ui/fields";
import { Slide } from "../ui/Slide";
import { COLOURS, colourOf, GELS } from "./colours";

type Light = Schemas["Light"];
type Seen = NonNullable<Handle["from_eyes"]>;

interface Props {
  handle: Handle;
  light: Light;
  units: UnitSystem;
  still: boolean;
  /** Diffusion panels at hand. */
  cloths: [string, string][];
}

const degrees = (value: number) => `${value.toFixed(0)} degrees`;

export function LightBoxes(props: Props) {
  const { handle, light } = props;
  const table = useTable();
  const set = (change: Partial<Light>) => table.edit((p) => withLight(p, handle.id, change));
  const pick = (change: Partial<Light>) => table.act((p) => withLight(p, handle.id, change));
  const dial = (percent: number) => set({ dim: percent / 100 });
  const percent = 100 * (light.dim ?? 1);
  return (
    <>
      {handle.from_eyes && <FromEyes {...props} seen={handle.from_eyes} />}
      <div>
        <NumberBox label="Dial" unit="%" value={percent} within={[0, 100]} digits={0} onCommit={dial} />
        <Slide
          name={`Dial of ${handle.name}`}
          value={percent}
          within={[0, 100]}
          step={1}
          words={(value) => `${value.toFixed(0)} percent`}
          onSlide={dial}
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
        label="Colour"
        value={colourOf(light.colour)}
        options={[
          ["", "white"],
          ...COLOURS.map(([id, words]) => [id, words] as const),
          ...(colourOf(light.colour) === "other" ? [["other", "as in the file"] as const] : []),
        ]}
        onPick={(id) => {
          const found = COLOURS.find(([one]) => one === id);
          pick({ colour: found ? { x: found[2], y: found[3] } : null });
        }}
      />
      <Choice
        label="Gel"
        value={light.gel ?? ""}
        options={GELS}
        onPick={(gel) => pick({ gel: gel === "" ? null : (gel as NonNullable<Light["gel"]>) })}
      />
      <Diffusion {...props} onSet={set} onPick={pick} />
    </>
  );
}

/** Where it is as seen from the eyes. */
function FromEyes({ handle, units, still, seen }: Props & { seen: Seen }) {
  const table = useTable();
  /** One figure; the others are as they are when its turn comes. */
  const put = (field: keyof Seen) => (value: number) =>
    table.move(handle.id, field, (now) => ({ from_eyes: { ...(now.from_eyes ?? seen), [field]: value } }));
  const slide = (what: string) => `${what} of ${handle.name}`;
  return (
    <>
      <div>
        <NumberBox
          label="Angle from the lens"
          term="Azimuth"
          unit="°"
          value={seen.azimuth_deg}
          within={[-180, 180]}
          disabled={still}
          onCommit={put("azimuth_deg")}
        />
        <Slide
          name={slide("Angle from the lens")}
          value={seen.azimuth_deg}
          within={[-180, 180]}
          step={1}
          words={degrees}
          disabled={still}
          onSlide={put("azimuth_deg")}
        />
      </div>
      <div>
        <NumberBox
          label="Angle above the eyes"
          term="Elevation"
          unit="°"
          value={seen.elevation_deg}
          within={[-89, 89]}
          disabled={still}
          onCommit={put("elevation_deg")}
        />
        <Slide
          name={slide("Angle above the eyes")}
          value={seen.elevation_deg}
          within={[-30, 80]}
          step={1}
          words={degrees}
          disabled={still}
          onSlide={put("elevation_deg")}
        />
      </div>
      <div>
        <LengthBox
          label="Distance from the eyes"
          value={seen.distance_m}
          units={units}
          within={[0.05, 60]}
          disabled={still}
          onCommit={put("distance_m")}
        />
        <Slide
          name={slide("Distance from the eyes")}
          value={seen.distance_m}
          within={[0.3, 3]}
          step={0.01}
          words={(value) => formatLength(value, units)}
          disabled={still}
          onSlide={put("distance_m")}
        />
      </div>
    </>
  );
}

/** A diffusion panel in front of a lamp, and how far behind it the lamp stands. */
function Diffusion({
  light,
  units,
  cloths,
  onSet,
  onPick,
}: Props & { onSet: (change: Partial<Light>) => Promise<void>; onPick: (change: Partial<Light>) => void }) {
  const { cloth } = light;
  if (cloths.length === 0 && !cloth) return null;
  return (
    <>
      <Choice
        label="Diffusion"
        value={cloth?.gear ?? ""}
        options={[["", "none"], ...cloths]}
        onPick={(gear) => onPick({ cloth: gear === "" ? null : { gear, ahead_m: cloth?.ahead_m ?? 0.6 } })}
      />
      {cloth && (
        <LengthBox
          label="Lamp to diffusion"
          term="Diffusion"
          value={cloth.ahead_m}
          units={units}
          within={limits["Cloth.ahead_m"]}
          onCommit={(ahead_m) => onSet({ cloth: { ...cloth, ahead_m } })}
        />
      )}
    </>
  );
}
