// What a light is aimed at, and the foot of a stand that stands beside what it carries.
import type { Handle, Schemas } from "../api/client";
import { withLight } from "../table/edits";
import { placeOf, type Grip, type Vector } from "../table/handles";
import { useTable } from "../table/useTable";
import type { UnitSystem } from "../units/length";
import { LengthBox } from "../ui/boxes";
import { Button } from "../ui/button";

const PLACE = [-10, 60] as const;

interface Props {
  handle: Handle;
  units: UnitSystem;
  still: boolean;
}

/** A box for each of some axes of a grip. */
function Axes({
  handle,
  units,
  still,
  grip,
  labels,
}: Props & { grip: Grip; labels: readonly (readonly [0 | 1 | 2, string])[] }) {
  const table = useTable();
  const at = placeOf(handle, grip);
  return labels.map(([axis, label]) => (
    <LengthBox
      key={label}
      label={label}
      value={at[axis]}
      units={units}
      within={PLACE}
      disabled={still}
      onCommit={(value) =>
        table.move(handle.id, `${grip} axis ${axis}`, (now) => {
          const to: Vector = [...placeOf(now, grip)];
          to[axis] = value;
          return { grip, to_m: to };
        })
      }
    />
  ));
}

const AIM = [
  [0, "Aim, from the left wall"],
  [1, "Aim, from the back wall"],
  [2, "Aim, height"],
] as const;

/** The point a light faces, and the way back to the eyes. */
export function Aim({ light, ...rest }: Props & { light: Schemas["Light"] | undefined }) {
  const table = useTable();
  const { handle, still } = rest;
  if (!handle.aim_m || !light) return null;
  return (
    <>
      <Axes {...rest} grip="aim" labels={AIM} />
      <Button
        size="small"
        disabled={still || !light.aim_m}
        onClick={() => table.act((p) => withLight(p, handle.id, { aim_m: null }))}
      >
        Aim at the eyes
      </Button>
      <Button
        size="small"
        disabled={still}
        onClick={() =>
          void table
            .move(handle.id, "ceiling", (now) => {
              const [x, y, z] = placeOf(now, "place");
              return { grip: "aim", to_m: [x, y, z + 1] };
            })
            .catch(() => undefined)
        }
      >
        Aim at the ceiling
      </Button>
    </>
  );
}

const FOOT = [
  [0, "Foot, from the left wall"],
  [1, "Foot, from the back wall"],
] as const;

export function Foot(props: Props) {
  return props.handle.foot_m ? <Axes {...props} grip="foot" labels={FOOT} /> : null;
}
