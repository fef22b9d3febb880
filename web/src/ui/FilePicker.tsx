// A button that asks for a file.
import { useRef } from "react";

import { Button } from "./button";

interface Props extends Omit<React.ComponentProps<typeof Button>, "onClick"> {
  /** What the file is. */
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
        // The button beside it is what is heard and pressed.
        hidden
        aria-label={what}
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
