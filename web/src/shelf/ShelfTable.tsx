// The shelf as a table of text: saved as a file, and read from one, refused line by line.
import { useId, useState } from "react";

import { api, type Plan } from "../api/client";
import { Button, button } from "../ui/button";
import { handOut, stemOf } from "../ui/download";
import { Trouble } from "../ui/states";
import type { Shelf } from "./gear";

interface Props {
  plan: Plan;
  onRead: (more: Shelf) => void;
}

export function ShelfTable({ plan, onRead }: Props) {
  const id = useId();
  const [trouble, setTrouble] = useState<unknown>(null);
  const save = async () => {
    const text = await api.shelfTable(plan.brief);
    handOut(new Blob([text], { type: "text/csv" }), `${stemOf(plan.name)}-shelf.csv`);
  };
  const read = async (file: File | undefined) => {
    if (!file) return;
    setTrouble(null);
    try {
      onRead((await api.readShelf(file)).gear);
    } catch (error) {
      setTrouble(error);
    }
  };
  return (
    <>
      <label htmlFor={id} className={button({ size: "small" })}>
        Read a table
        <input
          id={id}
          type="file"
          accept=".csv,text/csv"
          className="sr-only"
          onChange={(event) => {
            void read(event.target.files?.[0]);
            event.target.value = "";
          }}
        />
      </label>
      <Button size="small" onClick={() => void save()}>
        Save as a table
      </Button>
      {trouble !== null && <Trouble error={trouble} />}
    </>
  );
}
