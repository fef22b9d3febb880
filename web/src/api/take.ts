// The take: files to be measured, the run of a day, the logbook.
import { accepted, client } from "./ask";
import type { Plan, Schemas } from "./client";

/** Largest files that are read, bytes: larger ones are not sent at all. */
export const MOST_SOUND_BYTES = 50_000_000;
export const MOST_STILL_BYTES = 30_000_000;

const form = (parts: Record<string, Blob | string | null>): FormData => {
  const data = new FormData();
  for (const [name, part] of Object.entries(parts)) if (part !== null) data.append(name, part);
  return data;
};

/** A form as a body: the browser writes its boundary. */
const asForm = (parts: Record<string, Blob | string | null>) => ({
  body: {} as never,
  bodySerializer: () => form(parts),
});

const path = (id: number) => ({ path: { id } });

export const takeApi = {
  sound: async (id: number, file: Blob, second: Blob | null) =>
    accepted(
      await client.POST("/api/v1/corners/{id}/take/sound", { params: path(id), ...asForm({ file, second }) }),
    ),
  /** The first file, shifted and stretched to fit the second. */
  fitted: async (id: number, file: Blob, second: Blob): Promise<Blob> =>
    accepted<unknown>(
      await client.POST("/api/v1/corners/{id}/take/fitted", {
        params: path(id),
        ...asForm({ file, second }),
        parseAs: "blob",
      }),
    ) as Blob,
  still: async (id: number, file: Blob, marks: Schemas["Marks"]) =>
    accepted(
      await client.POST("/api/v1/corners/{id}/take/still", {
        params: path(id),
        ...asForm({ marks: JSON.stringify(marks), file }),
      }),
    ),
  /** The run sheet of a plan that may not be saved yet. */
  run: async (plan: Plan) => accepted(await client.POST("/api/v1/run", { body: plan })),
  /** The run of a corner as it is saved. */
  running: async (id: number) => accepted(await client.GET("/api/v1/corners/{id}/run", { params: path(id) })),
  /** Sends entries, and hears what was written after a write. */
  log: async (id: number, entries: Schemas["Entry"][], written: number) =>
    accepted(await client.POST("/api/v1/corners/{id}/log", { params: path(id), body: { entries, written } })),
  logAddress: (id: number, format: "csv" | "json") => `/api/v1/corners/${String(id)}/log/${format}`,
  deleteSession: async (id: number, session: string) =>
    accepted(
      await client.DELETE("/api/v1/corners/{id}/sessions/{session}", { params: { path: { id, session } } }),
    ),
  logging: async () => accepted(await client.GET("/api/v1/logging")),
  chooseLogging: async (rule: Schemas["Logging"]) =>
    accepted(await client.PUT("/api/v1/logging", { body: rule })),
  sessions: async (asked: Schemas["SessionsIn"]) =>
    accepted(await client.POST("/api/v1/sessions", { body: asked })),
};
