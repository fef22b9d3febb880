// The viewfinder's channel: the plan goes along once, the newest asked counts, pictures and refusals are told apart.
import { describe, expect, it } from "vitest";

import type { Plan } from "./client";
import { frameOf, Viewer, type PictureChannel } from "./viewer";

class FakeSocket implements PictureChannel {
  binaryType = "blob";
  sent: Record<string, unknown>[] = [];
  onopen: ((event: never) => void) | null = null;
  onmessage: ((event: MessageEvent) => void) | null = null;
  send(text: string) {
    this.sent.push(JSON.parse(text) as Record<string, unknown>);
  }
  close() {
    this.onmessage = null;
  }
  opens() {
    this.onopen?.(undefined as never);
  }
  answer(data: ArrayBuffer | string) {
    this.onmessage?.({ data } as MessageEvent);
  }
}

/** A picture of two pixels as the server sends it. */
function picture(generation: number, samples: number): ArrayBuffer {
  const told = new TextEncoder().encode(
    '{"face_stops":0.5,"clipped_percent":0,"sides_stops":null,"spots":[]}',
  );
  const bytes = new ArrayBuffer(20 + told.length + 8);
  const numbers = new DataView(bytes);
  [generation, 2, 1, samples, told.length].forEach((number, at) => numbers.setUint32(4 * at, number, true));
  new Uint8Array(bytes, 20).set(told);
  new Uint8Array(bytes, 20 + told.length).set([1, 2, 3, 255, 4, 5, 6, 255]);
  return bytes;
}

const plan = { name: "one" } as Plan;

function make() {
  const socket = new FakeSocket();
  const viewer = new Viewer(() => socket);
  viewer.show({ plan, width: 640, overlay: "none" });
  socket.opens();
  return { socket, viewer };
}

describe("the viewfinder's channel", () => {
  it("reads a picture", () => {
    const frame = frameOf(picture(7, 0x80000010));
    expect([frame.generation, frame.width, frame.height, frame.samples, frame.last]).toEqual([
      7,
      2,
      1,
      16,
      true,
    ]);
    expect(frame.told.face_stops).toBe(0.5);
    expect([...frame.pixels]).toEqual([1, 2, 3, 255, 4, 5, 6, 255]);
  });

  it("sends a plan once, and again when the channel has opened anew", () => {
    const { socket, viewer } = make();
    viewer.show({ plan, width: 640, overlay: "stops" });
    viewer.show({ plan, width: 640, overlay: "stops" });
    viewer.show({ plan: { ...plan }, width: 640, overlay: "stops" });
    socket.opens();
    expect(socket.sent.map((told) => ["plan" in told, told["generation"], told["overlay"]])).toEqual([
      [true, 1, "none"],
      [false, 2, "stops"],
      [true, 3, "stops"],
      [true, 3, "stops"],
    ]);
  });

  it("says when a picture was drawn, and keeps what a look found until the plan changes", () => {
    const { socket, viewer } = make();
    socket.answer(picture(1, 1));
    const { frame } = viewer.view();
    if (!frame) throw new Error("there is a picture");
    viewer.drawn(frame);
    viewer.look([0.5, 0.25]);
    expect(socket.sent.slice(1)).toEqual([{ seen: 1 }, { look: [0.5, 0.25] }]);
    const found = {
      look: [0.5, 0.25],
      thing: "skin",
      stops: 0.1,
      over_face_stops: 0,
      shown: [1, 2, 3],
      clips: false,
    };
    socket.answer(JSON.stringify(found));
    expect(viewer.view().looked).toEqual(found);
    viewer.show({ plan: { ...plan }, width: 640, overlay: "none" });
    expect(viewer.view().looked).toBeNull();
  });

  it("says that the machine is slow once pictures come late one after the other, and waits where it is told to", () => {
    let now = 0;
    const socket = new FakeSocket();
    const viewer = new Viewer(
      () => socket,
      () => now,
    );
    const come = (generation: number, after: number) => {
      viewer.show({ plan: { ...plan }, width: 640, overlay: "none" });
      if (generation === 1) socket.opens();
      now += after;
      socket.answer(picture(generation, 1));
      return viewer.view().slow_ms;
    };
    // The first one makes room and person; one in between is in time.
    expect([come(1, 2500), come(2, 2100), come(3, 100)]).toEqual([null, null, null]);
    expect([come(4, 2600), come(5, 2700), come(6, 2800)]).toEqual([null, null, 2800]);
    // A finer one of the same picture says nothing new.
    now += 9000;
    socket.answer(picture(6, 2));
    expect(viewer.view().slow_ms).toBe(2800);
    viewer.wait();
    expect(viewer.view().slow_ms).toBeNull();
    expect([come(7, 5000), come(8, 5000), come(9, 5000), come(10, 5000)]).toEqual([null, null, null, null]);
  });

  it("counts from when a picture was asked for, not from when a later one was", () => {
    let now = 0;
    const socket = new FakeSocket();
    const viewer = new Viewer(
      () => socket,
      () => now,
    );
    for (let generation = 1; generation <= 12; generation += 1) {
      viewer.show({ plan: { ...plan }, width: 640, overlay: "none" });
      if (generation === 1) socket.opens();
      now += 500;
      // Under a drag the picture of two moves ago comes: a second late, never three in a row beyond two.
      if (generation > 2) socket.answer(picture(generation - 2, 1));
      expect(viewer.view().slow_ms).toBeNull();
    }
  });

  it("rests with its picture, and takes the same plan up again when it wakes", () => {
    const { socket, viewer } = make();
    socket.answer(picture(1, 1));
    viewer.rest();
    expect(viewer.view().frame?.samples).toBe(1);
    viewer.wake();
    viewer.wake();
    socket.opens();
    expect(socket.sent.map((told) => ["plan" in told, told["generation"]])).toEqual([
      [true, 1],
      [true, 1],
    ]);
  });

  it("keeps the last picture beside what was refused", () => {
    const { socket, viewer } = make();
    socket.answer(picture(1, 1));
    socket.answer(JSON.stringify({ type: "problem:bad_input", status: 422, title: "plan: …" }));
    expect([viewer.view().frame?.samples, viewer.view().trouble?.message]).toEqual([1, "plan: …"]);
    socket.answer(picture(2, 2));
    expect(viewer.view().trouble).toBeNull();
  });
});
