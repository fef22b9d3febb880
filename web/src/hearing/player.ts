// Two recordings played as one: both run together from the same moment, only one is heard, and switching fades across in
// a hundredth of a second, so that nothing is missed between them.

export interface Take {
  buffer: AudioBuffer;
  /** Turned up by so much to its loudness, dB. */
  gainDb: number;
  loudnessLufs: number;
}

export type Side = "a" | "b";
export type Levels = "matched" | "recorded";

const FADE_S = 0.01;
/** Between the press and the first sound: as short as the device allows. */
const SOON_S = 0.01;

const factor = (db: number) => 10 ** (db / 20);

/** Gains that make takes equally loud, or leave them as loud against each other as they were recorded; none above 0 dB. */
export function gainsDb(takes: readonly Take[], levels: Levels): number[] {
  const wanted = takes.map((take) => (levels === "matched" ? -take.loudnessLufs : -take.gainDb));
  const most = Math.max(...wanted);
  return wanted.map((gain) => gain - most);
}

interface Voice {
  source: AudioBufferSourceNode;
  gain: GainNode;
}

export class Player {
  private context: AudioContext | null = null;
  private voices: Voice[] = [];
  private takes: Take[] = [];
  private levels: Levels = "matched";
  private heard: Side = "a";

  /** Rises with every press: what was asked for before it says nothing any more. */
  private turn = 0;

  constructor(private readonly onEnd: () => void) {}

  /** The context that decodes and plays; made on the first press, as browsers ask. */
  audio(): AudioContext {
    this.context ??= new AudioContext({ latencyHint: "interactive" });
    return this.context;
  }

  private get playing(): boolean {
    return this.voices.length > 0;
  }

  /** Starts both takes together, once they are decoded; whether they play. A press that follows, or leaving, calls it off. */
  async play(load: () => Promise<Take[]>, side: Side, levels: Levels): Promise<boolean> {
    this.stop();
    const turn = this.turn;
    const takes = await load();
    if (turn !== this.turn || takes.length === 0) return false;
    const audio = this.audio();
    if (audio.state === "suspended") await audio.resume();
    if (turn !== this.turn) return false;
    this.takes = takes;
    this.heard = side;
    this.levels = levels;
    const at = audio.currentTime + SOON_S;
    this.voices = takes.map((take) => {
      const source = audio.createBufferSource();
      source.buffer = take.buffer;
      const gain = audio.createGain();
      gain.gain.value = 0;
      source.connect(gain).connect(audio.destination);
      source.start(at);
      return { source, gain };
    });
    this.set(0);
    const last = this.voices[this.longest()];
    if (last)
      last.source.onended = () => {
        if (this.voices.includes(last)) {
          this.voices = [];
          this.onEnd();
        }
      };
    return true;
  }

  private longest(): number {
    const lengths = this.takes.map((take) => take.buffer.duration);
    return lengths.indexOf(Math.max(...lengths));
  }

  /** Lets the other take be heard. */
  hear(side: Side): void {
    this.heard = side;
    this.set(FADE_S);
  }

  level(levels: Levels): void {
    this.levels = levels;
    this.set(FADE_S);
  }

  private set(fadeS: number): void {
    const audio = this.context;
    if (!audio) return;
    const gains = gainsDb(this.takes, this.levels);
    const wanted = this.heard === "a" ? 0 : 1;
    this.voices.forEach(({ gain }, index) => {
      const to = index === Math.min(wanted, this.voices.length - 1) ? factor(gains[index] ?? 0) : 0;
      const now = audio.currentTime;
      gain.gain.cancelScheduledValues(now);
      gain.gain.setValueAtTime(gain.gain.value, now);
      gain.gain.linearRampToValueAtTime(to, now + Math.max(fadeS, 0.001));
    });
  }

  /** Stops, and says so. */
  end(): void {
    const playing = this.playing;
    this.stop();
    if (playing) this.onEnd();
  }

  private stop(): void {
    this.turn += 1;
    const old = this.voices;
    this.voices = [];
    for (const { source } of old) {
      source.onended = null;
      source.stop();
      source.disconnect();
    }
  }

  close(): void {
    this.stop();
    void this.context?.close();
    this.context = null;
  }
}
