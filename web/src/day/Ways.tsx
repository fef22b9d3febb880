// What is done about the windows: covered, used, used behind a white curtain; where place and day are known with what comes of each.
import { RadioGroup } from "radix-ui";

import type { Plan, Schemas } from "../api/client";
import { withWindowWay } from "../table/edits";
import { useTable } from "../table/useTable";
import { duration } from "./words";
import { windowsOf, windowsShine } from "./windows";

type Way = Schemas["Way"];
type Chosen = "cover" | "key" | "white-curtain";

const NAMES: Record<Way["way"], [one: string, several: string]> = {
  cover: ["Cover the window", "Cover the windows"],
  key: ["Use the window as the key", "Use the windows as the key"],
  "white-curtain": ["Hang a white curtain before it", "Hang white curtains before them"],
  fill: ["Let it fill beside your lamps", "Let them fill beside your lamps"],
  join: ["Let it join your key lamp", "Let them join your key lamp"],
};

/** What is said before place and direction are known. */
const GENERAL: Record<Chosen, string> = {
  cover: "Blinds or curtains: the same light at every hour.",
  key: "Free and soft, but it changes while you record.",
  "white-curtain": "Half the light, softer; the sun's patch is gone.",
};

const CHOICES: readonly Chosen[] = ["cover", "key", "white-curtain"];

export function Ways({ plan, ways }: { plan: Plan; ways: Way[] | undefined }) {
  const table = useTable();
  const windows = windowsOf(plan);
  const name = (way: Way["way"]) => NAMES[way][windows.length > 1 ? 1 : 0];
  const beside = ways?.find(({ way }) => way === "fill" || way === "join");
  return (
    <div className="grid gap-2">
      <RadioGroup.Root
        aria-label="What is done about the windows"
        className="grid gap-2"
        value={wayOf(plan)}
        onValueChange={(way) => table.act((p) => withWindowWay(p, way as Chosen))}
      >
        {CHOICES.map((way) => {
          const found = ways?.find((one) => one.way === way);
          return (
            <RadioGroup.Item
              key={way}
              value={way}
              className="border-line data-[state=checked]:border-ember data-[state=checked]:bg-ember-soft bg-paper min-h-10 cursor-pointer rounded-lg border px-3 py-2 text-left text-sm"
            >
              <span className="flex flex-wrap justify-between gap-x-3">
                <strong>{name(way)}</strong>
                {found && <span className="numeral">{goodOf(found)}</span>}
              </span>
              {found?.says ?? GENERAL[way]}
            </RadioGroup.Item>
          );
        })}
      </RadioGroup.Root>
      {beside && (
        <p className="px-3 text-sm">
          <strong>{name(beside.way)}:</strong> {goodOf(beside)}. {beside.says}
        </p>
      )}
    </div>
  );
}

/** How the plan has it now. */
function wayOf(plan: Plan): Chosen {
  if (!windowsShine(plan.brief)) return "cover";
  return windowsOf(plan).some(([, { curtain }]) => curtain === "white") ? "white-curtain" : "key";
}

/** Good time of the day under a way. */
export function goodOf({ good_min: minutes, longest }: Way): string {
  if (minutes >= 24 * 60) return "good at every hour";
  if (!longest) return "no good hour on this day";
  return `good for ${duration(minutes)}, longest ${longest.from}–${longest.to}`;
}
