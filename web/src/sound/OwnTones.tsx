// What the room adds by itself: flutter between bare walls, single tones.
import type { Schemas } from "../api/client";
import { fixed } from "../units/length";
import { Section } from "../ui/Section";

export function OwnTones({ sound }: { sound: Schemas["SoundSeen"] }) {
  if (sound.modes_hz.length === 0 && sound.flutter.length === 0) return null;
  return (
    <Section title="Flutter and single tones">
      {sound.flutter.length > 0 && (
        <p>
          A clap flutters between {sound.flutter.join("; and between ")}. Hang something on one of each pair.
        </p>
      )}
      {sound.modes_words.map((words) => (
        <p key={words}>{words}</p>
      ))}
      {sound.modes_hz.length > 0 && (
        <p className="text-faint text-sm">
          Its lowest tones: {sound.modes_hz.map((hz) => fixed(hz, 0)).join(", ")} Hz.
        </p>
      )}
    </Section>
  );
}
