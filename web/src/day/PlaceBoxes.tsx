// Where the room is and which way it looks: what the sun hangs on.
import { useQuery } from "@tanstack/react-query";

import type { Plan } from "../api/client";
import { limits } from "../api/limits";
import { withNorth, withPlace } from "../table/edits";
import { wallName } from "../table/floor";
import { useTable } from "../table/useTable";
import { NumberBox, OptionalBox } from "../ui/boxes";
import { Choice } from "../ui/fields";
import { Section } from "../ui/Section";
import { regions } from "./asked";
import { bearingOfWall, northFor, windowsOf } from "./windows";

const DEGREES = [
  ["latitude_deg", "Latitude, degrees north"],
  ["longitude_deg", "Longitude, degrees east"],
] as const;

export function PlaceBoxes({ plan }: { plan: Plan }) {
  const table = useTable();
  const { place } = plan.brief;
  const all = useQuery(regions).data ?? [];
  const region = all.find(
    (one) => one.latitude_deg === place?.latitude_deg && one.longitude_deg === place.longitude_deg,
  );
  const [window] = windowsOf(plan);
  const wall = window?.[1].wall ?? 0;
  const north = plan.brief.room.north_deg ?? null;
  const looks = north === null ? null : bearingOfWall(plan.brief.room.floor_m, wall, north);
  return (
    <Section title="Where, and which way the window looks">
      <div className="grid max-w-2xl grid-cols-1 items-end gap-3 sm:grid-cols-2">
        <Choice
          label="Region"
          value={region?.name ?? ""}
          options={[
            ["", place ? "typed below" : "pick one"],
            ...all.map((one) => [one.name, one.name] as const),
          ]}
          onPick={(name) => {
            const picked = all.find((one) => one.name === name);
            if (!picked) return;
            const { latitude_deg, longitude_deg, time_zone } = picked;
            table.act((p) => withPlace(p, { latitude_deg, longitude_deg, time_zone }));
          }}
        />
        <OptionalBox
          label={`The window in the ${wallName(plan.brief.room.floor_m, wall)} looks to, degrees from north`}
          unit="°"
          digits={0}
          step={5}
          within={[0, 359.9]}
          value={looks}
          onCommit={(bearing) =>
            table.edit((p) =>
              withNorth(p, bearing === null ? null : northFor(p.brief.room.floor_m, wall, bearing)),
            )
          }
        />
        {place &&
          DEGREES.map(([field, label]) => (
            <NumberBox
              key={field}
              label={label}
              unit="°"
              digits={2}
              step={0.5}
              within={limits[`Place.${field}`]}
              value={place[field]}
              onCommit={(degrees) => table.edit((p) => withPlace(p, { ...place, [field]: degrees }))}
            />
          ))}
      </div>
      <p className="text-faint mt-1 text-xs">
        A phone's compass is right to about 10 degrees, away from steel. North 0, east 90, south 180, west
        270.
        {place && ` Time zone: ${place.time_zone}.`}
      </p>
    </Section>
  );
}
