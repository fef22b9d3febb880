// Another name for a corner, or a name for a save.
import { useState } from "react";

import { Button } from "./button";
import { Show } from "./dialog";
import { TextField } from "./fields";

interface Props {
  /** What is named. */
  what?: string;
  help?: string;
  open: boolean;
  name: string;
  onClose: () => void;
  onName: (name: string) => void;
}

const LONGEST = 120;

export function Rename({ what = "this corner", help, open, name, onClose, onName }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const clean = (typed ?? name).trim().slice(0, LONGEST);
  const close = () => {
    setTyped(null);
    onClose();
  };
  return (
    <Show
      title={name === "" ? `Name ${what}` : `Rename ${what}`}
      open={open}
      onOpenChange={(now) => !now && close()}
    >
      <form
        onSubmit={(event) => {
          event.preventDefault();
          if (clean === "") return;
          if (clean !== name) onName(clean);
          close();
        }}
      >
        <TextField
          label={`Name of ${what}`}
          help={help}
          value={typed ?? name}
          maxLength={LONGEST}
          onText={setTyped}
        />
        <div className="mt-4 flex gap-2">
          <Button type="submit" look="act" disabled={clean === ""}>
            {name === "" ? "Name it" : "Rename"}
          </Button>
          <Button onClick={close}>Cancel</Button>
        </div>
      </form>
    </Show>
  );
}
