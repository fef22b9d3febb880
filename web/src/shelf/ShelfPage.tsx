// The shelf of a corner: what is owned or at hand, and having everything placed anew after it has changed.
import { api, type Plan } from "../api/client";
import { useTable } from "../table/useTable";
import { Button } from "../ui/button";
import { inUse, type Shelf } from "./gear";
import { GearEditor } from "./GearEditor";
import { ShelfTable } from "./ShelfTable";

export function ShelfPage({ plan }: { plan: Plan }) {
  const table = useTable();
  const onGear = (change: (shelf: Shelf) => Shelf) =>
    table.act((p) => ({ ...p, brief: { ...p.brief, gear: change(p.brief.gear ?? {}) } }));
  return (
    <>
      <div className="mb-4 flex flex-wrap items-end gap-3">
        <p className="mr-auto max-w-xl">
          Fogon lays out with what stands here. After a change, have everything placed anew around seat and
          camera, or look at the layouts found.
        </p>
        <ShelfTable plan={plan} onRead={(more) => onGear((shelf) => ({ ...shelf, ...more }))} />
        <Button onClick={() => table.act((p) => api.place(p))}>Place everything anew</Button>
      </div>
      <GearEditor
        gear={plan.brief.gear ?? {}}
        units={plan.brief.units ?? "metric"}
        inUse={(id) => inUse(plan, id)}
        onChange={onGear}
      />
    </>
  );
}
