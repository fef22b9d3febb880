// What an earlier page left unsaved of a corner, when the corner is opened again: sent on its way first; what cannot be saved
// without a question is handed to the page, which asks it.
import { Refused, type Corner, type Plan } from "../api/client";
import type { Entry, Outbox } from "./outbox";

export interface Left {
  entry: Entry;
  plan: Plan;
  why: { kind: "conflict" } | { kind: "gone" } | { kind: "trial" } | { kind: "refused"; error: Refused };
}

type Save = (corner: number, revision: number, file: Plan, key: string) => Promise<Corner>;

/** Sends what was left of a corner, or of all; what has to be asked about comes back. Throws where the server cannot be reached. */
export async function sendLeft(
  corner: number | null,
  outbox: Outbox,
  save: Save,
  key: () => string,
): Promise<Left[]> {
  const asked: Left[] = [];
  for (const entry of await outbox.left(corner)) {
    const plan = entry.newest ?? entry.sent?.file;
    if (!plan) outbox.drop(entry);
    else if (entry.trial === true) asked.push({ entry, plan, why: { kind: "trial" } });
    else {
      const why = await sendEntry(entry, outbox, save, key);
      if (why) asked.push({ entry, plan, why });
    }
  }
  return asked;
}

async function sendEntry(
  entry: Entry,
  outbox: Outbox,
  save: Save,
  key: () => string,
): Promise<Left["why"] | null> {
  let now = entry;
  try {
    if (now.sent) {
      const saved = await save(now.corner, now.sent.revision, now.sent.file, now.sent.key);
      now = { ...now, sent: null, revision: saved.revision };
      outbox.rewrite(now);
    }
    if (now.newest) {
      const sent = { key: key(), revision: now.revision, file: now.newest };
      outbox.rewrite({ ...now, sent, newest: null });
      await save(now.corner, sent.revision, sent.file, sent.key);
    }
  } catch (error) {
    if (!(error instanceof Refused) || error.status >= 500) throw error;
    if (error.status === 404) return { kind: "gone" };
    return error.status === 412 || error.status === 409 ? { kind: "conflict" } : { kind: "refused", error };
  }
  outbox.drop(now);
  return null;
}
