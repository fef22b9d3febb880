// One question to the server is under way at a time, in order. A change is never dropped; of those that only ask how it would
// be, the newest wins; small steps of one thing that come faster than answers add up to one.

export interface Task<T> {
  run: (what: T) => Promise<void>;
  /** What it is told when its turn comes. */
  what: T;
  /** Asks only: whatever comes after it makes it idle. */
  asks?: boolean;
  /** Tasks of one name that follow each other are made one. */
  joins?: { name: string; join: (earlier: T, later: T) => T };
}

interface Waiting {
  task: Task<unknown>;
  over: { resolve: () => void; reject: (error: unknown) => void }[];
}

export class Line {
  #waiting: Waiting[] = [];
  #running = false;

  /** Nothing is under way and nothing waits. */
  get isFree(): boolean {
    return !this.#running;
  }

  /** Told when the task is over; a task that became idle is over at once. */
  add<T>(task: Task<T>): Promise<void> {
    return new Promise((resolve, reject) => {
      this.#queue(task as Task<unknown>, { resolve, reject });
      void this.#run();
    });
  }

  #queue(task: Task<unknown>, over: Waiting["over"][number]): void {
    const idle = this.#waiting.filter((one) => one.task.asks);
    this.#waiting = this.#waiting.filter((one) => !one.task.asks);
    for (const one of idle) for (const told of one.over) told.resolve();
    const last = this.#waiting.at(-1);
    if (last && task.joins && last.task.joins?.name === task.joins.name) {
      last.task = { ...task, what: task.joins.join(last.task.what, task.what) };
      last.over.push(over);
    } else this.#waiting.push({ task, over: [over] });
  }

  async #run(): Promise<void> {
    if (this.#running) return;
    this.#running = true;
    for (let next = this.#waiting.shift(); next; next = this.#waiting.shift()) {
      try {
        await next.task.run(next.task.what);
        for (const told of next.over) told.resolve();
      } catch (error) {
        for (const told of next.over) told.reject(error);
      }
    }
    this.#running = false;
  }
}
