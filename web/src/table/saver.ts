// Saves what changes, by itself. What is not acknowledged yet lies in the outbox; a server that cannot be reached is tried
// again until it answers; a refusal waits for the next change; what another window saved meanwhile is asked about.
import { Refused, type Corner, type Plan } from "../api/client";
import type { Box, Sent } from "./outbox";

export type Saving =
  | { kind: "saved" }
  | { kind: "waiting" }
  | { kind: "saving" }
  /** Tried again by itself: the server does not answer, or answers that it cannot keep anything, and why. */
  | { kind: "unreachable"; why: string | null }
  | { kind: "refused"; error: Refused }
  /** The corner was deleted elsewhere. */
  | { kind: "gone" }
  /** Another window saved `theirs` first. */
  | { kind: "conflict"; theirs: Corner };

export interface Ports {
  save: (revision: number, file: Plan, key: string) => Promise<Corner>;
  corner: () => Promise<Corner>;
  box: Box;
  key: () => string;
  /** Runs a task later; the answer calls it off. */
  later: (ms: number, task: () => void) => () => void;
  onState: (saving: Saving) => void;
  onAcknowledged: (version: number, corner: Corner) => void;
}

/** Changes that follow each other faster than this become one step of undo, ms. */
const PAUSE_MS = 500;
const RETRY_MS = [1000, 2000, 4000, 8000, 15_000];

interface Versioned {
  file: Plan;
  version: number;
}

export class Saver {
  saving: Saving = { kind: "saved" };
  #newest: Versioned | null = null;
  #sent: (Sent & { version: number }) | null = null;
  #revision: number;
  #callOff: () => void = () => undefined;
  #running: Promise<void> | null = null;
  #tries = 0;
  readonly #ports: Ports;

  constructor(revision: number, ports: Ports) {
    this.#revision = revision;
    this.#ports = ports;
  }

  /** What is not acknowledged yet; null where everything is. */
  get unsaved(): Plan | null {
    return this.#newest?.file ?? this.#sent?.file ?? null;
  }

  /** Something to save, once no other change follows for a moment. */
  put(file: Plan, version: number): void {
    this.#newest = { file, version };
    this.#remember();
    if (this.saving.kind === "conflict" || this.saving.kind === "gone") return;
    if (this.saving.kind !== "saving" && this.saving.kind !== "unreachable") this.#tell({ kind: "waiting" });
    if (this.saving.kind !== "unreachable") this.#soon(PAUSE_MS);
  }

  /** Something that is only tried out: kept in the outbox, not sent. */
  tryOut(file: Plan): void {
    this.#ports.box.put({ revision: this.#revision, sent: null, newest: file, trial: true });
  }

  /** Saves at once what waits; how it went stands in `saving`. */
  async flush(): Promise<Saving> {
    this.#callOff();
    this.#running ??= this.#send().finally(() => (this.#running = null));
    await this.#running;
    return this.saving;
  }

  /** Another revision is kept and shown. */
  reset(revision: number): void {
    this.#callOff();
    this.#revision = revision;
    this.#newest = null;
    this.#sent = null;
    this.#ports.box.empty();
    this.#tell({ kind: "saved" });
  }

  /** In a conflict: saves what is here over what was saved there. */
  async keepMine(): Promise<void> {
    if (this.saving.kind !== "conflict") return;
    this.#revision = this.saving.theirs.revision;
    this.#newest ??= this.#sent;
    this.#sent = null;
    this.#tell({ kind: "waiting" });
    await this.flush();
  }

  /** The page goes away: what is under way is tried once more, the rest stays in the outbox. */
  close(): void {
    this.#callOff();
    void this.flush().finally(() => {
      this.#callOff();
      this.#ports.box.close();
    });
  }

  #remember(): void {
    const newest = this.#newest?.file ?? null;
    if (newest === null && this.#sent === null) this.#ports.box.empty();
    else this.#ports.box.put({ revision: this.#revision, sent: this.#sent, newest });
  }

  #tell(saving: Saving): void {
    this.saving = saving;
    this.#ports.onState(saving);
  }

  #soon(ms: number): void {
    this.#callOff();
    this.#callOff = this.#ports.later(ms, () => void this.flush());
  }

  async #send(): Promise<void> {
    while (this.saving.kind !== "conflict" && this.saving.kind !== "gone") {
      if (this.#sent === null && this.#newest !== null) {
        this.#sent = { ...this.#newest, revision: this.#revision, key: this.#ports.key() };
        this.#newest = null;
        this.#remember();
      }
      const sent = this.#sent;
      if (sent === null) {
        if (this.saving.kind === "saving") this.#tell({ kind: "saved" });
        return;
      }
      this.#tell({ kind: "saving" });
      try {
        const corner = await this.#ports.save(sent.revision, sent.file, sent.key);
        if (this.#sent !== sent) continue;
        this.#sent = null;
        this.#revision = corner.revision;
        this.#tries = 0;
        this.#remember();
        this.#ports.onAcknowledged(sent.version, corner);
      } catch (error) {
        if (this.#sent !== sent) continue;
        if (!(await this.#failed(error, sent))) return;
      }
    }
  }

  /** What follows from a failure; whether to go on at once. */
  async #failed(error: unknown, sent: Versioned): Promise<boolean> {
    const status = error instanceof Refused ? error.status : 0;
    if (status === 412 || status === 409) {
      try {
        this.#tell({ kind: "conflict", theirs: await this.#ports.corner() });
        return false;
      } catch {
        return this.#again(null);
      }
    }
    if (status === 404) {
      this.#tell({ kind: "gone" });
      return false;
    }
    if (error instanceof Refused && status >= 400 && status < 500) {
      // The next change may mend it; a newer one that waits already is tried at once.
      const newer = this.#newest !== null;
      this.#newest ??= sent;
      this.#sent = null;
      this.#remember();
      if (!newer) this.#tell({ kind: "refused", error });
      return newer;
    }
    return this.#again(error instanceof Refused ? error.details.title : null);
  }

  #again(why: string | null): false {
    this.#tell({ kind: "unreachable", why });
    this.#soon(RETRY_MS[Math.min(this.#tries, RETRY_MS.length - 1)] ?? 15_000);
    this.#tries += 1;
    return false;
  }
}
