// What to buy, asked of the server: lines of JSON as they become known, the last one the advice.
import { Refused, Unreached, type Plan, type Schemas } from "./client";

export type BuyLine = Schemas["BuyLine"];
export type Advice = Schemas["Advice"];

/** The lines of a text that comes in pieces. */
export async function* linesOf(pieces: AsyncIterable<string>): AsyncGenerator<string> {
  let rest = "";
  for await (const piece of pieces) {
    const lines = (rest + piece).split("\n");
    rest = lines.pop() ?? "";
    yield* lines.filter((line) => line !== "");
  }
  if (rest !== "") yield rest;
}

async function* read(body: ReadableStream<Uint8Array>): AsyncGenerator<string> {
  const reader = body.getReader();
  const decoder = new TextDecoder();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    yield decoder.decode(value, { stream: true });
  }
}

/** The advice for a plan and its budget; `tell` hears every line before it. */
export async function advise(
  plan: Plan,
  signal: AbortSignal,
  tell: (line: BuyLine) => void,
): Promise<Advice> {
  const answer = await fetch("/api/v1/buy", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify({ plan }),
    signal,
  }).catch((trouble: unknown) => {
    throw trouble instanceof TypeError ? new Unreached(trouble.message) : trouble;
  });
  if (!answer.ok || !answer.body) {
    throw new Refused((await answer.json()) as Schemas["Details"], answer.status);
  }
  for await (const text of linesOf(read(answer.body))) {
    const line = JSON.parse(text) as BuyLine;
    if (line.line === "advice") return line;
    if (line.line === "failed")
      throw new Refused({ type: "problem:failed", status: 503, title: line.sentence }, 503);
    tell(line);
  }
  throw new Unreached("The answer broke off.");
}
