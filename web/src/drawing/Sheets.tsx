// Plan over side view at one scale, with the grips over each; what drew or held the last move is said below.
import type { Judged, View } from "../api/client";
import type { Table } from "../corner/useWorktable";
import { Drawing } from "./Drawing";
import { Grips, type Sheet } from "./Grips";

interface Props {
  judged: Judged;
  table: Table;
  selected: string | null;
  onSelect: (thing: string) => void;
  onTake: (thing: string) => void;
  /** Pixels that both drawings may take. */
  room: { width: number; height: number };
}

/** Pixels of a metre, so that both drawings fit. */
export function sheetScale(plan: number[], side: number[], room: { width: number; height: number }): number {
  const [p, s] = [span(plan), span(side)];
  return Math.min(room.width / Math.max(p.width, s.width), room.height / (p.height + s.height));
}

const span = (bounds: number[]) => ({
  width: (bounds[2] ?? 1) - (bounds[0] ?? 0),
  height: (bounds[3] ?? 1) - (bounds[1] ?? 0),
});

export function Sheets({ judged, table, selected, onSelect, onTake, room }: Props) {
  const { plan: above, side } = judged.drawing;
  // While something is held, the boxes stay: nothing shifts under the hand.
  const bounds = table.dragging ?? { plan: above.bounds, side: side.bounds };
  const scale = sheetScale(bounds.plan, bounds.side, room);
  const radius = Math.max(above.mark_radius * 1.25, 13 / scale);
  const lamps = Object.keys(table.plan?.layout.lights ?? {});
  const key = lamps.find((id) => table.plan?.layout.lights?.[id]?.role === "key") ?? null;
  const lamp = selected !== null && lamps.includes(selected) ? selected : key;
  const draw = (view: View, box: number[], sheet: Sheet, title: string) => {
    const over = judged.light?.[sheet];
    const ways = judged.sound_sheets?.[sheet];
    const size = span(box);
    return (
      <div className="sheet-drawing" style={{ width: size.width * scale, height: size.height * scale }}>
        <Drawing view={{ ...view, bounds: box }} title={title} over={over} lamp={lamp} ways={ways} />
        <Grips
          view={view}
          bounds={box}
          sheet={sheet}
          handles={judged.handles}
          selected={selected}
          onSelect={onSelect}
          onTake={onTake}
          table={table}
          onHold={(held) => table.setDragging(held ? bounds : null)}
          radius={radius}
        />
      </div>
    );
  };
  const metre = Math.round(scale);
  return (
    <figure className="sheets" data-held={table.dragging !== null} data-pixels-per-metre={metre}>
      <p className="sheet-title">
        Plan <span className="text-faint font-normal">from above</span>
      </p>
      {draw(above, bounds.plan, "plan", "Plan, from above")}
      <p className="sheet-title">
        Side view <span className="text-faint font-normal">along the lens axis, same scale</span>
      </p>
      {draw(side, bounds.side, "side", "Side view along the lens axis")}
    </figure>
  );
}

/** What drew the last move, what held it, and the way past it. */
export function Notes({ table }: { table: Table }) {
  return (
    <div className="notes" role="status" aria-live="polite">
      {table.notes.map((note) => (
        <p key={note.kind + note.words} className={`note note-${note.kind}`}>
          <span className="font-bold">
            {note.kind === "snap" ? "Drawn to: " : note.kind === "held" ? "Held: " : "Note: "}
          </span>
          {note.words}
          {note.anyway && (
            <button
              type="button"
              className="button button-small ml-2"
              onClick={() => note.anyway && void table.move(note.anyway.by, note.anyway.from, false)}
            >
              Put it there anyway
            </button>
          )}
        </p>
      ))}
    </div>
  );
}
