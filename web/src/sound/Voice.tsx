// How loud you speak.
import type { Plan, Schemas } from "../api/client";
import { withPerson } from "../table/edits";
import { useTable } from "../table/useTable";
import { Choice } from "../ui/fields";

const VOICES = [
  ["relaxed", "relaxed, as to somebody beside you"],
  ["normal", "normal, as in a conversation"],
  ["raised", "raised, as to a group"],
  ["loud", "loud, as on a stage"],
] as const;

export function Voice({ plan }: { plan: Plan }) {
  const table = useTable();
  const told = plan.brief.person.voice;
  return (
    <Choice
      label={`How you speak${told ? "" : " (assumed)"}`}
      value={told ?? "normal"}
      options={VOICES}
      onPick={(voice) => table.act((p) => withPerson(p, { voice: voice as Schemas["Effort"] }))}
    />
  );
}
