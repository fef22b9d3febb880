// The live channel of a dragging hand. A request for each move would cost more than the move; the plan that a drag begins
// from is sent once. Where the channel cannot be had, moves go by requests.
import { api, Refused, type Drawn, type Move, type Moved, type Plan, type Schemas } from "./client";

interface Waiting {
  take: (answer: string) => void;
  fail: (error: Error) => void;
}

export class LiveHand {
  private socket: WebSocket | null = null;
  private sent: Plan | null = null;
  private waiting: Waiting | null = null;

  /** Opens the channel, so that the first move need not wait for it. */
  open(): void {
    if (this.socket || typeof WebSocket === "undefined") return;
    const socket = new WebSocket(
      `${location.protocol === "https:" ? "wss" : "ws"}://${location.host}/api/v1/hand`,
    );
    socket.onmessage = (event) => this.waiting?.take(String(event.data));
    socket.onclose = () => {
      if (this.socket === socket) this.socket = null;
      this.sent = null;
      this.waiting?.fail(new Error("the channel closed"));
    };
    this.socket = socket;
  }

  close(): void {
    this.socket?.close();
    this.socket = null;
  }

  /** One move at a time; the caller waits for each answer. */
  async move(plan: Plan, by: Move, drawn: Drawn): Promise<Moved> {
    this.open();
    const { socket } = this;
    if (socket?.readyState !== WebSocket.OPEN || this.waiting) return api.move(plan, by, drawn);
    let text: string;
    try {
      text = await new Promise<string>((take, fail) => {
        this.waiting = { take, fail };
        const known = this.sent === plan;
        this.sent = plan;
        socket.send(JSON.stringify({ ...(known ? {} : { plan }), move: by, drawn }));
      });
    } catch {
      return api.move(plan, by, drawn);
    } finally {
      this.waiting = null;
    }
    const answer = JSON.parse(text) as Moved | Schemas["Details"];
    if ("judged" in answer) return answer;
    // Whatever was refused: the plan goes along anew next time.
    this.sent = null;
    throw new Refused(answer, answer.status);
  }
}
