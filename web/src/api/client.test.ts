// The one door to the server: answers come through, refusals become words, nothing is swallowed.
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { planOf, Refused, type api as Api, type Corner } from "./client";

interface Sent {
  method: string;
  path: string;
  match: string | null;
  body: string;
}

const sent: Sent[] = [];
let api: typeof Api;

let answer = () => new Response();

/** Answers every request with this. */
function answering(status: number, body: unknown, kind = "application/json") {
  answer = () =>
    new Response(typeof body === "string" ? body : JSON.stringify(body), {
      status,
      headers: { "content-type": kind },
    });
}

beforeEach(async () => {
  sent.length = 0;
  vi.resetModules();
  // A page's addresses are its own; outside a page they need a base.
  const Real = Request;
  vi.stubGlobal(
    "Request",
    class extends Real {
      constructor(input: RequestInfo | URL, init?: RequestInit) {
        super(typeof input === "string" ? new URL(input, "http://127.0.0.1:4170") : input, init);
      }
    },
  );
  // The client takes hold of fetch when it is made, so the answer changes behind one function.
  vi.stubGlobal("fetch", async (request: Request) => {
    const url = new URL(request.url);
    sent.push({
      method: request.method,
      path: url.pathname + url.search,
      match: request.headers.get("If-Match"),
      body: await request.text(),
    });
    return answer();
  });
  ({ api } = await import("./client"));
});
afterEach(() => vi.unstubAllGlobals());

/** What a call throws. */
async function refusal(call: Promise<unknown>): Promise<{ message: string; status: number; kind: string }> {
  try {
    await call;
  } catch (error) {
    const refused = error as Refused;
    return { message: refused.message, status: refused.status, kind: refused.details.type };
  }
  throw new Error("nothing was refused");
}

describe("requests", () => {
  it("name the revision they were made from", async () => {
    answering(200, { id: 3, revision: 8 });
    await api.save(3, 7, { name: "x" }, "key");
    await api.remove(3, 8);
    expect(sent.map((s) => [s.method, s.path, s.match])).toEqual([
      ["PUT", "/api/v1/corners/3", '"7"'],
      ["DELETE", "/api/v1/corners/3", '"8"'],
    ]);
  });

  it("send a file's text as it is, so that the server's own reader judges it", async () => {
    answering(201, { id: 1 });
    await api.importText('{"name": broken');
    expect(sent[0]?.body).toBe('{"name": broken');
  });
});

describe("refusals", () => {
  it("come through in the server's words", async () => {
    const title = "This corner was changed in another window.";
    answering(412, { type: "problem:changed_elsewhere", status: 412, title }, "application/problem+json");
    expect(await refusal(api.save(1, 1, {}, "key"))).toEqual({
      message: title,
      status: 412,
      kind: "problem:changed_elsewhere",
    });
  });

  it("without words still say that something is wrong", async () => {
    answering(502, "<html>bad gateway</html>", "text/html");
    const refused = await refusal(api.corners("", undefined));
    expect(refused).toMatchObject({ status: 502, kind: "problem:unknown" });
    expect(refused.message).toBe("The server did not answer as expected.");
  });
});

describe("a corner as a plan", () => {
  const corner = { id: 1, revision: 1, updated_ms: 0, name: "N", brief: {}, layout: {} } as unknown as Corner;
  it("is one only where something fits", () => {
    expect(planOf(corner)).toMatchObject({ format: "fogon.plan", version: 1, name: "N" });
    expect(planOf({ ...corner, layout: null })).toBeNull();
  });
});
