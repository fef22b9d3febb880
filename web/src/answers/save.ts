// Saves answers: over the corner as it is now, so that what another window changed beside them stays.
import { api, planOf, Refused, type Corner } from "../api/client";
import { withKnown } from "../table/settled";
import type { Answers } from "./answers";
import type { Read } from "./schema";
import { briefOf } from "./toBrief";

interface Saved {
  read: Read;
  /** The answers as they were opened. */
  opened: Answers;
  /** None for a new corner. */
  corner: number | null;
  /** Lay out again, around what is locked; else nothing is moved. */
  again: boolean;
}

/** Another window may save between reading and saving: so often it is tried. */
const TRIES = 3;

export async function save(asked: Saved): Promise<Corner> {
  const { read, opened, corner, again } = asked;
  if (corner === null) {
    const { name, brief } = briefOf(read, null, null);
    return api.create({ format: "fogon.brief", version: 1, name, brief });
  }
  for (let tried = 1; ; tried += 1) {
    const now = await api.corner(corner);
    const { name: typed, brief: told } = briefOf(read, now.brief, opened);
    const name = read.name === opened.name.trim() ? now.name : typed;
    // What was measured in another room, or of a person who sat otherwise, does not go along.
    const brief = withKnown(told, await api.measured({ brief: now.brief }, { brief: told }));
    const plan = planOf(now);
    const bare = { format: "fogon.brief", version: 1, name, brief };
    const kept = plan && { ...plan, name, brief };
    const laid = plan && again ? await api.again(plan, brief) : kept;
    const file = (laid && { ...laid, name }) ?? (await api.propose(name, brief)).proposals[0]?.plan ?? bare;
    try {
      return await api.save(corner, now.revision, file, crypto.randomUUID());
    } catch (error) {
      const overtaken = error instanceof Refused && error.status === 412;
      if (!overtaken || tried >= TRIES) throw error;
    }
  }
}
