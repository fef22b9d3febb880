// What the page asks of the server, one function for each.
import { accepted, client } from "./ask";
import type { components, paths } from "./schema";

export { Refused, Unreached } from "./ask";
export type Schemas = components["schemas"];
export type Plan = Schemas["Plan"];
export type Brief = Schemas["Brief"];
export type Layout = Schemas["Layout"];
export type Gear = Schemas["Gear"];
export type Corner = Schemas["CornerKept"];
export type Judged = Schemas["Judged"];
export type Reading = Schemas["Reading"];
export type Finding = Schemas["Finding"];
export type PatchStep = Schemas["PatchStep"];
export type View = Schemas["View"];
export type Handle = Schemas["Handle"];
export type Move = Schemas["Move"];
export type Moved = Schemas["MovedOut"];
export type Term = Schemas["Term"];
export type StepTold = Schemas["StepTold"];
export type Step = Schemas["WorkStep"];
export type Tab = Schemas["Tab"];
export type ChartData = Schemas["Chart"];

/** A corner, laid out or not. */
export type State = Schemas["StateIn"];

/** What happens to what is here already when an archive is taken in. */
export type Taking = NonNullable<
  NonNullable<paths["/api/v1/archive"]["post"]["parameters"]["query"]>["taking"]
>;

/** How a judged plan is to be drawn. */
export interface Drawn {
  text_scale?: number;
  frame_text_scale: number;
  /** Pixels that plan and side view share. */
  sheet_width_px?: number;
  sheet_height_px?: number;
  quarter_turns?: number;
  /** Add the chart of the shot over distance. */
  chart?: boolean;
  /** Add lines of equal light and what the same key would do elsewhere. */
  light?: boolean;
  /** Add what is told of the sound. */
  sound?: boolean;
  /** false while a hand still drags: the moves that mend findings are not looked for. */
  fixes?: boolean;
}

/** A voice as a corner would record it. */
export interface Heard {
  wav: Blob;
  /** Turned up by so much, dB. */
  gainDb: number;
  loudnessLufs: number;
  levelDba: number;
  snrDb: number;
  sti: number;
}

const tag = (revision: number) => `"${revision}"`;

/** A plan file's content from a corner that has a layout. */
export function planOf(corner: Corner): Plan | null {
  if (!corner.layout) return null;
  return { format: "fogon.plan", version: 1, name: corner.name, brief: corner.brief, layout: corner.layout };
}

/** A page of the list of corners. */
export interface CornersPage {
  corners: Schemas["Listed"][];
  /** On all pages. */
  count: number;
  /** Where the next page begins, if there is one. */
  next: string | undefined;
}

/** A file as a body. */
const sentAsItIs = (file: Blob) => ({
  body: file as unknown as number[],
  bodySerializer: () => file,
  headers: { "Content-Type": "application/zip" },
});

export const api = {
  /** A page of the corners whose names hold a part, the last saved first. */
  corners: async (name: string, after: string | undefined): Promise<CornersPage> => {
    const query = { ...(name === "" ? {} : { name }), ...(after === undefined ? {} : { after }) };
    const answer = await client.GET("/api/v1/corners", { params: { query } });
    const corners = accepted(answer);
    const { headers } = answer.response;
    return {
      corners,
      count: Number(headers.get("fogon-count")),
      next: /<\?after=([^&>]+).*rel="next"/.exec(headers.get("link") ?? "")?.[1],
    };
  },
  corner: async (id: number) =>
    accepted(await client.GET("/api/v1/corners/{id}", { params: { path: { id } } })),
  create: async (file: unknown) =>
    accepted(await client.POST("/api/v1/corners", { body: file as Schemas["BriefFile"] })),
  /** Sends a file's text as it is, so that the server's own reader judges it. */
  importText: async (text: string) =>
    accepted(
      await client.POST("/api/v1/corners", {
        body: text as unknown as Schemas["BriefFile"],
        bodySerializer: () => text,
      }),
    ),
  /** Saves what was made from a revision; sent again under the same key it is saved once. */
  save: async (id: number, revision: number, file: unknown, key: string) =>
    accepted(
      await client.PUT("/api/v1/corners/{id}", {
        params: { path: { id }, header: { "If-Match": tag(revision), "Idempotency-Key": key } },
        body: file as Plan,
        // It arrives although the page goes away, up to the size that browsers allow for that.
        keepalive: JSON.stringify(file).length < 60_000,
      }),
    ),
  /** A corner's file: a plan, or a brief where nothing fits. */
  cornerFile: async (id: number): Promise<unknown> =>
    accepted(await client.GET("/api/v1/corners/{id}/file", { params: { path: { id } } })),
  remove: async (id: number, revision: number) =>
    accepted(
      await client.DELETE("/api/v1/corners/{id}", {
        params: { path: { id }, header: { "If-Match": tag(revision) } },
      }),
    ),
  restore: async (id: number) =>
    accepted(await client.POST("/api/v1/bin/{id}", { params: { path: { id } } })),
  /** What was deleted and can be brought back. */
  bin: async () => accepted(await client.GET("/api/v1/bin")),
  emptyBin: async () => accepted(await client.DELETE("/api/v1/bin")),
  deleteForGood: async (id: number) =>
    accepted(await client.DELETE("/api/v1/bin/{id}", { params: { path: { id } } })),
  thinning: async () => accepted(await client.GET("/api/v1/thinning")),
  chooseThinning: async (rule: Schemas["Thinning"]) =>
    accepted(await client.PUT("/api/v1/thinning", { body: rule })),
  /** The file that everything is kept in, looked through. */
  file: async () => accepted(await client.GET("/api/v1/file")),
  snapshot: async () => accepted(await client.POST("/api/v1/file")),
  wouldTake: async (archive: Blob, taking: Taking) =>
    accepted(
      await client.POST("/api/v1/archive/would", { params: { query: { taking } }, ...sentAsItIs(archive) }),
    ),
  take: async (archive: Blob, taking: Taking) =>
    accepted(await client.POST("/api/v1/archive", { params: { query: { taking } }, ...sentAsItIs(archive) })),
  undo: async (id: number, revision: number) =>
    accepted(
      await client.POST("/api/v1/corners/{id}/undo", {
        params: { path: { id }, header: { "If-Match": tag(revision) } },
      }),
    ),
  redo: async (id: number, revision: number) =>
    accepted(
      await client.POST("/api/v1/corners/{id}/redo", {
        params: { path: { id }, header: { "If-Match": tag(revision) } },
      }),
    ),
  /** Saves before one, a hundred at most. */
  revisions: async (id: number, before?: number) =>
    accepted(
      await client.GET("/api/v1/corners/{id}/revisions", {
        params: { path: { id }, query: before === undefined ? {} : { before } },
      }),
    ),
  nameRevision: async (id: number, number: number, name: string | null) =>
    accepted(
      await client.PUT("/api/v1/corners/{id}/revisions/{number}", {
        params: { path: { id, number } },
        body: { name },
      }),
    ),
  bringBack: async (id: number, revision: number, number: number) =>
    accepted(
      await client.POST("/api/v1/corners/{id}/revisions/{number}/restore", {
        params: { path: { id, number }, header: { "If-Match": tag(revision) } },
      }),
    ),
  revision: async (id: number, number: number) =>
    accepted(
      await client.GET("/api/v1/corners/{id}/revisions/{number}", { params: { path: { id, number } } }),
    ),
  choices: async (plan: Plan) => accepted(await client.POST("/api/v1/choices", { body: plan })),
  assess: async (plan: Plan, drawn: Drawn) =>
    accepted(await client.POST("/api/v1/assess", { params: { query: drawn }, body: plan })),
  move: async (plan: Plan, by: Move, drawn: Drawn) =>
    accepted(await client.POST("/api/v1/move", { params: { query: drawn }, body: { plan, move: by } })),
  propose: async (name: string, brief: Brief, signal?: AbortSignal) =>
    accepted(
      await client.POST("/api/v1/propose", {
        body: { format: "fogon.brief", version: 1, name, brief },
        ...(signal ? { signal } : {}),
      }),
    ),
  /** The best layout for changed answers that keeps what is locked; null where nothing fits. */
  again: async (before: Plan, brief: Brief) =>
    accepted(await client.POST("/api/v1/again", { body: { before, brief } })).plan ?? null,
  freeMoves: async (plan: Plan, signal: AbortSignal) =>
    accepted(await client.POST("/api/v1/free-moves", { body: plan, signal })),
  /** A local day in a corner as it goes. */
  day: async (asked: Schemas["DayIn"], signal: AbortSignal) =>
    accepted(await client.POST("/api/v1/day", { body: asked, signal })),
  /** The hours of sun, light and noise on every day of a year. */
  year: async (asked: Schemas["YearIn"], signal: AbortSignal) =>
    accepted(await client.POST("/api/v1/year", { body: asked, signal })),
  /** Where the sun stands over a place at a local time. */
  sun: async (asked: Schemas["SunIn"]) => accepted(await client.POST("/api/v1/sun", { body: asked })),
  /** The hours in which the light that is wanted holds while it is quiet. */
  hours: async (asked: Schemas["HoursIn"], signal: AbortSignal) =>
    accepted(await client.POST("/api/v1/hours", { body: asked, signal })),
  /** The same as a file. */
  hoursFile: async (asked: Schemas["HoursFileIn"]): Promise<string> =>
    accepted<unknown>(await client.POST("/api/v1/hours/file", { body: asked, parseAs: "text" })) as string,
  /** Places to pick from. */
  regions: async () => accepted(await client.GET("/api/v1/regions")),
  /** The shopping list as a file. */
  shopping: async (asked: Schemas["ShoppingIn"]): Promise<string> =>
    accepted<unknown>(await client.POST("/api/v1/shopping", { body: asked, parseAs: "text" })) as string,
  ledger: async (brief: Brief) => accepted(await client.POST("/api/v1/ledger", { body: { brief } })),
  /** What is owned, as a table. */
  shelfTable: async (brief: Brief): Promise<string> =>
    accepted<unknown>(
      await client.POST("/api/v1/shelf/table", { body: { brief }, parseAs: "text" }),
    ) as string,
  /** A shelf read from a table. */
  readShelf: async (file: Blob) =>
    accepted(
      await client.POST("/api/v1/shelf", {
        body: file as unknown as string,
        bodySerializer: () => file,
        headers: { "Content-Type": "text/csv" },
      }),
    ),
  apply: async (plan: Plan, patch: PatchStep[]) =>
    accepted(await client.POST("/api/v1/apply", { body: { plan, patch } })),
  /** Which measured values still hold after a change by hand. */
  measured: async (before: State, after: State) => {
    const only = ({ brief, layout }: State) => ({ brief, layout: layout ?? null });
    return accepted(
      await client.POST("/api/v1/measured", { body: { before: only(before), after: only(after) } }),
    );
  },
  /** The floor of a walk round the room with a tape. */
  walk: async (legs: Schemas["Leg"][]) => accepted(await client.POST("/api/v1/walk", { body: { legs } })),
  /** The set-up card as it prints, HTML. */
  card: async (id: number, paper: string, lines: boolean, signal: AbortSignal) =>
    accepted(
      await client.GET("/api/v1/corners/{id}/card/{format}", {
        params: { path: { id, format: "html" }, query: { paper, ...(lines ? { picture: "lines" } : {}) } },
        parseAs: "text",
        signal,
      }),
    ),
  /** Where the same lies, for a frame; another address for every revision. */
  cardAddress: (id: number, revision: number, paper: string, lines: boolean): string =>
    `/api/v1/corners/${String(id)}/card/html?paper=${paper}${lines ? "&picture=lines" : ""}&revision=${String(revision)}`,
  glossary: async () => accepted(await client.GET("/api/v1/glossary")),
  light: async (plan: Plan, gear: string, job: Schemas["LampJob"]) =>
    accepted(await client.POST("/api/v1/light", { body: { plan, gear, job } })),
  hear: async (plan: Plan, variant: Schemas["Variant"], ownVoice: boolean): Promise<Heard> => {
    const answer = await client.POST("/api/v1/hear", {
      body: { plan, variant, own_voice: ownVoice },
      parseAs: "blob",
    });
    const wav = accepted<unknown>(answer) as Blob;
    const told = (name: string) => Number(answer.response.headers.get(`fogon-${name}`));
    return {
      wav,
      gainDb: told("gain-db"),
      loudnessLufs: told("loudness-lufs"),
      levelDba: told("level-dba"),
      snrDb: told("snr-db"),
      sti: told("sti"),
    };
  },
  /** The picture of a corner as a revision of it was saved. */
  cornerPicture: async (id: number, revision: number, width: number, signal: AbortSignal): Promise<Blob> =>
    accepted<unknown>(
      await client.GET("/api/v1/corners/{id}/picture", {
        params: { path: { id }, query: { width, revision } },
        parseAs: "blob",
        signal,
      }),
    ) as Blob,
  /** A picture of a plan, exposed as it is or as another. */
  picture: async (asked: Schemas["PictureIn"], signal?: AbortSignal): Promise<Blob> =>
    accepted<unknown>(
      await client.POST("/api/v1/picture", { body: asked, parseAs: "blob", ...(signal ? { signal } : {}) }),
    ) as Blob,
  impulse: async (plan: Plan, variant: Schemas["Variant"]) =>
    accepted(await client.POST("/api/v1/impulse", { body: { plan, variant } })),
  treatment: async (plan: Plan, material: string, widthM: number, heightM: number) =>
    accepted(
      await client.POST("/api/v1/treatment", {
        body: { plan, material, width_m: widthM, height_m: heightM },
      }),
    ),
  voice: async () => accepted(await client.GET("/api/v1/voice")),
  keepVoice: async (file: Blob) =>
    accepted(
      await client.PUT("/api/v1/voice", {
        body: file as unknown as number[],
        bodySerializer: () => file,
        headers: { "Content-Type": "application/octet-stream" },
      }),
    ),
  forgetVoice: async () => accepted(await client.DELETE("/api/v1/voice")),
  angle: async (plan: Plan, kind: "overhead" | "side") =>
    accepted(await client.POST("/api/v1/angle", { body: { plan, kind } })),
  place: async (plan: Plan) => accepted(await client.POST("/api/v1/place", { body: plan })),
  catalogue: async () => accepted(await client.GET("/api/v1/catalogue")),
  materials: async () => accepted(await client.GET("/api/v1/materials")),
  schools: async () => accepted(await client.GET("/api/v1/schools")),
};
