// Which way the window looks: read off a compass or a map, or found by the sun.
import { useState } from "react";

import { api, type Plan } from "../api/client";
import { withNorth } from "../table/edits";
import { wallName } from "../table/floor";
import { useTable } from "../table/useTable";
import { NumberBox, OptionalBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { Choice, TextField } from "../ui/fields";
import { Section } from "../ui/Section";
import { today } from "./asked";
import { bearingOfWall, northFor, turn, windowsOf } from "./windows";

/** How far a bearing may be off, degrees, by how it was found. */
const WITHIN = { compass: 10, map: 3, sun: 5 } as const;
type Found = keyof typeof WITHIN;

const WAYS: readonly (readonly [Found, string])[] = [
  ["compass", "a phone's compass, ±10°"],
  ["map", "a map or a street, ±3°"],
  ["sun", "the sun, ±5°"],
];

const foundBy = (within: number | null | undefined): Found =>
  within === WITHIN.map ? "map" : within === WITHIN.sun ? "sun" : "compass";

export function BearingBoxes({ plan }: { plan: Plan }) {
  const table = useTable();
  const { room, place } = plan.brief;
  const [way, setWay] = useState<Found>(() => foundBy(room.north_within_deg));
  const [window] = windowsOf(plan);
  const wall = window?.[1].wall ?? 0;
  const north = room.north_deg ?? null;
  const set = (p: Plan, bearing: number | null, found: Found) =>
    withNorth(
      p,
      bearing === null ? null : northFor(p.brief.room.floor_m, wall, bearing),
      bearing === null ? null : WITHIN[found],
    );
  return (
    <Section title={`Which way the window in the ${wallName(room.floor_m, wall)} looks`}>
      <div className="grid max-w-2xl grid-cols-1 items-end gap-3 sm:grid-cols-2">
        <Choice
          label="Found by"
          value={way}
          options={WAYS}
          onPick={(key) => {
            setWay(key as Found);
            if (north !== null && key !== "sun") table.act((p) => withNorth(p, north, WITHIN[key as Found]));
          }}
        />
        <OptionalBox
          label="It looks to, degrees from north"
          unit="°"
          digits={0}
          step={5}
          within={[0, 359.9]}
          value={north === null ? null : bearingOfWall(room.floor_m, wall, north)}
          onCommit={(bearing) => table.edit((p) => set(p, bearing, way))}
        />
      </div>
      {way === "sun" &&
        (place ? (
          <BySun place={place} onBearing={(bearing) => table.act((p) => set(p, bearing, "sun"))} />
        ) : (
          <p className="mt-2 text-sm">Say first where the room is.</p>
        ))}
      <p className="text-faint mt-1 text-xs">
        North 0, east 90, south 180, west 270. Read a compass away from steel.
      </p>
    </Section>
  );
}

type Place = NonNullable<Plan["brief"]["place"]>;

/** When the sun stood straight before the window, or so many degrees beside it. */
function BySun({ place, onBearing }: { place: Place; onBearing: (bearing: number) => void }) {
  const [local, setLocal] = useState(() => `${today(new Date())}T12:00`);
  const [beside, setBeside] = useState(0);
  const [said, setSaid] = useState("");
  const find = async () => {
    try {
      const sun = await api.sun({ place, local });
      if (sun.elevation_deg < 1) return setSaid("The sun is not up then.");
      const bearing = Math.round(turn(sun.azimuth_deg - beside));
      setSaid(`The sun stood at ${sun.azimuth_deg.toFixed(0)}°: the window looks to ${String(bearing)}°.`);
      onBearing(bearing);
    } catch (error) {
      setSaid(error instanceof Error ? error.message : "That time is not known.");
    }
  };
  return (
    <div className="mt-2 grid max-w-2xl grid-cols-1 items-end gap-3 sm:grid-cols-3">
      <TextField label="You saw the sun at" type="datetime-local" value={local} onText={setLocal} />
      <NumberBox
        label="Right of straight out, left negative"
        unit="°"
        digits={0}
        step={5}
        within={[-90, 90]}
        value={beside}
        onCommit={(degrees) => {
          setBeside(degrees);
        }}
      />
      <Button onClick={() => void find()}>Take the bearing</Button>
      <p className="text-sm sm:col-span-3" role="status">
        {said}
      </p>
    </div>
  );
}
