// What drew the last move, what held it, and the way past it.
import { useTable, useTableView } from "../table/useTable";
import { Button } from "../ui/button";

const WORDS = { snap: "Snapped: ", held: "Held: ", said: "" } as const;

export function Notes() {
  const table = useTable();
  const notes = useTableView((view) => view.notes);
  return (
    <div className="min-h-6 text-sm" role="status" aria-label="Last move">
      {notes.map((note) => (
        <p
          key={note.kind + note.words}
          className={`my-1 border-l-4 pl-2 ${note.kind === "held" ? "border-ember" : "border-line"}`}
        >
          <span className="font-bold">{WORDS[note.kind]}</span>
          {note.words}{" "}
          {note.anyway && (
            <Button
              size="small"
              onClick={() =>
                note.anyway && void table.put(note.anyway.by, note.anyway.from).catch(() => undefined)
              }
            >
              Put it there anyway
            </Button>
          )}
        </p>
      ))}
    </div>
  );
}
