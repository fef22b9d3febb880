// Above the table: which corner, whether it is saved, the verdict, one step back and forth, the places beside the work, and the
// rest in a menu.
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { Link } from "react-router";

import type { Corner, Judged, Plan } from "../api/client";
import { withUnits } from "../table/edits";
import { BESIDE, type PlaceName } from "../table/place";
import type { View } from "../table/table";
import { useTable } from "../table/useTable";
import { button, Button } from "../ui/button";
import { Icon } from "../ui/icons";
import { MENU, MENU_ITEM } from "../ui/menu";
import { Mark, SkipLink } from "../ui/Shell";
import { Standing } from "../ui/Standing";
import { Hinted } from "../ui/terms";
import { Rename } from "../ui/Rename";
import { savingWords } from "./saving";
import { saveFile } from "./file";

interface Props {
  corner: Corner;
  plan: Plan;
  judged: Judged | null;
  view: View;
  beside: PlaceName | null;
}

export function Bar({ corner, plan, judged, view, beside }: Props) {
  const table = useTable();
  const [renaming, setRenaming] = useState(false);
  const units = plan.brief.units ?? "metric";
  const verdict = judged?.assessment.verdict;
  const waits = view.version !== view.savedVersion;
  const canUndo = view.trial === null && (view.kept.can_undo || waits);
  const canRedo = view.trial === null && view.kept.can_redo && !waits;
  const step = (which: "undo" | "redo") => void table.step(which).catch(() => undefined);
  const address = `/corners/${String(corner.id)}`;
  return (
    <header className="bar border-line bg-paper flex flex-wrap items-center gap-x-3 gap-y-1.5 border-b px-4 py-1.5">
      <SkipLink />
      <Mark />
      <h1 className="min-w-0 text-sm font-semibold max-md:line-clamp-2 max-md:flex-1 max-md:leading-tight">
        <Link to={address}>{plan.name}</Link>
      </h1>
      <span className="text-faint mr-auto text-xs max-md:order-last max-md:mr-0" role="status">
        {savingWords(view)}
      </span>
      {verdict && (
        <Link to={address} className="max-md:order-last">
          <Standing ready={verdict.ready} words={verdict.sentence} />
        </Link>
      )}
      <Hinted words="Undo">
        <Button size="icon" aria-label="Undo" disabled={!canUndo} onClick={() => step("undo")}>
          <Icon name="undo" />
        </Button>
      </Hinted>
      <Hinted words="Redo">
        <Button size="icon" aria-label="Redo" disabled={!canRedo} onClick={() => step("redo")}>
          <Icon name="redo" />
        </Button>
      </Hinted>
      <nav aria-label="Beside the work" className="flex gap-1.5 max-md:hidden">
        <Link to={`${address}/answers`} className={button({ size: "small" })}>
          Answers
        </Link>
        {BESIDE.map(([name, words]) => (
          <Link
            key={name}
            to={`${address}/${name}`}
            aria-current={name === beside ? "page" : undefined}
            className={button({
              size: "small",
              className: "aria-[current]:border-ink aria-[current]:border-2",
            })}
          >
            {words}
          </Link>
        ))}
      </nav>
      <DropdownMenu.Root modal={false}>
        <DropdownMenu.Trigger className={button({ size: "icon" })} aria-label="More">
          <Icon name="more" />
        </DropdownMenu.Trigger>
        <DropdownMenu.Content className={MENU} align="end" sideOffset={4}>
          {BESIDE.map(([name, words]) => (
            <DropdownMenu.Item key={name} className={`${MENU_ITEM} md:hidden`} asChild>
              <Link to={`${address}/${name}`}>{words}</Link>
            </DropdownMenu.Item>
          ))}
          <DropdownMenu.Item className={`${MENU_ITEM} md:hidden`} asChild>
            <Link to={`${address}/answers`}>Answers</Link>
          </DropdownMenu.Item>
          {view.trial === null && (
            <DropdownMenu.Item
              className={MENU_ITEM}
              onSelect={() => void table.beginTrial().catch(() => undefined)}
            >
              Try without saving
            </DropdownMenu.Item>
          )}
          <DropdownMenu.Item
            className={MENU_ITEM}
            onSelect={() => table.act((p) => withUnits(p, units === "metric" ? "imperial" : "metric"))}
          >
            {units === "metric" ? "Show feet and inches" : "Show metres"}
          </DropdownMenu.Item>
          <DropdownMenu.Item className={MENU_ITEM} onSelect={() => setRenaming(true)}>
            Rename
          </DropdownMenu.Item>
          <DropdownMenu.Item
            className={MENU_ITEM}
            onSelect={() => void table.flush().then(() => saveFile(corner.id, plan.name))}
          >
            Save as a file
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Root>
      <Rename
        open={renaming}
        name={plan.name}
        onClose={() => setRenaming(false)}
        onName={(name) => table.act((p) => ({ ...p, name }))}
      />
    </header>
  );
}
