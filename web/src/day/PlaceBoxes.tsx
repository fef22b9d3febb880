// Where the room is and which way it looks: what the sun hangs on.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import type { Plan } from "../api/client";
import { limits } from "../api/limits";
import { withPlace } from "../table/edits";
import { useTable } from "../table/useTable";
import { NumberBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { Choice, TextField } from "../ui/fields";
import { Section } from "../ui/Section";
import { regions } from "./asked";
import { BearingBoxes } from "./BearingBoxes";

const DEGREES = [
  ["latitude_deg", "Latitude, degrees north"],
  ["longitude_deg", "Longitude, degrees east"],
] as const;

const ZONES = Intl.supportedValuesOf("timeZone");

function ZoneField({ zone, onZone }: { zone: string; onZone: (zone: string) => void }) {
  const [typed, setTyped] = useState(zone);
  const isKnown = typed === zone || ZONES.includes(typed);
  return (
    <TextField
      label="Time zone"
      list="time-zones"
      value={typed}
      problem={isKnown ? undefined : "No time zone is called so; as Europe/Madrid."}
      onText={(text) => {
        setTyped(text);
        if (text !== zone && ZONES.includes(text)) onZone(text);
      }}
    />
  );
}

export function PlaceBoxes({ plan }: { plan: Plan }) {
  const table = useTable();
  const { place } = plan.brief;
  const all = useQuery(regions).data ?? [];
  const region = all.find(
    (one) => one.latitude_deg === place?.latitude_deg && one.longitude_deg === place.longitude_deg,
  );
  return (
    <>
      <Section title="Where the room is">
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
          {place ? (
            <ZoneField
              key={place.time_zone}
              zone={place.time_zone}
              onZone={(time_zone) => table.act((p) => withPlace(p, { ...place, time_zone }))}
            />
          ) : (
            <Button
              onClick={() =>
                table.act((p) =>
                  withPlace(p, {
                    latitude_deg: 0,
                    longitude_deg: 0,
                    time_zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
                  }),
                )
              }
            >
              Type latitude and longitude
            </Button>
          )}
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
        <datalist id="time-zones">
          {ZONES.map((zone) => (
            <option key={zone} value={zone} />
          ))}
        </datalist>
      </Section>
      <BearingBoxes plan={plan} />
    </>
  );
}
