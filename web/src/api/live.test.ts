// The live channel: the plan goes along once, refusals arrive as such, and a closed channel falls back to requests.
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";

import { api, Refused, type Move, type Moved, type Plan } from "./client";
import { LiveHand } from "./live";

class FakeSocket {
  static readonly OPEN = 1;
  static last: FakeSocket;
  readyState = FakeSocket.OPEN;
  sent: Record<string, unknown>[] = [];
  onmessage: ((event: { data: string }) => void) | null = null;
  onclose: (() => void) | null = null;

  constructor(readonly url: string) {
    FakeSocket.last = this;
  }
  send(text: string) {
    this.sent.push(JSON.parse(text) as Record<string, unknown>);
  }
  close() {
    this.onclose?.();
  }
  answer(data: unknown) {
    this.onmessage?.({ data: JSON.stringify(data) });
  }
}

const plan = { name: "one" } as Plan;
const by = { thing: "key", to_m: [1, 2, 1.5] } as Move;
const drawn = { text_scale: 1, frame_text_scale: 1 };
const moved = { plan, judged: {}, snaps: [], held: null, dropped: [] } as unknown as Moved;

beforeEach(() => {
  vi.stubGlobal("WebSocket", FakeSocket);
  vi.stubGlobal("location", { protocol: "http:", host: "127.0.0.1:4170" });
});
afterEach(() => {
  vi.unstubAllGlobals();
  vi.restoreAllMocks();
});

describe("the live channel", () => {
  it("sends the plan of a drag once, and another when there is another", async () => {
    const hand = new LiveHand();
    for (const from of [plan, plan, { ...plan }]) {
      const asked = hand.move(from, by, drawn);
      FakeSocket.last.answer(moved);
      expect(await asked).toEqual(moved);
    }
    expect(FakeSocket.last.url).toBe("ws://127.0.0.1:4170/api/v1/hand");
    expect(FakeSocket.last.sent.map((m) => "plan" in m)).toEqual([true, false, true]);
  });

  it("throws what was refused and sends the plan anew", async () => {
    const hand = new LiveHand();
    const asked = hand.move(plan, by, drawn);
    FakeSocket.last.answer({ type: "problem:bad_input", status: 422, title: "move.thing: …" });
    await expect(asked).rejects.toBeInstanceOf(Refused);
    const again = hand.move(plan, by, drawn);
    FakeSocket.last.answer(moved);
    await again;
    expect(FakeSocket.last.sent.map((m) => "plan" in m)).toEqual([true, true]);
  });

  it("asks by request when the channel closes under it", async () => {
    const request = vi.spyOn(api, "move").mockResolvedValue(moved);
    const asked = new LiveHand().move(plan, by, drawn);
    FakeSocket.last.close();
    expect(await asked).toEqual(moved);
    expect(request).toHaveBeenCalledOnce();
  });
});
