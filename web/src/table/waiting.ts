// What was typed while the server could not be reached: done again until it is. A newer one of the same name takes its place.
import { Unreached } from "../api/client";

const AGAIN_MS = 2000;

export class Waiting {
  readonly #newest = new Map<string, symbol>();
  readonly #later: (ms: number, task: () => void) => () => void;
  readonly #onCount: (count: number) => void;
  #count = 0;

  constructor(later: (ms: number, task: () => void) => () => void, onCount: (count: number) => void) {
    this.#later = later;
    this.#onCount = onCount;
  }

  /** Nothing waits. */
  get isEmpty(): boolean {
    return this.#count === 0;
  }

  /** Does it, again and again while the server cannot be reached; whatever else goes wrong is thrown. */
  async untilReached(name: string, command: () => Promise<void>): Promise<void> {
    const mine = Symbol();
    this.#newest.set(name, mine);
    let waits = false;
    try {
      while (this.#newest.get(name) === mine) {
        try {
          await command();
          return;
        } catch (trouble) {
          if (!(trouble instanceof Unreached)) throw trouble;
        }
        if (!waits) this.#add(1);
        waits = true;
        await new Promise<void>((done) => this.#later(AGAIN_MS, done));
      }
    } finally {
      if (this.#newest.get(name) === mine) this.#newest.delete(name);
      if (waits) this.#add(-1);
    }
  }

  #add(by: number): void {
    this.#count += by;
    this.#onCount(this.#count);
  }
}
