// The shots that are wanted: in the best order by set-up, or as they were written down; what is still missing of every action.
import { useState } from "react";

import type { Plan } from "../api/client";
import { useTable } from "../table/useTable";
import { count } from "../units/text";
import { lasting } from "../units/time";
import { Button } from "../ui/button";
import { Section, SHEET } from "../ui/Section";
import { Table } from "../ui/Table";
import { missingWords, statesOf, type Run, type SessionTold, type ShotState } from "./log";
import { ShotForm } from "./ShotForm";
import {
  asPurpose,
  inOrder,
  KINDS,
  MOST_SHOTS,
  moved,
  newId,
  newShot,
  SIZES,
  withoutShot,
  withShot,
  type Shot,
} from "./shots";

interface Props {
  plan: Plan;
  run: Run;
  session: SessionTold | undefined;
  onTick: (shot: string, done: boolean) => void;
}

interface Editing {
  id: string;
  shot: Shot;
  isNew: boolean;
}

export function ShotsPart({ plan, run, session, onTick }: Props) {
  const table = useTable();
  const [isTyped, setTyped] = useState(false);
  const [editing, setEditing] = useState<Editing | null>(null);
  const states = statesOf(run, session);
  const order = isTyped ? run.typed : run.best;
  const rows = order.shots.flatMap((id) => states.find((state) => state.shot.id === id) ?? []);
  const act = (change: (plan: Plan) => Plan) => table.act(change);
  const saves = run.typed.change_s - run.best.change_s;
  const add = (action: string, size: Shot["size"]) =>
    setEditing({ id: newId(run), shot: newShot(action, size), isNew: true });
  return (
    <div className="grid gap-5">
      <Section
        first
        title="Shots wanted"
        aside={
          <>
            <div role="group" aria-label="Order" className="flex gap-1.5">
              <Button size="small" aria-pressed={!isTyped} onClick={() => setTyped(false)}>
                Best order
              </Button>
              <Button size="small" aria-pressed={isTyped} onClick={() => setTyped(true)}>
                As typed
              </Button>
            </div>
            <Button size="small" disabled={run.shots.length >= MOST_SHOTS} onClick={() => add("", "medium")}>
              Add a shot
            </Button>
          </>
        }
      >
        <p className="text-sm">{run.sentence}</p>
        <p className="text-sm font-semibold" role="status">
          {session ? missingWords(states) || "Nothing is missing: every shot is done." : ""}
        </p>
        <ol className={`${SHEET} divide-line mt-1 divide-y overflow-hidden`}>
          {rows.map((state, index) => (
            <ShotRow
              key={state.shot.id}
              state={state}
              head={!isTyped && rows[index - 1]?.shot.group !== state.shot.group}
              typed={
                isTyped
                  ? {
                      isFirst: index === 0,
                      isLast: index === rows.length - 1,
                      onMove: (by) => act((p) => moved(p, run, state.shot.id, by)),
                    }
                  : null
              }
              canTick={session !== undefined}
              onTick={(done) => onTick(state.shot.id, done)}
              onEdit={() => setEditing({ id: state.shot.id, shot: state.shot.shot, isNew: false })}
            />
          ))}
        </ol>
        <p className="text-faint mt-1.5 flex flex-wrap items-center gap-2 text-xs">
          <span>
            {count(order.changes, "change", "changes")} of set-up, {lasting(order.change_s)}.{" "}
            {run.is_least ? "No order takes less." : "None was found that takes less."}
          </span>
          {saves >= 1 && (
            <Button size="small" onClick={() => act((p) => inOrder(p, run, run.best.shots))}>
              Write them down in the best order
            </Button>
          )}
          {run.from_purpose ? (
            <span>These come from what the corner is for; change one and they are yours.</span>
          ) : (
            <Button size="small" look="quiet" onClick={() => act(asPurpose)}>
              Back to those of the purpose
            </Button>
          )}
        </p>
      </Section>
      <Actions run={run} states={states} onAdd={add} />
      {editing && (
        <ShotForm
          shot={editing.shot}
          plan={plan}
          isNew={editing.isNew}
          onClose={() => setEditing(null)}
          onSave={(shot) => {
            act((p) => withShot(p, run, editing.id, shot));
            setEditing(null);
          }}
          onDelete={() => {
            act((p) => withoutShot(p, run, editing.id));
            setEditing(null);
          }}
        />
      )}
    </div>
  );
}

interface RowProps {
  state: ShotState;
  /** The first of its set-up. */
  head: boolean;
  typed: { isFirst: boolean; isLast: boolean; onMove: (by: -1 | 1) => void } | null;
  canTick: boolean;
  onTick: (done: boolean) => void;
  onEdit: () => void;
}

const kindOf = (kind: Shot["kind"]) => KINDS.find(([key]) => key === kind)?.[1] ?? kind;

function ShotRow({ state, head, typed, canTick, onTick, onEdit }: RowProps) {
  const { shot, takes, kept, isDone } = state;
  const { shot: wanted } = shot;
  const details = [
    `${kindOf(wanted.kind)}, ${wanted.size}`,
    `${count(wanted.takes, "take")} of ${lasting(wanted.seconds)}`,
    shot.plays_s != null ? `plays ${lasting(shot.plays_s)}` : "",
    (wanted.stillness_s ?? 0) > 0 ? `still ${String(wanted.stillness_s)} s at both ends` : "",
    takes > 0 ? `${count(takes, "take")} done, ${String(kept)} kept` : "",
  ].filter(Boolean);
  return (
    <li>
      {head && (
        <p className="bg-desk text-faint px-3 py-1 text-xs font-semibold">
          Set-up {shot.group}: {shot.set_up}
        </p>
      )}
      <div className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-1.5">
        {canTick && (
          <input
            type="checkbox"
            className="accent-ember h-6 w-6 shrink-0"
            aria-label={`${wanted.what}: done`}
            checked={isDone}
            onChange={(event) => onTick(event.target.checked)}
          />
        )}
        <div className="min-w-48 flex-1">
          <p className={`font-semibold ${isDone ? "text-faint line-through" : ""}`}>{wanted.what}</p>
          <p className="text-faint text-sm">{details.join(" · ")}</p>
          {wanted.note && <p className="text-sm">{wanted.note}</p>}
        </div>
        {typed && (
          <span className="flex gap-1">
            <Button
              size="small"
              disabled={typed.isFirst}
              aria-label={`${wanted.what}: up`}
              onClick={() => typed.onMove(-1)}
            >
              ↑
            </Button>
            <Button
              size="small"
              disabled={typed.isLast}
              aria-label={`${wanted.what}: down`}
              onClick={() => typed.onMove(1)}
            >
              ↓
            </Button>
          </span>
        )}
        <Button size="small" aria-label={`Change: ${wanted.what}`} onClick={onEdit}>
          Change
        </Button>
      </div>
    </li>
  );
}

interface ActionsProps {
  run: Run;
  states: ShotState[];
  onAdd: (action: string, size: Shot["size"]) => void;
}

/** Wide, medium and close of every action. */
function Actions({ run, states, onAdd }: ActionsProps) {
  if (run.actions.length === 0) return null;
  const stateOf = (id: string) => states.find((state) => state.shot.id === id);
  return (
    <Section first title="Every action, wide, medium and close">
      <Table label="Actions by size">
        <thead>
          <tr>
            <th scope="col">Action</th>
            {SIZES.map(([size, words]) => (
              <th key={size} scope="col">
                {words}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {run.actions.map((row) => (
            <tr key={row.action}>
              <th scope="row">{row.action}</th>
              {SIZES.map(([size, words]) => (
                <td key={size}>
                  {row[size].length === 0 ? (
                    <Button
                      size="small"
                      look="quiet"
                      aria-label={`Add ${row.action}, ${words.toLowerCase()}`}
                      onClick={() => onAdd(row.action, size)}
                    >
                      +&nbsp;add
                    </Button>
                  ) : (
                    row[size].map((id) => {
                      const state = stateOf(id);
                      return (
                        <span key={id} className="block">
                          {state?.isDone ? "✓" : "○"} {state?.shot.shot.what ?? id}
                        </span>
                      );
                    })
                  )}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </Table>
    </Section>
  );
}
