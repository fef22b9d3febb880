// Another name for a corner.
import { useState } from "react";

import { Button } from "./button";
import { Show } from "./dialog";
import { TextField } from "./fields";

interface Props {
  open: boolean;
  name: string;
  onClose: () => void;
  onName: (name: string) => void;
}

const LONGEST = 120;

export function Rename({ open, name, onClose, onName }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const clean = (typed ?? name).trim().slice(0, LONGEST);
  const close = () => {
    setTyped(null);
    onClose();
  };
  return (
    <Show title="Rename this corner" open={open} onOpenChange={(now) => !now && close()}>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (clean === "") return;
          if (clean !== name) onName(clean);
          close();
        }}
      >
        <TextField label="Name of this corner" value={typed ?? name} maxLength={LONGEST} onText={setTyped} />
        <div className="mt-4 flex gap-2">
          <Button type="submit" look="act" disabled={clean === ""}>
            Rename
          </Button>
          <Button onClick={close}>Cancel</Button>
        </div>
      </form>
    </Show>
  );
}
