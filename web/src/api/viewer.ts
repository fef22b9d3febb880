// The viewfinder's channel: the plan goes out whenever it changes, pictures come back, coarse at once, then ever finer. The next
// one is sent only once the last was drawn.
import ReconnectingSocket from "partysocket/ws";

import { Refused, type Plan, type Schemas } from "./client";

/** A time, in UTC, and a sky at which a plan is looked at, with nothing drawn before its windows. */
export interface Hour {
  utc: string;
  sky: "clear" | "overcast";
}

export type Overlay = "none" | "clipping" | "stops";

/** What a picture tells of its exposure. */
export interface Told {
  face_stops: number;
  clipped_percent: number;
  sides_stops: [number, number] | null;
  /** Places on the face: which, from the left, from the top, stops over the face. */
  spots: [number, number, number, number][];
}

export interface Frame {
  generation: number;
  width: number;
  height: number;
  samples: number;
  /** No finer one will come. */
  last: boolean;
  told: Told;
  /** Red, green, blue and opacity of each pixel. */
  pixels: Uint8ClampedArray<ArrayBuffer>;
}

/** What is at a place in the picture. */
export interface Looked {
  look: [number, number];
  thing: string | null;
  stops: number;
  over_face_stops: number;
  shown: [number, number, number];
  clips: boolean;
}

export interface View {
  frame: Frame | null;
  /** What was refused last. */
  trouble: Error | null;
  looked: Looked | null;
  /** Pictures came so late, one after the other, that a hand cannot be followed: the last took so long, ms. */
  slow_ms: number | null;
}

/** A picture later than this does not follow a hand, ms; so many in a row, and the machine is slow. */
const LATE_MS = 2000;
const LATE_IN_A_ROW = 3;

/** What is used of a socket. */
export interface PictureChannel {
  binaryType: string;
  send: (text: string) => void;
  close: () => void;
  onopen: ((event: never) => void) | null;
  onmessage: ((event: MessageEvent) => void) | null;
}

const HEAD = 5;

/** A picture as it comes: five numbers, what it tells, pixels. */
export function frameOf(bytes: ArrayBuffer): Frame {
  const numbers = new DataView(bytes);
  const number = (at: number) => numbers.getUint32(4 * at, true);
  const told = number(HEAD - 1);
  const text = new TextDecoder().decode(new Uint8Array(bytes, 4 * HEAD, told));
  const samples = number(3);
  return {
    generation: number(0),
    width: number(1),
    height: number(2),
    samples: samples & 0x7fffffff,
    last: samples >>> 31 === 1,
    told: JSON.parse(text) as Told,
    pixels: new Uint8ClampedArray(bytes, 4 * HEAD + told),
  };
}

function opened(): PictureChannel {
  const scheme = location.protocol === "https:" ? "wss" : "ws";
  return new ReconnectingSocket(`${scheme}://${location.host}/api/v1/view`, [], {
    maxReconnectionDelay: 5000,
  });
}

interface Asked {
  plan: Plan;
  width: number;
  overlay: Overlay;
  hour?: Hour | undefined;
}

export class Viewer {
  #channel: PictureChannel | null = null;
  #asked: Asked | null = null;
  #sent: Plan | null = null;
  #generation = 0;
  #view: View = { frame: null, trouble: null, looked: null, slow_ms: null };
  /** When each picture was asked for that has not come, by its generation. */
  readonly #askedAt = new Map<number, number>();
  #late = 0;
  readonly #now: () => number;
  readonly #listeners = new Set<() => void>();
  readonly #make: () => PictureChannel;

  constructor(make: () => PictureChannel = opened, now: () => number = () => performance.now()) {
    this.#make = make;
    this.#now = now;
  }

  readonly view = (): View => this.#view;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener);
    return () => this.#listeners.delete(listener);
  };

  /** Asks for a picture; an earlier one is given up. */
  show(asked: Asked): void {
    const before = this.#asked;
    if (
      before?.plan === asked.plan &&
      before.width === asked.width &&
      before.overlay === asked.overlay &&
      before.hour?.utc === asked.hour?.utc &&
      before.hour?.sky === asked.hour?.sky
    )
      return;
    this.#asked = asked;
    this.#generation += 1;
    if (this.#view.looked && before?.plan !== asked.plan) this.#show({ looked: null });
    if (!this.#channel) this.#open();
    else this.#ask();
  }

  /** The frame was drawn: the next may come. */
  drawn(frame: Frame): void {
    this.#channel?.send(JSON.stringify({ seen: frame.generation }));
  }

  /** Asks what is at a place, parts of the picture from its upper left; nothing puts the answer away. */
  look(at: [number, number] | null): void {
    if (at) this.#channel?.send(JSON.stringify({ look: at }));
    else this.#show({ looked: null });
  }

  /** Goes on although pictures come late. */
  wait(): void {
    this.#late = -Infinity;
    this.#show({ slow_ms: null });
  }

  /** Lets go of what the server holds for it; the picture stays, and another plan, or waking, takes it up again. */
  rest(): void {
    this.#channel?.close();
    this.#channel = null;
    this.#sent = null;
  }

  /** Takes up again what was shown before it rested. */
  wake(): void {
    if (this.#asked && !this.#channel) this.#open();
  }

  close(): void {
    this.rest();
    this.#asked = null;
  }

  #open(): void {
    const channel = this.#make();
    channel.binaryType = "arraybuffer";
    // Opened again by itself it knows nothing of what was sent before.
    channel.onopen = () => {
      this.#sent = null;
      this.#ask();
    };
    channel.onmessage = ({ data }) => this.#take(data as ArrayBuffer | string);
    this.#channel = channel;
  }

  #ask(): void {
    if (!this.#asked) return;
    const { plan, width, overlay, hour } = this.#asked;
    this.#askedAt.set(this.#generation, this.#now());
    const known = this.#sent === plan;
    this.#sent = plan;
    const told = {
      generation: this.#generation,
      width,
      overlay,
      ...(hour && { hour }),
      ...(known ? {} : { plan }),
    };
    this.#channel?.send(JSON.stringify(told));
  }

  #take(data: ArrayBuffer | string): void {
    if (typeof data !== "string") {
      const frame = frameOf(data);
      this.#show({ frame, trouble: null, slow_ms: this.#lateness(frame) });
      return;
    }
    const answer = JSON.parse(data) as Looked | Schemas["Details"];
    if ("look" in answer) this.#show({ looked: answer });
    else {
      this.#sent = null;
      this.#show({ trouble: new Refused(answer, answer.status) });
    }
  }

  /** How late a picture is, once several in a row were. */
  #lateness({ generation }: Frame): number | null {
    const asked = this.#askedAt.get(generation);
    if (asked === undefined) return this.#view.slow_ms;
    for (const one of this.#askedAt.keys()) if (one <= generation) this.#askedAt.delete(one);
    const ms = this.#now() - asked;
    this.#late = ms > LATE_MS ? this.#late + 1 : Math.min(this.#late, 0);
    return this.#late >= LATE_IN_A_ROW ? ms : null;
  }

  #show(change: Partial<View>): void {
    this.#view = { ...this.#view, ...change };
    this.#listeners.forEach((listener) => listener());
  }
}
