// A button that asks for a file.
import { useRef } from "react";

import { Button } from "./button";

interface Props extends Omit<React.ComponentProps<typeof Button>, "onClick"> {
  /** What the file is, spoken. */
  what: string;
  /** Endings and types that are offered. */
  accept: string;
  onFile: (file: File) => void;
}

export function FilePicker({ what, accept, onFile, ...rest }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        className="sr-only"
        aria-label={what}
        tabIndex={-1}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onFile(file);
          event.target.value = "";
        }}
      />
      <Button {...rest} onClick={() => input.current?.click()} />
    </>
  );
}
