// The plan as a file: what is not saved yet where there is any, else the corner's own file from the server.
import { outbox } from "../table/useTable";
import { download, handOut, stemOf } from "../ui/download";

export function saveFile(corner: number, name: string): void {
  const plan = outbox().newest(corner);
  if (!plan) return download(`/api/v1/corners/${String(corner)}/file`, "");
  const text = JSON.stringify(plan, null, 2);
  handOut(new Blob([text], { type: "application/json" }), `${stemOf(name)}.fogon.json`);
}
