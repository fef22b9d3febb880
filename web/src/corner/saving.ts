// Whether a corner is saved, in words.
import { isUnsaved } from "../table/state";
import type { View } from "../table/table";

const UNREACHABLE = "not saved: the server cannot be reached; trying again";

export function savingWords(view: View): string {
  if (view.trial) return "trying out, not saved";
  if (view.waiting > 0) return UNREACHABLE;
  switch (view.saving.kind) {
    case "saved":
      return isUnsaved(view) ? "not saved yet" : "saved";
    case "waiting":
      return "not saved yet";
    case "saving":
      return "saving …";
    case "unreachable":
      return view.saving.why === null ? UNREACHABLE : "not saved; trying again";
    case "refused":
    case "gone":
    case "conflict":
      return "not saved";
  }
}
