// What has to be asked or told above the table: a trial, a save that was refused, another window's save, what an earlier page
// left, what went wrong last.
import { useQueryClient } from "@tanstack/react-query";
import { useNavigate } from "react-router";

import { api, planOf, Refused, type Plan } from "../api/client";
import type { Left } from "../table/left";
import type { View } from "../table/table";
import { outbox, useTable } from "../table/useTable";
import { Banner } from "../ui/Banner";
import { Button } from "../ui/button";
import { Trouble } from "../ui/states";
import { Both } from "./Both";
import { saveFile } from "./file";

export function Banners({ view, left }: { view: View; left: Left[] }) {
  const table = useTable();
  const { saving, trouble } = view;
  // What is tried again by itself, or asked about, is told once.
  const told = saving.kind === "conflict" || saving.kind === "unreachable";
  return (
    <>
      {view.trial && (
        <Banner kind="tell" words="You are trying something out: nothing is saved.">
          <Button look="act" size="small" onClick={() => void table.endTrial(true)}>
            Save it
          </Button>
          <Button size="small" onClick={() => void table.endTrial(false)}>
            Go back to before
          </Button>
        </Banner>
      )}
      {saving.kind === "conflict" && view.plan && (
        <Conflict
          words="Another window saved this corner while you worked here. Which one stays?"
          mine={view.plan}
          theirs={planOf(saving.theirs)}
          onMine={() => void table.keepMine()}
          onTheirs={() => table.takeKept(saving.theirs)}
        />
      )}
      {saving.kind === "unreachable" && saving.why !== null && (
        <Banner kind="ask" words={saving.why}>
          <Button look="act" size="small" onClick={() => saveFile(view.kept.id, view.kept.name)}>
            Save this corner as a file
          </Button>
        </Banner>
      )}
      {saving.kind === "refused" && (
        <Banner kind="ask" words={`The last change is not saved: ${saving.error.details.title}`}>
          <Button size="small" onClick={() => void table.step("undo").catch(() => undefined)}>
            Undo it
          </Button>
        </Banner>
      )}
      {saving.kind === "gone" && <Gone plan={view.plan} />}
      {left.map((one) => (
        <LeftBehind key={one.entry.name} left={one} />
      ))}
      {trouble !== null && !told && (
        <div className="px-4 py-2">
          <Trouble error={trouble} onRetry={table.putTroubleAway} retryWords="Close" />
        </div>
      )}
    </>
  );
}

interface ConflictProps {
  words: string;
  mine: Plan;
  theirs: Plan | null;
  onMine: () => void;
  onTheirs: () => void;
}

/** Two versions of one corner: one stays, and both can be seen first. */
function Conflict({ words, mine, theirs, onMine, onTheirs }: ConflictProps) {
  return (
    <Banner kind="ask" words={words}>
      <Button look="act" size="small" onClick={onMine}>
        Keep mine
      </Button>
      <Button size="small" onClick={onTheirs}>
        Take theirs
      </Button>
      {theirs && <Both mine={mine} theirs={theirs} onMine={onMine} onTheirs={onTheirs} />}
    </Banner>
  );
}

/** The corner was deleted elsewhere; what lies here can become one of its own. */
function Gone({ plan }: { plan: Plan | null }) {
  const table = useTable();
  const queries = useQueryClient();
  const navigate = useNavigate();
  const keep = async () => {
    const made = await api.create(plan);
    // What lies here is saved: nothing of it waits any more.
    table.takeKept(made);
    await queries.invalidateQueries({ queryKey: ["corners"] });
    void navigate(`/corners/${String(made.id)}`);
  };
  return (
    <Banner kind="ask" words="This corner was deleted in another window.">
      {plan && (
        <Button look="act" size="small" onClick={() => void keep()}>
          Save mine as a new corner
        </Button>
      )}
    </Banner>
  );
}

const TIME = new Intl.DateTimeFormat(undefined, { dateStyle: "short", timeStyle: "short" });

/** Something that an earlier page could not save. */
function LeftBehind({ left: { entry, plan, why } }: { left: Left }) {
  const table = useTable();
  const queries = useQueryClient();
  const drop = async () => {
    outbox().drop(entry);
    await queries.invalidateQueries({ queryKey: ["left", entry.corner] });
  };
  const use = () => void table.edit(() => plan).then(drop, () => undefined);
  const goOn = () =>
    void table
      .beginTrial()
      .then(() => table.edit(() => plan))
      .then(drop, () => undefined);
  const time = TIME.format(entry.at_ms);
  if (why.kind === "trial")
    return (
      <Banner kind="ask" words={`You were trying something out on ${time}; it is not saved.`}>
        <Button look="act" size="small" onClick={goOn}>
          Go on with it
        </Button>
        <Button size="small" onClick={() => void drop()}>
          Discard it
        </Button>
      </Banner>
    );
  if (why.kind === "conflict")
    return (
      <Conflict
        words={`Your changes of ${time} are not saved: another window saved this corner first. Which one stays?`}
        mine={plan}
        theirs={table.view().plan}
        onMine={use}
        onTheirs={() => void drop()}
      />
    );
  const reason =
    why.kind === "refused" && why.error instanceof Refused ? why.error.details.title : "the corner is gone.";
  return (
    <Banner kind="ask" words={`Your changes of ${time} could not be saved: ${reason}`}>
      <Button look="act" size="small" onClick={use}>
        Put them on the table
      </Button>
      <Button size="small" onClick={() => void drop()}>
        Discard them
      </Button>
    </Banner>
  );
}
