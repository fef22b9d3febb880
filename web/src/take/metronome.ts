// A click to play to: beats are laid a little ahead on the sound device's own clock, so that they never stumble.

/** So far ahead beats are laid, s, and so often it is looked, ms. */
const AHEAD_S = 0.2;
const EVERY_MS = 60;
/** A click lasts so long, s; the first of a bar is higher. */
const CLICK_S = 0.03;
const HIGH_HZ = 1600;
const LOW_HZ = 1000;
const LEVEL = 0.35;

export const TEMPO = [30, 240] as const;

export interface Meter {
  /** Beats a minute. */
  tempo: number;
  /** Beats of a bar. */
  beats: number;
  /** Bars that are counted in. */
  countIn: number;
}

export interface Beat {
  /** From 0. */
  index: number;
  /** When it sounds, s after the first. */
  at_s: number;
  /** From 1. */
  ofBar: number;
  isCountIn: boolean;
}

/** One beat of a meter. */
export function beatAt(index: number, { tempo, beats, countIn }: Meter): Beat {
  return {
    index,
    at_s: (index * 60) / tempo,
    ofBar: (index % beats) + 1,
    isCountIn: index < beats * countIn,
  };
}

export class Metronome {
  #context: AudioContext | null = null;
  #timer: number | null = null;
  #shown: number[] = [];

  constructor(private readonly onBeat: (beat: Beat | null) => void) {}

  start(meter: Meter): void {
    this.stop();
    const context = new AudioContext({ latencyHint: "interactive" });
    this.#context = context;
    const begin_s = context.currentTime + 0.1;
    let next = 0;
    const lay = () => {
      for (;;) {
        const beat = beatAt(next, meter);
        const at_s = begin_s + beat.at_s;
        if (at_s > context.currentTime + AHEAD_S) return;
        this.#click(context, at_s, beat.ofBar === 1);
        const wait_ms = Math.max(0, (at_s - context.currentTime) * 1000);
        this.#shown.push(window.setTimeout(() => this.onBeat(beat), wait_ms));
        if (this.#shown.length > 16) this.#shown.shift();
        next += 1;
      }
    };
    lay();
    this.#timer = window.setInterval(lay, EVERY_MS);
  }

  stop(): void {
    if (this.#timer !== null) window.clearInterval(this.#timer);
    for (const shown of this.#shown) window.clearTimeout(shown);
    this.#shown = [];
    this.#timer = null;
    void this.#context?.close();
    this.#context = null;
    this.onBeat(null);
  }

  #click(context: AudioContext, at_s: number, isFirst: boolean): void {
    const [tone, gain] = [context.createOscillator(), context.createGain()];
    tone.frequency.value = isFirst ? HIGH_HZ : LOW_HZ;
    gain.gain.setValueAtTime(0, at_s);
    gain.gain.linearRampToValueAtTime(LEVEL, at_s + 0.001);
    gain.gain.exponentialRampToValueAtTime(0.001, at_s + CLICK_S);
    tone.connect(gain).connect(context.destination);
    tone.start(at_s);
    tone.stop(at_s + CLICK_S);
  }
}
