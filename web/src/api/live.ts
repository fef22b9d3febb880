// The live channel of a dragging hand. A request for each move would cost more than the move; the plan that a drag begins from
// is sent once. The channel opens again by itself; while it cannot be had, moves go by requests.
import ReconnectingSocket from "partysocket/ws";

import { api, Refused, type Drawn, type Move, type Moved, type Plan, type Schemas } from "./client";

/** What is used of a socket. */
export interface Channel {
  readyState: number;
  send: (text: string) => void;
  close: () => void;
  onmessage: ((event: MessageEvent) => void) | null;
  onclose: ((event: never) => void) | null;
}

const OPEN = 1;

function opened(): Channel {
  const scheme = location.protocol === "https:" ? "wss" : "ws";
  return new ReconnectingSocket(`${scheme}://${location.host}/api/v1/hand`, [], {
    maxEnqueuedMessages: 0,
    maxReconnectionDelay: 5000,
  });
}

interface Waiting {
  take: (answer: string) => void;
  fail: (error: Error) => void;
}

export class LiveHand {
  #channel: Channel | null = null;
  #sent: Plan | null = null;
  #waiting: Waiting | null = null;
  readonly #make: () => Channel;

  constructor(make: () => Channel = opened) {
    this.#make = make;
  }

  /** Opens the channel, so that the first move need not wait for it. */
  open(): void {
    if (this.#channel) return;
    const channel = this.#make();
    channel.onmessage = (event) => this.#waiting?.take(String(event.data));
    channel.onclose = () => {
      this.#sent = null;
      this.#waiting?.fail(new Error("the channel closed"));
    };
    this.#channel = channel;
  }

  close(): void {
    this.#channel?.close();
    this.#channel = null;
  }

  /** One move at a time; the caller waits for each answer. */
  async move(plan: Plan, by: Move, drawn: Drawn): Promise<Moved> {
    this.open();
    const channel = this.#channel;
    if (channel?.readyState !== OPEN || this.#waiting) return api.move(plan, by, drawn);
    let text: string;
    try {
      text = await new Promise<string>((take, fail) => {
        this.#waiting = { take, fail };
        const known = this.#sent === plan;
        this.#sent = plan;
        channel.send(JSON.stringify({ ...(known ? {} : { plan }), move: by, drawn }));
      });
    } catch {
      return api.move(plan, by, drawn);
    } finally {
      this.#waiting = null;
    }
    const answer = JSON.parse(text) as Moved | Schemas["Details"];
    if ("judged" in answer) return answer;
    // Whatever was refused: the plan goes along anew next time.
    this.#sent = null;
    throw new Refused(answer, answer.status);
  }
}
