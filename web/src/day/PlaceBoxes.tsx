// Where the room is and which way it looks: what the sun hangs on.
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";

import type { Plan } from "../api/client";
import { limits } from "../api/limits";
import { withPlace } from "../table/edits";
import { useTable } from "../table/useTable";
import { OptionalBox } from "../ui/boxes";
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

type Place = NonNullable<Plan["brief"]["place"]>;

/** A place while it is typed: it counts once both its degrees are there. */
interface Typed extends Pick<Place, "time_zone"> {
  latitude_deg: number | null;
  longitude_deg: number | null;
}

const isWhole = (typed: Typed): typed is Place => typed.latitude_deg !== null && typed.longitude_deg !== null;

export function PlaceBoxes({ plan }: { plan: Plan }) {
  const table = useTable();
  const [typed, setTyped] = useState<Typed | null>(null);
  const at = plan.brief.place ?? typed;
  const set = (next: Typed) => {
    if (isWhole(next)) return table.edit((p) => withPlace(p, next));
    setTyped(next);
    return Promise.resolve();
  };
  const all = useQuery(regions).data ?? [];
  const region = all.find(
    (one) => one.latitude_deg === at?.latitude_deg && one.longitude_deg === at.longitude_deg,
  );
  return (
    <>
      <Section title="Where the room is">
        <div className="grid max-w-2xl grid-cols-1 items-end gap-3 sm:grid-cols-2">
          <Choice
            label="Region"
            value={region?.name ?? ""}
            options={[
              ["", at ? "typed below" : "pick one"],
              ...all.map((one) => [one.name, one.name] as const),
            ]}
            onPick={(name) => {
              const picked = all.find((one) => one.name === name);
              if (!picked) return;
              const { latitude_deg, longitude_deg, time_zone } = picked;
              table.act((p) => withPlace(p, { latitude_deg, longitude_deg, time_zone }));
            }}
          />
          {at ? (
            <ZoneField
              key={at.time_zone}
              zone={at.time_zone}
              onZone={(time_zone) => void set({ ...at, time_zone }).catch(() => undefined)}
            />
          ) : (
            <Button
              onClick={() =>
                setTyped({
                  latitude_deg: null,
                  longitude_deg: null,
                  time_zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
                })
              }
            >
              Type latitude and longitude
            </Button>
          )}
          {at &&
            DEGREES.map(([field, label]) => (
              <OptionalBox
                key={field}
                label={label}
                unit="°"
                digits={2}
                step={0.5}
                within={limits[`Place.${field}`]}
                value={at[field]}
                onCommit={(degrees) => set({ ...at, [field]: degrees })}
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
