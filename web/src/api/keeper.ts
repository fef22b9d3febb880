// What is made on this device, with network or without: taken at once, kept in the browser until it is sent, joined with what others
// made. Of two items of one name the later holds; sent again it is the same.

/** A clock that is off by more was set anew. */
const ANOTHER_CLOCK_MS = 60_000;

interface Touched {
  /** When it was touched last, ms, by the server's clock. */
  at_ms: number;
}

export interface Told<Item> {
  items: Item[];
  /** The server's clock, ms. */
  now_ms: number;
}

export interface Ports<Item extends Touched> {
  /** Where what waits is kept in the browser. */
  name: string;
  storage: Storage;
  keyOf: (item: Item) => string;
  /** Sends items, or none to hear of those of others. */
  send: (items: Item[]) => Promise<Told<Item>>;
  now_ms: () => number;
}

export interface View<Item> {
  /** By their names. */
  items: Map<string, Item>;
  /** So many are not sent yet. */
  waiting: number;
  /** The server was not reached last time. */
  isCut: boolean;
  /** It was not at some time before. */
  wasCut: boolean;
}

/** Of two that speak of one thing the later holds. */
export function joined<Item extends Touched>(
  known: readonly Item[],
  own: readonly Item[],
  keyOf: (item: Item) => string,
): Map<string, Item> {
  const all = new Map(known.map((item) => [keyOf(item), item]));
  for (const item of own) {
    const other = all.get(keyOf(item));
    if (!other || item.at_ms >= other.at_ms) all.set(keyOf(item), item);
  }
  return all;
}

/** What is left to send once some of it was taken: of each what was touched since. */
export function unsent<Item extends Touched>(
  waiting: readonly Item[],
  taken: readonly Item[],
  keyOf: (item: Item) => string,
): Item[] {
  return waiting.filter(
    (item) => !taken.some((one) => keyOf(one) === keyOf(item) && one.at_ms >= item.at_ms),
  );
}

/** What was made here and not sent yet; of a broken storage nothing. */
export function waitingIn<Item>(storage: Storage, name: string): Item[] {
  try {
    return JSON.parse(storage.getItem(name) ?? "[]") as Item[];
  } catch {
    return [];
  }
}

export function keepWaiting(storage: Storage, name: string, waiting: readonly unknown[]): void {
  try {
    if (waiting.length === 0) storage.removeItem(name);
    else storage.setItem(name, JSON.stringify(waiting));
  } catch {
    // The page still holds it, and sends it.
  }
}

export class Keeper<Item extends Touched> {
  view: View<Item>;
  #known: Item[] = [];
  #waiting: Item[];
  /** How far the server's clock is ahead of this one, ms; none until it was heard. */
  #ahead_ms: number | null = null;
  /** When something was made here last, ms: items keep their order whatever is learnt of the clock meanwhile. */
  #last_ms = 0;
  #running: Promise<void> | null = null;
  readonly #tell = new Set<() => void>();
  readonly #ports: Ports<Item>;

  constructor(ports: Ports<Item>) {
    this.#ports = ports;
    this.#waiting = waitingIn(ports.storage, ports.name);
    this.view = this.#viewed(false, false);
  }

  readonly subscribe = (tell: () => void): (() => void) => {
    this.#tell.add(tell);
    return () => this.#tell.delete(tell);
  };

  /** What the server has. */
  heard({ items, now_ms }: Told<Item>): void {
    const ahead_ms = now_ms - this.#ports.now_ms();
    // An answer that took its time makes the server's clock look late: the soonest answer tells it best.
    const isOther = this.#ahead_ms === null || Math.abs(ahead_ms - this.#ahead_ms) > ANOTHER_CLOCK_MS;
    this.#ahead_ms = isOther ? ahead_ms : Math.max(this.#ahead_ms ?? ahead_ms, ahead_ms);
    this.#known = items;
    this.#show(false);
  }

  /** The server's clock, ms. */
  readonly now_ms = (): number => Math.round(this.#ports.now_ms() + (this.#ahead_ms ?? 0));

  /** Makes an item, or an item anew. */
  readonly put = (make: (at_ms: number) => Item): void => {
    const at_ms = Math.max(this.now_ms(), this.#last_ms + 1);
    this.#last_ms = at_ms;
    const item = make(at_ms);
    const { keyOf } = this.#ports;
    this.#keep([...this.#waiting.filter((other) => keyOf(other) !== keyOf(item)), item]);
    this.#show(this.view.isCut);
    void this.sync();
  };

  /** Sends what waits, or asks what others made. */
  readonly sync = (): Promise<void> => {
    this.#running ??= this.#sync().finally(() => (this.#running = null));
    return this.#running;
  };

  async #sync(): Promise<void> {
    const taken = this.#waiting;
    try {
      const answer = await this.#ports.send(taken);
      if (taken.length > 0) this.#keep(unsent(this.#waiting, taken, this.#ports.keyOf));
      this.heard(answer);
    } catch {
      this.#show(true);
    }
  }

  #keep(waiting: Item[]): void {
    this.#waiting = waiting;
    keepWaiting(this.#ports.storage, this.#ports.name, waiting);
  }

  #viewed(isCut: boolean, wasCut: boolean): View<Item> {
    const items = joined(this.#known, this.#waiting, this.#ports.keyOf);
    return { items, waiting: this.#waiting.length, isCut, wasCut };
  }

  #show(isCut: boolean): void {
    this.view = this.#viewed(isCut, isCut || this.view.wasCut);
    for (const tell of this.#tell) tell();
  }
}
