// The one door to the server. Errors arrive as RFC 9457 problem details and leave as `Refused`.
import createClient from "openapi-fetch";

import type { components, paths } from "./schema";

type Schemas = components["schemas"];

/** A request the server did not accept, in words for people. */
export class Refused extends Error {
  constructor(
    readonly details: Schemas["Details"],
    readonly status: number,
  ) {
    super(details.title);
  }
}

/** The server was not reached: asked again, it may answer. */
export class Unreached extends Error {}

export const client = createClient<paths>({
  baseUrl: "/",
  fetch: (request) =>
    fetch(request).catch((trouble: unknown) => {
      throw trouble instanceof TypeError ? new Unreached(trouble.message) : trouble;
    }),
});

/** The answer's data, or the refusal thrown. */
export function accepted<T>(answer: { data?: T; error?: unknown; response: Response }): T {
  if (answer.response.ok) return answer.data as T;
  const error = answer.error as Schemas["Details"] | undefined;
  throw new Refused(
    error?.title
      ? error
      : {
          type: "problem:unknown",
          status: answer.response.status,
          title: "The server did not answer as expected.",
        },
    answer.response.status,
  );
}
