// Lines that come in pieces are whole lines.
import { describe, expect, it } from "vitest";

import { linesOf } from "./buying";

describe("lines of an answer", () => {
  it("are whole however the text is cut", async () => {
    const text = '{"line":"progress"}\n{"line":"table"}\n\n{"line":"advice"}';
    for (const cut of [1, 2, 7, 19, 20, 21, 100]) {
      const pieces = async function* () {
        for (let at = 0; at < text.length; at += cut) yield await Promise.resolve(text.slice(at, at + cut));
      };
      const lines: string[] = [];
      for await (const line of linesOf(pieces())) lines.push(line);
      expect(lines).toEqual(text.split("\n").filter((line) => line !== ""));
    }
  });
});
