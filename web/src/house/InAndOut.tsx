// Everything as one archive, out and in again: what taking one in would do is told first.
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";

import { api, type Schemas, type Taking } from "../api/client";
import { Button, FileLink } from "../ui/button";
import { Tick } from "../ui/fields";
import { FilePicker } from "../ui/FilePicker";
import { Section, SHEET } from "../ui/Section";
import { Trouble, Waiting } from "../ui/states";
import { count } from "../units/text";

type Outcome = Schemas["Outcome"];

const BECOMES: Record<Schemas["Becomes"], string> = {
  new: "is new here: it comes with all its saves",
  changed: "is here and differs: as it stands in the archive becomes its next save, which you can undo",
  back: "is in the bin here: it comes back",
  same: "is here and the same",
  binned: "is not in the archive: it goes into the bin",
};

export function InAndOut() {
  const queries = useQueryClient();
  const [file, setFile] = useState<File | null>(null);
  const [replaces, setReplaces] = useState(false);
  const taking: Taking = replaces ? "replace" : "merge";
  const would = useMutation({
    mutationFn: (asked: { file: File; taking: Taking }) => api.wouldTake(asked.file, asked.taking),
  });
  const take = useMutation({
    mutationFn: (asked: { file: File; taking: Taking }) => api.take(asked.file, asked.taking),
    onSuccess: () => queries.invalidateQueries(),
  });
  const look = (next: File, replace: boolean) => {
    setFile(next);
    setReplaces(replace);
    take.reset();
    would.mutate({ file: next, taking: replace ? "replace" : "merge" });
  };
  return (
    <Section first title="Out and in" className={`${SHEET} p-4`}>
      <p className="mb-2 text-sm">
        An archive holds every corner with all its saves, and your own voice, as files that other programs can
        read.
      </p>
      <div className="flex flex-wrap gap-2">
        <FileLink size="small" href="/api/v1/archive" download>
          Save everything
        </FileLink>
        <FilePicker
          size="small"
          what="Archive"
          accept=".zip,application/zip"
          onFile={(picked) => look(picked, replaces)}
        >
          Take an archive in
        </FilePicker>
      </div>
      {would.isPending && <Waiting what="Reading the archive" />}
      {would.isError && (
        <div className="mt-3">
          <Trouble error={would.error} />
        </div>
      )}
      {file && would.data && !take.data && (
        <div className="mt-3">
          <p className="font-semibold">What taking in {file.name} would do</p>
          <Outcomes all={would.data} />
          <Tick
            label="Put corners that it does not hold into the bin"
            checked={replaces}
            onTick={(on) => look(file, on)}
          />
          <div className="mt-1 flex flex-wrap gap-2">
            <Button look="act" disabled={take.isPending} onClick={() => take.mutate({ file, taking })}>
              Take it in
            </Button>
            <Button
              onClick={() => {
                setFile(null);
                would.reset();
              }}
            >
              Cancel
            </Button>
          </div>
        </div>
      )}
      {take.isError && <Trouble error={take.error} />}
      {take.data && (
        <div className="mt-3" role="status">
          <p className="font-semibold">Done: {count(take.data.length, "corner", "corners")}.</p>
          <Outcomes all={take.data} />
        </div>
      )}
    </Section>
  );
}

function Outcomes({ all }: { all: readonly Outcome[] }) {
  return (
    <ul className="my-1 max-h-60 list-disc overflow-auto pl-5 text-sm">
      {all.length === 0 && <li>It holds no corner.</li>}
      {all.map((one, index) => (
        <li key={index}>
          <span className="font-semibold">{one.name}</span> {BECOMES[one.becomes]}.
        </li>
      ))}
    </ul>
  );
}
