// What was measured, kept in the logbook.
import { useState } from "react";

import type { Schemas } from "../api/client";
import { Button } from "../ui/button";

/** Keeps what was measured in the logbook. */
export type Keep = (what: { kind: "measured" } & Schemas["TestLogged"]) => void;

/** Keeps the figures of a test; the file itself is not kept. */
export function Kept({ keep, of }: { keep: Keep; of: Omit<Parameters<Keep>[0], "kind"> }) {
  const [kept, setKept] = useState<string | null>(null);
  const name = JSON.stringify(of);
  if (kept === name) return <span className="text-sm font-semibold">✓ In the logbook</span>;
  return (
    <Button
      size="small"
      onClick={() => {
        keep({ kind: "measured", ...of });
        setKept(name);
      }}
    >
      Keep it in the logbook
    </Button>
  );
}
