// The live channel: the plan goes along once, refusals arrive as such, and a closed channel falls back to requests.
import { afterEach, describe, expect, it, vi } from "vitest";

import { api, Refused, type Move, type Moved, type Plan } from "./client";
import { LiveHand, type Channel } from "./live";

class FakeSocket implements Channel {
  static last: FakeSocket;
  readyState = 1;
  sent: Record<string, unknown>[] = [];
  onmessage: ((event: MessageEvent) => void) | null = null;
  onclose: ((event: never) => void) | null = null;

  constructor() {
    FakeSocket.last = this;
  }
  send(text: string) {
    this.sent.push(JSON.parse(text) as Record<string, unknown>);
  }
  close() {
    this.onclose?.(undefined as never);
  }
  answer(data: unknown) {
    this.onmessage?.({ data: JSON.stringify(data) } as MessageEvent);
  }
}

const plan = { name: "one" } as Plan;
const by = { thing: "key", to_m: [1, 2, 1.5] } as Move;
const drawn = { text_scale: 1, frame_text_scale: 1 };
const moved = { plan, judged: {}, snaps: [], held: null, dropped: [] } as unknown as Moved;

afterEach(() => {
  vi.restoreAllMocks();
});

const live = () => new LiveHand(() => new FakeSocket());

describe("the live channel", () => {
  it("sends the plan of a drag once, and another when there is another", async () => {
    const hand = live();
    for (const from of [plan, plan, { ...plan }]) {
      const asked = hand.move(from, by, drawn);
      FakeSocket.last.answer(moved);
      expect(await asked).toEqual(moved);
    }
    expect(FakeSocket.last.sent.map((m) => "plan" in m)).toEqual([true, false, true]);
  });

  it("throws what was refused and sends the plan anew", async () => {
    const hand = live();
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
    const asked = live().move(plan, by, drawn);
    FakeSocket.last.close();
    expect(await asked).toEqual(moved);
    expect(request).toHaveBeenCalledOnce();
  });
});
