// The list beside the drawing: every thing with its numbers, to be typed exactly, nudged, turned, aimed and locked.
// It does everything that the drawing does.
import { memo } from "react";

import type { Handle, Layout, Move, Schemas } from "../api/client";
import { ClothBoxes, LightBoxes } from "../light/LightBoxes";
import { softness } from "../light/LightPlace";
import { LengthBox, NumberBox } from "../ui/boxes";
import { fixed, type UnitSystem } from "../units/length";
import { withLight, withLock, withoutLight } from "./edits";
import { placeOf, sum, type Hands, type Vector } from "./useWorktable";

interface Props {
  handles: Handle[];
  layout: Layout;
  hands: Hands;
  selected: string | null;
  onSelect: (thing: string) => void;
  units: UnitSystem;
  /** What lamps give the face, where that is to be told. */
  face?: Schemas["FaceSeen"] | null | undefined;
  /** Cloths at hand. */
  cloths?: [string, string][];
}

const PLACE = [-10, 60] as const;

/** How soft a lamp is and how much it gives, in a few words. */
function given(lamp: Schemas["LampOnFace"] | undefined): string {
  if (!lamp) return "";
  const stops =
    lamp.part > 1e-4
      ? `${fixed(Math.abs(Math.log2(lamp.part)), 1)} stops under the whole`
      : "nothing straight";
  return `${softness(lamp.angular_size_deg)}, ${fixed(lamp.angular_size_deg, 0)}° wide; ${stops}`;
}

export function Things({ handles, layout, selected, face, cloths = [], ...rest }: Props) {
  if (handles.length === 0) return null;
  return (
    <section aria-labelledby="things">
      <h3 id="things" className="subheading">
        Where it stands
      </h3>
      <ul className="grid gap-3">
        {handles.map((handle) => (
          <li key={handle.id} data-thing={handle.id}>
            <One
              handle={handle}
              light={layout.lights?.[handle.id]}
              open={handle.id === selected}
              gives={given(face?.lamps.find((lamp) => lamp.id === handle.id))}
              cloths={cloths}
              {...rest}
            />
          </li>
        ))}
      </ul>
    </section>
  );
}

interface OneProps extends Pick<Props, "hands" | "onSelect" | "units"> {
  handle: Handle;
  light: Schemas["Light"] | undefined;
  open: boolean;
  gives: string;
  cloths: [string, string][];
}

/** Drawn again only when it is itself changed: a moving hand moves one thing. */
const One = memo(function One({ handle, light, open, gives, cloths, hands, onSelect, units }: OneProps) {
  const still = handle.locked || !handle.movable;
  const [x, y, z] = placeOf(handle, "place");
  const move = (by: Omit<Move, "thing">) => void hands.move({ thing: handle.id, ...by }, null, false);
  const place = (axis: 0 | 1 | 2) => (value: number) => {
    const to: Vector = [x, y, z];
    to[axis] = value;
    move({ to_m: to });
  };
  return (
    <fieldset
      className={`thing ${open ? "thing-open" : ""}`}
      onFocus={() => {
        if (!open) onSelect(handle.id);
      }}
    >
      <legend className="sr-only">{handle.name}</legend>
      <div className="flex items-center gap-2">
        {handle.letter && (
          <span className="letter-badge" aria-hidden="true">
            {handle.letter}
          </span>
        )}
        <span className="mr-auto">
          <span className="font-semibold">{handle.name}</span>
          {gives && <span className="text-faint block text-xs">{gives}</span>}
        </span>
        {!handle.movable && <span className="text-faint text-sm">fixed</span>}
        {light && !handle.locked && (
          <button
            type="button"
            className="button button-small"
            onClick={() => hands.edit((p) => withoutLight(p, handle.id))}
          >
            Take out
          </button>
        )}
        {handle.movable && (
          <button
            type="button"
            className="button button-small"
            aria-pressed={handle.locked}
            onClick={() => hands.edit((p) => withLock(p, handle, !handle.locked))}
          >
            {handle.locked ? "Unlock" : "Lock"}
          </button>
        )}
      </div>
      <div className="boxes">
        <LengthBox
          label="From the left wall"
          value={x}
          units={units}
          within={PLACE}
          disabled={still}
          onCommit={place(0)}
        />
        <LengthBox
          label="From the back wall"
          value={y}
          units={units}
          within={PLACE}
          disabled={still}
          onCommit={place(1)}
        />
        {handle.lifts && (
          <LengthBox
            label="Height"
            value={z}
            units={units}
            within={[0, 8]}
            disabled={still}
            onCommit={place(2)}
          />
        )}
        {handle.bearing_deg !== null && handle.bearing_deg !== undefined && (
          <NumberBox
            label="Turned to"
            term="Bearing"
            unit="°"
            value={handle.bearing_deg}
            within={[0, 359.99]}
            disabled={still}
            onCommit={(bearing_deg) => move({ bearing_deg })}
          />
        )}
        {light && (
          <>
            <LightBoxes handle={handle} light={light} hands={hands} units={units} still={still} />
            <ClothBoxes handle={handle} light={light} hands={hands} units={units} cloths={cloths} />
          </>
        )}
        <Aim handle={handle} light={light} hands={hands} units={units} still={still} move={move} />
        <Foot handle={handle} units={units} still={still} move={move} />
      </div>
      <Pad handle={handle} hands={hands} still={still} />
    </fieldset>
  );
});

interface PartProps {
  handle: Handle;
  units: UnitSystem;
  still: boolean;
  move: (by: Omit<Move, "thing">) => void;
}

/** The point a light faces, and the way back to the eyes. */
function Aim({ handle, light, hands, units, still, move }: PartProps & Pick<OneProps, "light" | "hands">) {
  if (!handle.aim_m || !light) return null;
  const aim = placeOf(handle, "aim");
  const box = (axis: 0 | 1 | 2, label: string) => (
    <LengthBox
      label={label}
      value={aim[axis]}
      units={units}
      within={PLACE}
      disabled={still}
      onCommit={(value) => {
        const to: Vector = [...aim];
        to[axis] = value;
        move({ grip: "aim", to_m: to });
      }}
    />
  );
  return (
    <>
      {box(0, "Aim, from the left wall")}
      {box(1, "Aim, from the back wall")}
      {box(2, "Aim, height")}
      <button
        type="button"
        className="button button-small self-end"
        disabled={still || !light.aim_m}
        onClick={() => hands.edit((p) => withLight(p, handle.id, { aim_m: null }))}
      >
        Aim at the eyes
      </button>
      <button
        type="button"
        className="button button-small self-end"
        disabled={still}
        onClick={() => {
          const [x, y, z] = placeOf(handle, "place");
          move({ grip: "aim", to_m: [x, y, z + 1] });
        }}
      >
        Turn it to the ceiling
      </button>
    </>
  );
}

/** The foot of a stand that stands beside what it carries. */
function Foot({ handle, units, still, move }: PartProps) {
  if (!handle.foot_m) return null;
  const foot = placeOf(handle, "foot");
  const box = (axis: 0 | 1, label: string) => (
    <LengthBox
      label={label}
      value={foot[axis]}
      units={units}
      within={PLACE}
      disabled={still}
      onCommit={(value) => {
        const to: Vector = [...foot];
        to[axis] = value;
        move({ grip: "foot", to_m: to });
      }}
    />
  );
  return (
    <>
      {box(0, "Foot, from the left wall")}
      {box(1, "Foot, from the back wall")}
    </>
  );
}

const STEPS: [string, string, Vector][] = [
  ["←", "towards the left wall", [-1, 0, 0]],
  ["→", "towards the right wall", [1, 0, 0]],
  ["↑", "towards the front wall", [0, 1, 0]],
  ["↓", "towards the back wall", [0, -1, 0]],
  ["▴", "up", [0, 0, 1]],
  ["▾", "down", [0, 0, -1]],
];

/** Nudges by a press: 1 cm, or ten times as far with Shift. */
export function Pad({ handle, hands, still }: { handle: Handle; hands: Hands; still: boolean }) {
  return (
    <div className="pad" role="group" aria-label={`Nudge ${handle.name}`}>
      {STEPS.filter(([, , by]) => by[2] === 0 || handle.lifts).map(([mark, words, by]) => (
        <button
          key={words}
          type="button"
          className="button pad-key"
          aria-label={`${handle.name}: a small step ${words}, with Shift a large one`}
          disabled={still}
          onClick={(event) => {
            const step = event.shiftKey ? 0.1 : 0.01;
            void hands.nudge(handle.id, "place", sum([0, 0, 0], [by[0] * step, by[1] * step, by[2] * step]));
          }}
        >
          {mark}
        </button>
      ))}
    </div>
  );
}
