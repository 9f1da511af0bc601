// The connection to `ubbo live`: files that change, other viewers, saving. The page works without it; when it goes,
// the contacts that are down are cancelled, and it is made again.
import type { Given, Source } from './session';

export type FromServer =
  | { what: 'scene'; source: Source }
  | { what: 'given'; given: Given[] }
  | { what: 'turn'; whose: 'yours' | 'others' | 'free' }
  | { what: 'changes'; changes: [string, string][] }
  | { what: 'viewers'; count: number }
  | { what: 'saved'; name: string }
  | { what: 'refused'; why: string };

export class Link {
  turn: 'yours' | 'others' | 'free' = 'free';
  viewers = 1;
  open = false;
  private socket: WebSocket | undefined;
  private waiting: Given[] = [];
  private wait = 250;

  constructor(
    private readonly hear: (message: FromServer) => void,
    private readonly changed: () => void,
  ) {
    this.connect();
    document.addEventListener('visibilitychange', () => {
      if (document.visibilityState === 'visible' && !this.open) this.connect();
    });
  }

  private connect(): void {
    if (this.socket !== undefined && this.socket.readyState <= WebSocket.OPEN) return;
    const at = new URL('link', window.location.href);
    at.protocol = at.protocol === 'https:' ? 'wss:' : 'ws:';
    const socket = new WebSocket(at);
    this.socket = socket;
    socket.onopen = () => {
      this.open = true;
      this.wait = 250;
      this.changed();
    };
    socket.onmessage = ({ data }) => {
      const message = JSON.parse(String(data)) as FromServer;
      if (message.what === 'turn') this.turn = message.whose;
      if (message.what === 'viewers') this.viewers = message.count;
      this.hear(message);
      this.changed();
    };
    socket.onclose = () => {
      if (this.socket !== socket) return;
      const before = this.open;
      this.open = false;
      this.turn = 'free';
      this.viewers = 1;
      if (before) this.hear({ what: 'refused', why: 'The connection to ubbo live is gone; it is being made again.' });
      this.changed();
      window.setTimeout(() => this.connect(), this.wait);
      this.wait = Math.min(8000, 2 * this.wait);
    };
  }

  private send(message: object): void {
    if (this.open) this.socket?.send(JSON.stringify(message));
  }

  /** What was touched, for the others; sent together once a frame. */
  give(given: Given): void {
    if (!this.open || this.viewers < 2) return;
    this.waiting.push(given);
    if (this.waiting.length > 1) return;
    requestAnimationFrame(() => {
      if (this.waiting.length > 0) this.send({ what: 'given', given: this.waiting });
      this.waiting = [];
    });
  }
  /** All rests: someone else may touch. */
  rests(): void {
    if (this.turn === 'yours') this.send({ what: 'rests' });
  }
  change(changes: ReadonlyMap<string, string>): void {
    this.send({ what: 'changes', changes: [...changes] });
  }
  save(changes: ReadonlyMap<string, string>): void {
    this.send({ what: 'save', changes: [...changes] });
  }
  keep(name: string, text: string): void {
    this.send({ what: 'keep', name, text });
  }
}
