// The plan as a file: what is not saved yet where there is any, else the corner's own file from the server.
import { outbox } from "../table/useTable";

function download(url: string, name: string): void {
  const link = document.createElement("a");
  link.href = url;
  link.download = name;
  link.click();
}

export function saveFile(corner: number, name: string): void {
  const plan = outbox().newest(corner);
  if (!plan) return download(`/api/v1/corners/${String(corner)}/file`, "");
  const url = URL.createObjectURL(
    new Blob([JSON.stringify(plan, null, 2)], { type: "application/json" }),
  );
  const stem = name.toLowerCase().replaceAll(/[^a-z0-9]+/g, "-");
  download(url, `${stem}.fogon.json`);
  URL.revokeObjectURL(url);
}
