// One thing with its numbers: a line until it is taken in hand, then its boxes.
import { memo } from "react";

import type { Handle, Schemas } from "../api/client";
import { withLock, withoutLight } from "../table/edits";
import { placeOf, type Vector } from "../table/handles";
import { useTable } from "../table/useTable";
import type { UnitSystem } from "../units/length";
import { formatLength } from "../units/length";
import { LengthBox, NumberBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { SHEET } from "../ui/Section";
import { Aim, Foot } from "./AimAndFoot";
import { LightBoxes } from "./LightBoxes";
import { Pad } from "./Pad";

interface Props {
  handle: Handle;
  light: Schemas["Light"] | undefined;
  open: boolean;
  cloths: [string, string][];
  onSelect: (thing: string) => void;
  units: UnitSystem;
}

const PLACE = [-10, 60] as const;

/** Drawn again only when it is itself changed: a moving hand moves one thing. */
export const Thing = memo(function Thing({ handle, light, open, cloths, onSelect, units }: Props) {
  const table = useTable();
  const still = handle.locked || !handle.movable;
  const [x, y, z] = placeOf(handle, "place");
  return (
    <fieldset className={`${SHEET} px-3 py-2 ${open ? "border-ink" : ""}`}>
      <legend className="sr-only">{handle.name}</legend>
      <div className="flex items-center gap-2">
        <button
          type="button"
          className="mr-auto flex min-h-8 cursor-pointer items-baseline gap-3 text-left text-sm"
          aria-expanded={open}
          onClick={() => onSelect(open ? "" : handle.id)}
        >
          <span className="font-semibold">{handle.name}</span>
          <span className="text-faint">
            {formatLength(x, units)} · {formatLength(y, units)}
            {handle.lifts ? ` · ${formatLength(z, units)} high` : ""}
          </span>
        </button>
        {!handle.movable && <span className="text-faint text-sm">fixed</span>}
        {light && !handle.locked && (
          <Button size="small" look="quiet" onClick={() => table.act((p) => withoutLight(p, handle.id))}>
            Remove
          </Button>
        )}
        {handle.movable && (
          <Button
            size="small"
            aria-pressed={handle.locked}
            onClick={() => table.act((p) => withLock(p, handle, !handle.locked))}
          >
            {handle.locked ? "Unlock" : "Lock"}
          </Button>
        )}
      </div>
      {open && (
        <>
          <div className="mt-2 grid grid-cols-2 items-end gap-x-3 gap-y-2 sm:grid-cols-3">
            <Places handle={handle} units={units} still={still} />
            {light && (
              <LightBoxes handle={handle} light={light} units={units} still={still} cloths={cloths} />
            )}
            <Aim handle={handle} light={light} units={units} still={still} />
            <Foot handle={handle} units={units} still={still} />
          </div>
          <Pad handle={handle} still={still} />
        </>
      )}
    </fieldset>
  );
});

/** Where it is and how it is turned. */
function Places({ handle, units, still }: { handle: Handle; units: UnitSystem; still: boolean }) {
  const table = useTable();
  const [x, y, z] = placeOf(handle, "place");
  /** One axis; the others are wherever the thing is when its turn comes. */
  const place = (axis: 0 | 1 | 2) => (value: number) =>
    table.move(handle.id, `axis ${axis}`, (now) => {
      const to: Vector = [...placeOf(now, "place")];
      to[axis] = value;
      return { to_m: to };
    });
  const shared = { units, within: PLACE, disabled: still };
  return (
    <>
      <LengthBox label="From the left wall" value={x} {...shared} onCommit={place(0)} />
      <LengthBox label="From the back wall" value={y} {...shared} onCommit={place(1)} />
      {handle.lifts && <LengthBox label="Height" value={z} {...shared} within={[0, 8]} onCommit={place(2)} />}
      {handle.bearing_deg !== null && handle.bearing_deg !== undefined && (
        <NumberBox
          label="Bearing"
          unit="°"
          value={handle.bearing_deg}
          within={[0, 359.99]}
          disabled={still}
          onCommit={(bearing_deg) => table.move(handle.id, "bearing_deg", () => ({ bearing_deg }))}
        />
      )}
    </>
  );
}
