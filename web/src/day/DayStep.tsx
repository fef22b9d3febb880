// The day: what the windows do to the picture, and whether they are covered or used.
import { ToggleGroup } from "radix-ui";
import { useState } from "react";

import { Schools } from "../schools/Schools";
import { withSchool } from "../table/edits";
import { wallName } from "../table/floor";
import { valueOf, type StepProps } from "../table/step";
import { useTable } from "../table/useTable";
import { fixed, formatLength } from "../units/length";
import { Section } from "../ui/Section";
import { Table } from "../ui/Table";
import { today } from "./asked";
import { CourseOf } from "./CourseOf";
import { NoisyBoxes } from "./NoisyBoxes";
import { PlaceBoxes } from "./PlaceBoxes";
import { Week } from "./Week";
import { WindowBoxes } from "./WindowBoxes";
import { USUAL, windowsOf, windowsShine } from "./windows";

export function DayNow({ plan, judged, units }: StepProps) {
  const windows = windowsOf(plan);
  const [date, setDate] = useState(() => today(new Date()));
  if (windows.length === 0)
    return <p>Without a window nothing changes by the hour: light it once, and keep the dials.</p>;
  const isPlaced = plan.brief.place != null && plan.brief.room.north_deg != null;
  return (
    <div className="grid gap-4">
      <CoveredOrUsed used={windowsShine(plan.brief)} several={windows.length > 1} />
      {isPlaced ? (
        <>
          <CourseOf plan={plan} date={date} onDate={setDate} />
          <Week plan={plan} from={date} />
        </>
      ) : (
        <PlaceBoxes plan={plan} />
      )}
      <Section title="Windows">
        <Table>
          <thead>
            <tr>
              <th>In the</th>
              <th>Size</th>
              <th>Sill</th>
              <th>From your eyes</th>
            </tr>
          </thead>
          <tbody>
            {windows.map(([id, window]) => {
              const azimuth = valueOf(judged, `daylight.${id}.azimuth_deg`);
              return (
                <tr key={id}>
                  <td>{wallName(plan.brief.room.floor_m, window.wall)}</td>
                  <td>
                    {formatLength(window.width_m, units)} ×{" "}
                    {formatLength(window.height_m ?? USUAL.height_m, units)}
                  </td>
                  <td>{formatLength(window.sill_m ?? USUAL.sill_m, units)}</td>
                  <td>{azimuth === null ? "–" : sideOf(azimuth)}</td>
                </tr>
              );
            })}
          </tbody>
        </Table>
      </Section>
    </div>
  );
}

/** Where something is by its angle from the lens. */
function sideOf(azimuth: number): string {
  const angle = `${fixed(Math.abs(azimuth), 0)}°`;
  if (Math.abs(azimuth) > 135) return `behind you, ${angle} from the lens`;
  return `${angle} to camera ${azimuth > 0 ? "right" : "left"}`;
}

function CoveredOrUsed({ used, several }: { used: boolean; several: boolean }) {
  const table = useTable();
  const option = (value: string, name: string, words: string) => (
    <ToggleGroup.Item
      value={value}
      className="border-line data-[state=on]:border-ember data-[state=on]:bg-ember-soft bg-paper min-h-10 cursor-pointer rounded-lg border px-3 py-2 text-left text-sm"
    >
      <strong className="block">{name}</strong>
      {words}
    </ToggleGroup.Item>
  );
  return (
    <ToggleGroup.Root
      type="single"
      aria-label="What is done about the windows"
      className="grid gap-2 sm:grid-cols-2"
      value={used ? "key" : "shut-out"}
      onValueChange={(window) => window !== "" && table.act((p) => withSchool(p, "window", window))}
    >
      {option(
        "shut-out",
        several ? "Cover the windows" : "Cover the window",
        "Blinds or curtains: the same light at every hour.",
      )}
      {option("key", "Use the window as the key", "Free and soft, but it changes while you record.")}
    </ToggleGroup.Root>
  );
}

export function DayByHand({ plan, units }: StepProps) {
  return (
    <div className="grid gap-4">
      <WindowBoxes plan={plan} units={units} />
      {windowsOf(plan).length > 0 && <PlaceBoxes plan={plan} />}
      <NoisyBoxes plan={plan} />
    </div>
  );
}

export function DayChoices({ plan }: StepProps) {
  return <Schools ids={["window"]} plan={plan} />;
}
