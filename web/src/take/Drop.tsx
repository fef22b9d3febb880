// A place for a file: dropped on it, or picked.
import { useId, useState } from "react";

import { FilePicker } from "../ui/FilePicker";

interface Props {
  /** What is wanted, in a sentence. */
  words: string;
  button: string;
  accept: string;
  most_bytes: number;
  /** The file that is there. */
  file: File | null;
  onFile: (file: File) => void;
}

export function Drop({ words, button, accept, most_bytes, file, onFile }: Props) {
  const id = useId();
  const [over, setOver] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const take = (picked: File) => {
    const isLarge = picked.size > most_bytes;
    setRefused(
      isLarge
        ? `${picked.name} has ${(picked.size / 1e6).toFixed(0)} MB: give at most ${String(most_bytes / 1e6)} MB.`
        : null,
    );
    if (!isLarge) onFile(picked);
  };
  return (
    <div
      role="group"
      aria-labelledby={id}
      className={`flex flex-wrap items-center gap-x-3 gap-y-2 rounded-lg border-2 border-dashed px-3 py-3 ${over ? "border-ember bg-ember-soft" : "border-line bg-paper"}`}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        const dropped = event.dataTransfer.files[0];
        if (dropped) take(dropped);
      }}
    >
      <p id={id} className="min-w-40 flex-1 text-sm">
        {file ? <span className="font-semibold break-all">{file.name}</span> : words}
      </p>
      <FilePicker what={button} accept={accept} onFile={take}>
        {file ? "Another file" : button}
      </FilePicker>
      {refused && (
        <p role="alert" className="text-ember w-full text-sm font-semibold">
          ▲ {refused}
        </p>
      )}
    </div>
  );
}
