// The shelf as a table of text: saved as a file, and read from one, refused line by line.
import { useState } from "react";

import { api, type Plan } from "../api/client";
import { Button } from "../ui/button";
import { handOut, stemOf } from "../ui/download";
import { FilePicker } from "../ui/FilePicker";
import { Trouble } from "../ui/states";
import type { Shelf } from "./gear";

interface Props {
  plan: Plan;
  onRead: (more: Shelf) => void;
}

export function ShelfTable({ plan, onRead }: Props) {
  const [trouble, setTrouble] = useState<unknown>(null);
  const save = async () => {
    const text = await api.shelfTable(plan.brief);
    handOut(new Blob([text], { type: "text/csv" }), `${stemOf(plan.name)}-shelf.csv`);
  };
  const read = async (file: File) => {
    setTrouble(null);
    try {
      onRead((await api.readShelf(file)).gear);
    } catch (error) {
      setTrouble(error);
    }
  };
  return (
    <>
      <FilePicker what="Read a table" accept=".csv,text/csv" onFile={(file) => void read(file)}>
        Read a table
      </FilePicker>
      <Button onClick={() => void save()}>Save as a table</Button>
      {trouble !== null && <Trouble error={trouble} />}
    </>
  );
}
