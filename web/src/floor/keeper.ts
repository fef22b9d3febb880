// Ticks of one corner on this device: taken at once, sent when the server is there, joined with those of others.
import { joined, keepWaiting, unsent, waitingIn, type Tick } from "./ticks";

/** A clock that is off by more was set anew. */
const ANOTHER_CLOCK_MS = 60_000;

export interface Ticked {
  ticks: Tick[];
  now_ms: number;
}

export interface Ports {
  corner: number;
  storage: Storage;
  send: (ticks: Tick[]) => Promise<Ticked>;
  now_ms: () => number;
}

export interface View {
  /** By the name of the step. */
  ticks: Map<string, Tick>;
  /** So many are not sent yet. */
  waiting: number;
  /** The server was not reached last time. */
  isCut: boolean;
  /** It was not at some time before. */
  wasCut: boolean;
}

export class Keeper {
  view: View;
  #known: Tick[] = [];
  #waiting: Tick[];
  /** How far the server's clock is ahead of this one, ms; none until it was heard. */
  #ahead_ms: number | null = null;
  /** When this device ticked last, ms: its ticks keep their order whatever is learnt of the clock meanwhile. */
  #last_ms = 0;
  #running: Promise<void> | null = null;
  readonly #tell = new Set<() => void>();
  readonly #ports: Ports;

  constructor(ports: Ports) {
    this.#ports = ports;
    this.#waiting = waitingIn(ports.storage, ports.corner);
    this.view = this.#viewed(false, false);
  }

  readonly subscribe = (tell: () => void): (() => void) => {
    this.#tell.add(tell);
    return () => this.#tell.delete(tell);
  };

  /** What the server has, as it was told beside the steps. */
  heard({ ticks, now_ms }: Ticked): void {
    const ahead_ms = now_ms - this.#ports.now_ms();
    // An answer that took its time makes the server's clock look late: the soonest answer tells it best.
    const isOther = this.#ahead_ms === null || Math.abs(ahead_ms - this.#ahead_ms) > ANOTHER_CLOCK_MS;
    this.#ahead_ms = isOther ? ahead_ms : Math.max(this.#ahead_ms ?? ahead_ms, ahead_ms);
    this.#known = ticks;
    this.#show(false);
  }

  /** The server's clock, ms. */
  readonly now_ms = (): number => Math.round(this.#ports.now_ms() + (this.#ahead_ms ?? 0));

  tick(step: string, done: boolean): void {
    const at_ms = Math.max(this.now_ms(), this.#last_ms + 1);
    this.#last_ms = at_ms;
    this.#keep([...this.#waiting.filter((other) => other.step !== step), { step, done, at_ms }]);
    this.#show(this.view.isCut);
    void this.sync();
  }

  /** Sends what waits, or asks what others ticked. */
  sync(): Promise<void> {
    this.#running ??= this.#sync().finally(() => (this.#running = null));
    return this.#running;
  }

  async #sync(): Promise<void> {
    const taken = this.#waiting;
    try {
      const answer = await this.#ports.send(taken);
      if (taken.length > 0) this.#keep(unsent(this.#waiting, taken));
      this.heard(answer);
    } catch {
      this.#show(true);
    }
  }

  #keep(waiting: Tick[]): void {
    this.#waiting = waiting;
    keepWaiting(this.#ports.storage, this.#ports.corner, waiting);
  }

  #viewed(isCut: boolean, wasCut: boolean): View {
    return { ticks: joined(this.#known, this.#waiting), waiting: this.#waiting.length, isCut, wasCut };
  }

  #show(isCut: boolean): void {
    this.view = this.#viewed(isCut, isCut || this.view.wasCut);
    for (const tell of this.#tell) tell();
  }
}
