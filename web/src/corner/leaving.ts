// What was not yet saved when the page was left. It is sent on its way at once; it is also kept in the tab, because
// the page may be open again before it arrives. Whichever comes first is saved, the other is refused as outdated.
import { api, Refused, type Corner } from "../api/client";

interface Left {
  revision: number;
  file: unknown;
}

const nameOf = (id: number) => `fogon-left-${id}`;

function left(id: number): Left | null {
  try {
    return JSON.parse(sessionStorage.getItem(nameOf(id)) ?? "null") as Left | null;
  } catch {
    return null;
  }
}

/** Sends and keeps what still waits while the page goes away. */
export function leaveWith(id: number, revision: number, file: unknown): void {
  const body = JSON.stringify(file);
  try {
    sessionStorage.setItem(nameOf(id), `{"revision":${revision},"file":${body}}`);
  } catch {
    // No room in the tab: what is sent has to arrive by itself.
  }
  void fetch(`/api/v1/corners/${id}`, {
    method: "PUT",
    keepalive: true,
    headers: { "content-type": "application/json", "If-Match": `"${revision}"` },
    body,
  });
}

/** A corner as it is kept, with what was left on the way saved first. */
export async function opened(id: number): Promise<Corner> {
  const waiting = left(id);
  if (waiting) {
    try {
      const saved = await api.save(id, waiting.revision, waiting.file);
      sessionStorage.removeItem(nameOf(id));
      return saved;
    } catch (error) {
      if (!(error instanceof Refused)) throw error;
      // It arrived by itself, or another window was first.
      sessionStorage.removeItem(nameOf(id));
    }
  }
  return api.corner(id);
}
