// Sockets of the mains: where they are, how many plugs they take, which breaker is behind them.
import type { Plan, Schemas } from "../api/client";
import { reachOf } from "../table/floor";
import { useTable } from "../table/useTable";
import { LengthBox, OptionalBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { TextField } from "../ui/fields";
import { Section, SHEET } from "../ui/Section";
import { freeId } from "../units/ids";
import type { UnitSystem } from "../units/length";
import { spoken } from "../units/text";

type Socket = Schemas["Socket"];

const PLACES = ["From the left wall", "From the back wall", "Height"];
/** As many as a page shows well. */
const MOST = 16;

/** A plan with a socket changed, added or (with null) taken away. */
export function withSocket(plan: Plan, id: string, change: Partial<Socket> | null): Plan {
  const sockets = { ...plan.brief.room.sockets };
  if (change === null) Reflect.deleteProperty(sockets, id);
  else {
    const told = Object.entries({ position_m: [0, 0.5, 0.3], ...sockets[id], ...change });
    sockets[id] = Object.fromEntries(
      told.filter(([, value]) => value != null && value !== ""),
    ) as unknown as Socket;
  }
  return { ...plan, brief: { ...plan.brief, room: { ...plan.brief.room, sockets } } };
}

export function Sockets({ plan, units }: { plan: Plan; units: UnitSystem }) {
  const table = useTable();
  const told = Object.entries(plan.brief.room.sockets ?? {});
  const set = (id: string, change: Partial<Socket> | null) => table.edit((p) => withSocket(p, id, change));
  const pick = (id: string, change: Partial<Socket> | null) => table.act((p) => withSocket(p, id, change));
  const most = reachOf(plan.brief.room);
  return (
    <Section title="Sockets">
      <p className="text-faint mb-2 text-xs">
        With them the card says which plug goes where, how long its cable must be, and where it crosses your
        way.
      </p>
      <ul className="grid gap-3">
        {told.map(([id, socket]) => (
          <li key={id} className={`${SHEET} p-3`} aria-label={`Socket ${spoken(id)}`}>
            <div className="mb-1 flex items-center gap-3">
              <p className="mr-auto text-sm font-semibold">Socket {spoken(id)}</p>
              <Button size="small" aria-label={`Remove socket ${spoken(id)}`} onClick={() => pick(id, null)}>
                Remove
              </Button>
            </div>
            <div className="grid grid-cols-2 items-end gap-x-3 gap-y-2 sm:grid-cols-3">
              {socket.position_m.map((metres, axis) => (
                <LengthBox
                  key={PLACES[axis]}
                  label={PLACES[axis] ?? ""}
                  value={metres}
                  units={units}
                  within={[0, most[axis] ?? 50]}
                  onCommit={(value) => set(id, { position_m: socket.position_m.with(axis, value) })}
                />
              ))}
              <OptionalBox
                label="Places for plugs"
                value={socket.outlets ?? null}
                without="2"
                within={[1, 12]}
                digits={0}
                step={1}
                onCommit={(outlets) => set(id, { outlets: outlets === null ? null : Math.round(outlets) })}
              />
              <TextField
                label="Breaker, by a name of yours"
                defaultValue={socket.circuit ?? ""}
                maxLength={40}
                onBlur={(event) => {
                  const circuit = event.target.value.trim();
                  if (circuit !== (socket.circuit ?? ""))
                    pick(id, { circuit: circuit === "" ? null : circuit });
                }}
              />
            </div>
          </li>
        ))}
      </ul>
      {told.length < MOST && (
        <div className="mt-2">
          <Button
            size="small"
            onClick={() =>
              pick(
                freeId(
                  "socket",
                  told.map(([id]) => id),
                ),
                {},
              )
            }
          >
            Add a socket
          </Button>
        </div>
      )}
    </Section>
  );
}
