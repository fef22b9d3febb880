// You as the lens and the lamps meet you: where the eyes go, what is worn, how light hair and skin are.
import type { Plan, Schemas } from "../api/client";
import { limits } from "../api/limits";
import { withGaze, withPerson } from "../corner/edits";
import type { Table } from "../corner/useWorktable";
import { NumberBox, OptionalBox } from "../ui/boxes";
import { Choice } from "../ui/fields";

const HAIR = [
  ["", "Not told"],
  ["dark", "Dark"],
  ["light", "Light"],
  ["none", "None"],
] as const;

export function PersonPlace({ plan, table }: { plan: Plan; table: Table }) {
  const { person } = plan.brief;
  const tell = (change: Parameters<typeof withPerson>[1]) => table.edit((p) => withPerson(p, change));
  return (
    <section aria-labelledby="as-seen">
      <h3 id="as-seen" className="subheading">
        As lens and lamps meet you
      </h3>
      <div className="grid items-end gap-3 sm:grid-cols-2">
        <NumberBox
          label="Eyes off the lens, camera right +"
          term="Gaze"
          unit="°"
          value={plan.layout.seat.gaze_offset_deg ?? 0}
          within={limits["Seat.gaze_offset_deg"]}
          onCommit={(degrees) => table.edit((p) => withGaze(p, degrees))}
        />
        <OptionalBox
          label="Your eyes' acuity, 1 is usual"
          unit=""
          digits={2}
          step={0.1}
          without="1"
          value={person.acuity ?? null}
          within={limits["Person.acuity"]}
          onCommit={(acuity) => tell({ acuity })}
        />
        <Choice
          label="Hair"
          value={person.hair ?? ""}
          options={HAIR}
          onChange={(hair) => tell({ hair: hair === "" ? null : (hair as Schemas["Hair"]) })}
        />
        <OptionalBox
          label="Skin throws back: deep 0.05, light 0.45"
          unit="of 1"
          digits={2}
          step={0.05}
          without="0.35"
          value={person.skin_reflectance ?? null}
          within={limits["Person.skin_reflectance"]}
          onCommit={(skin_reflectance) => tell({ skin_reflectance })}
        />
        <OptionalBox
          label="Clothes throw back: black 0.04, white 0.8"
          unit="of 1"
          digits={2}
          step={0.05}
          without="not told"
          value={person.clothing_reflectance ?? null}
          within={limits["Person.clothing_reflectance"]}
          onCommit={(clothing_reflectance) => tell({ clothing_reflectance })}
        />
        <OptionalBox
          label="Stripes worn, one light and one dark"
          unit="mm"
          without="plain"
          value={person.stripe_pitch_mm ?? null}
          within={limits["Person.stripe_pitch_mm"]}
          onCommit={(stripe_pitch_mm) => tell({ stripe_pitch_mm })}
        />
      </div>
    </section>
  );
}
