// The user's own dry voice in place of the one that ships: kept on this machine, in the same file as the corners.
import { useId, useState } from "react";

import { api, type Schemas } from "../api/client";
import { Trouble } from "../ui/states";
import { fixed } from "../units/length";

interface Props {
  kept: Schemas["OwnVoice"] | null;
  own: boolean;
  onUse: (own: boolean) => void;
  onChange: () => void;
}

export function VoiceFile({ kept, own, onUse, onChange }: Props) {
  const id = useId();
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
    <details className="voice-file">
      <summary>{own ? "Your own voice is heard" : "A made-up voice is heard: use your own"}</summary>
      <p className="text-sm">
        Record yourself close, one or two hand widths from the microphone, in the softest place you have: an
        open wardrobe, between coats. WAV or FLAC, 1 to 60 s. It stays on this machine.
      </p>
      {trouble !== null && <Trouble error={trouble} onRetry={() => setTrouble(null)} retryWords="Close" />}
      <div className="flex flex-wrap items-center gap-2">
        <label htmlFor={id} className={`button button-small ${busy ? "opacity-60" : ""}`}>
          {busy ? "Reading it" : has ? "Another file" : "Choose a file"}
        </label>
        <input
          id={id}
          type="file"
          accept=".wav,.flac,audio/wav,audio/flac"
          className="sr-only"
          disabled={busy}
          onChange={(event) => {
            const file = event.target.files?.[0];
            event.target.value = "";
            if (file) void send(() => api.keepVoice(file), true);
          }}
        />
        {has && (
          <>
            <label className="flex items-center gap-2 text-sm">
              <input type="checkbox" checked={own} onChange={(event) => onUse(event.target.checked)} />
              Hear my voice, {fixed(kept.seconds ?? 0, 1)} s
            </label>
            <button
              type="button"
              className="button button-small"
              onClick={() => void send(api.forgetVoice, false)}
            >
              Forget it
            </button>
          </>
        )}
      </div>
    </details>
  );
}
