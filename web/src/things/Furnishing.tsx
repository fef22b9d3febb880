// What is in the room, in one word: how it sounds follows from it where nobody told more.
import type { Plan } from "../api/client";
import { withFurnishing } from "../table/edits";
import { FURNISHINGS } from "../table/surfaces";
import { useTable } from "../table/useTable";
import { Choice } from "../ui/fields";

export function Furnishing({ plan }: { plan: Plan }) {
  const table = useTable();
  return (
    <Choice
      label="What is in the room"
      help="Soft things reduce the echo."
      value={plan.brief.room.furnishing ?? ""}
      options={FURNISHINGS}
      onPick={(furnishing) => table.act((p) => withFurnishing(p, furnishing))}
    />
  );
}
