// Above the table: which corner, whether it is kept, one step back and forth, the verdict, and the rest in a menu.
import { Dialog, DropdownMenu } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";

import type { Corner, Judged, Plan } from "../api/client";
import { Mark } from "../ui/Shell";
import { Standing } from "../ui/Standing";
import type { UnitSystem } from "../units/length";
import { withUnits } from "./edits";
import type { Keeping, Table } from "./useWorktable";

const KEEPING: Record<Keeping, string> = {
  kept: "kept",
  waiting: "not kept yet",
  keeping: "keeping …",
  trouble: "not kept",
};

interface Props {
  corner: Corner;
  plan: Plan;
  judged: Judged | null;
  table: Table;
  units: UnitSystem;
}

export function Bar({ corner, plan, judged, table, units }: Props) {
  const [renaming, setRenaming] = useState(false);
  const other = units === "metric" ? "imperial" : "metric";
  const verdict = judged?.assessment.verdict;
  return (
    <header className="bar">
      <a href="#content" className="button bg-paper absolute -top-20 left-2 z-10 focus:top-2">
        Skip to content
      </a>
      <Mark />
      <h1 className="bar-name">
        <Link to={`/corners/${corner.id}`}>{plan.name}</Link>
      </h1>
      <span className="text-faint bar-kept text-sm" role="status">
        {table.trying ? "trying out" : KEEPING[table.keeping]}
        {!table.trying && table.keeping === "kept" && `, revision ${corner.revision}`}
      </span>
      <span className="flex gap-1">
        <button
          type="button"
          className="button"
          disabled={!table.canUndo}
          onClick={() => void table.step("undo")}
        >
          Undo
        </button>
        <button
          type="button"
          className="button"
          disabled={!table.canRedo}
          onClick={() => void table.step("redo")}
        >
          Redo
        </button>
      </span>
      {verdict && (
        <Link to={`/corners/${corner.id}`} className="bar-verdict">
          <Standing ready={verdict.ready} words={verdict.sentence} />
        </Link>
      )}
      <DropdownMenu.Root>
        <DropdownMenu.Trigger className="button">More</DropdownMenu.Trigger>
        <DropdownMenu.Portal>
          <DropdownMenu.Content className="menu" align="end" sideOffset={4}>
            <DropdownMenu.Item className="menu-item" onSelect={() => table.edit((p) => withUnits(p, other))}>
              {units === "metric" ? "Show feet and inches" : "Show metres"}
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item" asChild>
              <Link to={`/corners/${corner.id}/compare`}>Compare layouts and saves</Link>
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item" asChild>
              <Link to={`/corners/${corner.id}/shelf`}>Shelf: what is at hand</Link>
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item" asChild>
              <Link to={`/corners/${corner.id}/schools`}>Schools</Link>
            </DropdownMenu.Item>
            {!table.trying && (
              <DropdownMenu.Item className="menu-item" onSelect={table.beginTrial}>
                Try without keeping
              </DropdownMenu.Item>
            )}
            <DropdownMenu.Item className="menu-item" onSelect={() => setRenaming(true)}>
              Rename
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item" asChild>
              <Link to={`/corners/${corner.id}/brief`}>Change answers</Link>
            </DropdownMenu.Item>
            <DropdownMenu.Item className="menu-item" asChild>
              <a href={`/api/v1/corners/${corner.id}/file`} onClick={() => void table.flush()}>
                Save file
              </a>
            </DropdownMenu.Item>
          </DropdownMenu.Content>
        </DropdownMenu.Portal>
      </DropdownMenu.Root>
      <Rename
        open={renaming}
        name={plan.name}
        onClose={() => setRenaming(false)}
        onName={(name) => table.edit((p) => ({ ...p, name }))}
      />
    </header>
  );
}

interface RenameProps {
  open: boolean;
  name: string;
  onClose: () => void;
  onName: (name: string) => void;
}

function Rename({ open, name, onClose, onName }: RenameProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const clean = (typed ?? name).trim().slice(0, 120);
  const close = () => {
    setTyped(null);
    onClose();
  };
  return (
    <Dialog.Root open={open} onOpenChange={(now) => !now && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-black/45" />
        <Dialog.Content className="dialog" aria-describedby={undefined}>
          <Dialog.Title className="heading mb-3">Rename this corner</Dialog.Title>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              if (clean === "") return;
              if (clean !== name) onName(clean);
              close();
            }}
          >
            <label className="text-sm font-semibold">
              Name of this corner
              <input
                className="field mt-1 font-normal"
                value={typed ?? name}
                maxLength={120}
                onChange={(event) => setTyped(event.target.value)}
              />
            </label>
            <div className="mt-4 flex gap-2">
              <button type="submit" className="button button-act" disabled={clean === ""}>
                Rename
              </button>
              <Dialog.Close className="button">Leave it</Dialog.Close>
            </div>
          </form>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
