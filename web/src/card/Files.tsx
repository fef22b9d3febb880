// Everything that leaves: the card with its pages, drawings as large as the room, tables.
import { Button, FileLink } from "../ui/button";
import { Show } from "../ui/dialog";
import { SHEET } from "../ui/Section";
import type { Paper } from "./paper";

const FILES: readonly (readonly [string, string])[] = [
  ["pdf", "Card, floor, door sign and labels, as PDF"],
  ["all.html", "The same as a web page"],
  ["svg", "Card, as SVG"],
  ["csv", "Card, as a table"],
  ["txt", "Card, as plain text"],
  ["dxf", "Plan and side view 1 : 1, as DXF"],
  ["plan.svg", "Plan 1 : 1, as SVG"],
  ["side.svg", "Side view 1 : 1, as SVG"],
  ["marks.csv", "Marks, as a table"],
  ["marks.json", "Marks, as JSON"],
  ["cables.csv", "Cables, as a table"],
];

export function Files({ id, paper, lines }: { id: number; paper: Paper; lines: boolean }) {
  const with_picture = lines ? "&picture=lines" : "";
  return (
    <Show title="Save as a file" trigger={<Button>Save as a file</Button>}>
      <ul className={`${SHEET} divide-line divide-y text-sm`} aria-label="Files">
        {FILES.map(([format, words]) => (
          <li key={format} className="flex items-center gap-3 px-3 py-1">
            <span className="mr-auto">{words}</span>
            <FileLink
              size="small"
              aria-label={words}
              href={`/api/v1/corners/${String(id)}/card/${format}?paper=${paper}${with_picture}&download=1`}
            >
              Save
            </FileLink>
          </li>
        ))}
      </ul>
    </Show>
  );
}
