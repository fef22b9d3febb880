// One shot that is wanted, with everything that can be told of it.
import { useState } from "react";

import type { Plan } from "../api/client";
import { spoken } from "../units/text";
import { NumberBox, OptionalBox } from "../ui/boxes";
import { Button } from "../ui/button";
import { Show } from "../ui/dialog";
import { Choice, TextField } from "../ui/fields";
import { KINDS, SIZES, type Shot } from "./shots";

interface Props {
  shot: Shot;
  plan: Plan;
  isNew: boolean;
  onSave: (shot: Shot) => void;
  onDelete: () => void;
  onClose: () => void;
}

export function ShotForm({ shot, plan, isNew, onSave, onDelete, onClose }: Props) {
  const [told, setTold] = useState(shot);
  const set = (change: Partial<Shot>) => setTold((before) => ({ ...before, ...change }));
  const angles = Object.keys(plan.layout.angles ?? {});
  const isSlow = told.kind === "slow-insert";
  return (
    <Show open onOpenChange={(open) => !open && onClose()} title={isNew ? "A new shot" : "Change the shot"}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          onSave({ ...told, what: told.what.trim() === "" ? "Shot" : told.what.trim() });
        }}
      >
        <TextField
          label="What is seen"
          value={told.what}
          maxLength={120}
          required
          onText={(what) => set({ what })}
        />
        <div className="grid gap-3 sm:grid-cols-3">
          <Choice
            label="Kind"
            options={KINDS}
            value={told.kind}
            onPick={(kind) => set({ kind: kind as Shot["kind"] })}
          />
          <Choice
            label="Size"
            options={SIZES}
            value={told.size}
            onPick={(size) => set({ size: size as Shot["size"] })}
          />
          <Choice
            label="From"
            options={[["", "the camera"], ...angles.map((id) => [id, spoken(id)] as const)]}
            value={told.angle ?? ""}
            onPick={(angle) => set({ angle: angle === "" ? null : angle })}
          />
        </div>
        <div className="grid gap-3 sm:grid-cols-4">
          <NumberBox
            label="Length"
            unit="s"
            within={[1, 7200]}
            value={told.seconds}
            onCommit={(seconds) => set({ seconds })}
          />
          <NumberBox
            label="Takes"
            within={[1, 50]}
            digits={0}
            value={told.takes}
            onCommit={(takes) => set({ takes: Math.round(takes) })}
          />
          <NumberBox
            label="Stillness at both ends"
            unit="s"
            within={[0, 10]}
            value={told.stillness_s ?? 0}
            onCommit={(stillness_s) => set({ stillness_s })}
          />
          <OptionalBox
            label="Playing speed"
            unit="×"
            without={isSlow ? "0.5" : "1"}
            digits={2}
            step={0.1}
            within={[0.02, 1]}
            value={told.speed ?? null}
            onCommit={(speed) => set({ speed })}
          />
        </div>
        <div className="grid gap-3 sm:grid-cols-3">
          <TextField
            label="Action"
            help="Each is looked for wide, medium and close."
            value={told.action ?? ""}
            maxLength={80}
            onText={(action) => set({ action })}
          />
          <TextField
            label="Backdrop"
            help="Empty: as planned."
            value={told.backdrop ?? ""}
            maxLength={60}
            onText={(backdrop) => set({ backdrop })}
          />
          <TextField
            label="Light"
            help="Empty: as planned."
            value={told.light ?? ""}
            maxLength={60}
            onText={(light) => set({ light })}
          />
        </div>
        <TextField label="Note" value={told.note ?? ""} maxLength={200} onText={(note) => set({ note })} />
        <div className="flex flex-wrap justify-end gap-2">
          {!isNew && (
            <Button className="mr-auto" look="quiet" onClick={onDelete}>
              Delete this shot
            </Button>
          )}
          <Button onClick={onClose}>Leave it</Button>
          <Button look="act" type="submit">
            Keep it
          </Button>
        </div>
      </form>
    </Show>
  );
}
