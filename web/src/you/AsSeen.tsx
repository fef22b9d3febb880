// You as the lens and the lamps see you: where the eyes go, what is worn, how light hair and skin are.
import type { Plan, Schemas } from "../api/client";
import { limits } from "../api/limits";
import { withGaze, withPerson } from "../table/edits";
import { useTable } from "../table/useTable";
import { NumberBox, OptionalBox } from "../ui/boxes";
import { Choice } from "../ui/fields";
import { Section } from "../ui/Section";

const CLOTHES = [
  ["", "Not given"],
  ["grey", "Grey"],
  ["blue", "Blue"],
  ["green", "Green"],
  ["red", "Red"],
  ["sand", "Sand"],
] as const;

const HAIR = [
  ["", "Not given"],
  ["dark", "Dark"],
  ["light", "Light"],
  ["grey", "Grey"],
  ["none", "None"],
] as const;

export function AsSeen({ plan }: { plan: Plan }) {
  const table = useTable();
  const { person } = plan.brief;
  const tell = (change: Parameters<typeof withPerson>[1]) => table.edit((p) => withPerson(p, change));
  return (
    <Section title="How lens and lamps see you">
      <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2 sm:grid-cols-3">
        <NumberBox
          label="Eyes beside the lens, right +"
          term="Gaze"
          unit="°"
          value={plan.layout.seat.gaze_offset_deg ?? 0}
          within={limits["Seat.gaze_offset_deg"]}
          onCommit={(degrees) => table.edit((p) => withGaze(p, degrees))}
        />
        <OptionalBox
          label="Visual acuity, 1 is usual"
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
          onPick={(hair) =>
            table.act((p) => withPerson(p, { hair: hair === "" ? null : (hair as Schemas["Hair"]) }))
          }
        />
        <OptionalBox
          label="Skin reflectance, 0.05 deep to 0.45 light"
          term="Reflectance"
          digits={2}
          step={0.05}
          without="0.35"
          value={person.skin_reflectance ?? null}
          within={limits["Person.skin_reflectance"]}
          onCommit={(skin_reflectance) => tell({ skin_reflectance })}
        />
        <Choice
          label="Colour of your clothes"
          value={person.clothing_colour ?? ""}
          options={CLOTHES}
          onPick={(colour) =>
            table.act((p) =>
              withPerson(p, {
                clothing_colour: colour === "" ? null : (colour as Schemas["ClothingColour"]),
              }),
            )
          }
        />
        <OptionalBox
          label="Clothing reflectance, 0.04 black to 0.8 white"
          term="Reflectance"
          digits={2}
          step={0.05}
          without="not given"
          value={person.clothing_reflectance ?? null}
          within={limits["Person.clothing_reflectance"]}
          onCommit={(clothing_reflectance) => tell({ clothing_reflectance })}
        />
        <OptionalBox
          label="Stripes on clothes, one pair"
          term="Pixels for a pair of stripes"
          unit="mm"
          without="none"
          value={person.stripe_pitch_mm ?? null}
          within={limits["Person.stripe_pitch_mm"]}
          onCommit={(stripe_pitch_mm) => tell({ stripe_pitch_mm })}
        />
      </div>
    </Section>
  );
}
