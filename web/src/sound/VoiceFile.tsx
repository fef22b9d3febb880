// The user's own dry voice in place of the one that ships: it stays on this machine, in the same file as the corners.
import { useState } from "react";

import { api, type Schemas } from "../api/client";
import { Button } from "../ui/button";
import { Tick } from "../ui/fields";
import { FilePicker } from "../ui/FilePicker";
import { Trouble } from "../ui/states";
import { fixed } from "../units/length";

interface Props {
  kept: Schemas["OwnVoice"] | null;
  own: boolean;
  onUse: (own: boolean) => void;
  onChange: () => void;
}

export function VoiceFile({ kept, own, onUse, onChange }: Props) {
  const [trouble, setTrouble] = useState<unknown>(null);
  const [busy, setBusy] = useState(false);
  const has = kept?.seconds != null;
  const send = async (work: () => Promise<unknown>, use: boolean) => {
    setBusy(true);
    setTrouble(null);
    try {
      await work();
      onUse(use);
      onChange();
    } catch (error) {
      setTrouble(error);
    } finally {
      setBusy(false);
    }
  };
  return (
    <details>
      <summary className="min-h-6 cursor-pointer text-sm">
        {own ? "Your own voice is used" : "A sample voice is used. Use your own"}
      </summary>
      <p className="text-sm">
        Record yourself close, one or two hand widths from the microphone, in the quietest, softest place you
        have: an open wardrobe, between coats. WAV or FLAC, 1 to 60 s. It stays on this machine.
      </p>
      {trouble !== null && <Trouble error={trouble} onRetry={() => setTrouble(null)} retryWords="Close" />}
      <div className="mt-1 flex flex-wrap items-center gap-2">
        <FilePicker
          size="small"
          what="A recording of your voice"
          accept=".wav,.flac,audio/wav,audio/flac"
          disabled={busy}
          onFile={(file) => void send(() => api.keepVoice(file), true)}
        >
          {busy ? "Reading it …" : has ? "Choose another file" : "Choose a file"}
        </FilePicker>
        {has && (
          <>
            <Tick label={`Use my voice, ${fixed(kept.seconds ?? 0, 1)} s`} checked={own} onTick={onUse} />
            <Button size="small" onClick={() => void send(api.forgetVoice, false)}>
              Delete my recording
            </Button>
          </>
        )}
      </div>
    </details>
  );
}
