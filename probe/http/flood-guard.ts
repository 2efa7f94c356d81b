/**
 * A limit on what one answer may send at all: endless interim answers and chunk extensions never reach the
 * body's own limit.
 */
import { subscribe } from 'node:diagnostics_channel';
import type { Socket } from 'node:net';
import { ProbeError } from '../network-error';

/** What a socket had read when its present request was sent. */
const begun = new WeakMap<Socket, number>();
let listening = false;

/** Watches the sockets of one client. */
export class FloodGuard {
  private readonly sockets = new Set<Socket>();
  private timer: NodeJS.Timeout | undefined;

  /** @param limit bytes that one answer may take on the wire, headers and framing included */
  constructor(private readonly limit: number) {
    if (listening) return;
    listening = true;
    subscribe('undici:client:sendHeaders', (message) => {
      const { socket } = message as { socket: Socket };
      begun.set(socket, socket.bytesRead);
    });
  }

  watch(socket: Socket): void {
    this.sockets.add(socket);
    socket.once('close', () => {
      this.sockets.delete(socket);
      if (!this.sockets.size) this.end();
    });
    this.timer ??= setInterval(() => this.look(), 100).unref();
  }

  private look(): void {
    for (const s of this.sockets)
      if (s.bytesRead - (begun.get(s) ?? 0) > this.limit)
        s.destroy(new ProbeError('too-large', `the answer takes more than ${this.limit} bytes on the wire`));
  }

  end(): void {
    clearInterval(this.timer);
    this.timer = undefined;
  }
}
