/**
 * The browser's only way to a network: a forward proxy on loopback whose connections are all made by the
 * dialer, by its rules.
 */
import { parseUrl } from '#core/extract/address';
import http from 'node:http';
import type net from 'node:net';
import type { AddressInfo } from 'node:net';
import type { Dialer } from '../dialer';
import { describe } from '../network-error';

export interface ProxyLimits {
  /** Of what all servers send altogether. */
  bytes: number;
  /** Connections at once, and altogether. */
  atOnce: number;
  connections: number;
}

const LIMITS: ProxyLimits = { bytes: 200 * 1024 * 1024, atOnce: 128, connections: 4000 };
const MOST_REFUSALS = 100;

/** Splits "host:port" as CONNECT has it (RFC 9110 9.3.6). */
function authority(text: string | undefined): { host: string; port: number } | undefined {
  const m = /^(\[[^\]]+\]|[^:/\s]+):(\d{1,5})$/.exec(text ?? '');
  const port = Number(m?.[2]);
  return m && port >= 1 && port <= 65_535 ? { host: m[1]!, port } : undefined;
}

export class RenderProxy {
  private readonly sockets = new Set<net.Socket>();
  private received = 0;
  private made = 0;
  /** Why a host was not reached, in words. */
  readonly refusals = new Map<string, string>();

  private constructor(
    private readonly dialer: Dialer,
    private readonly server: http.Server,
    private readonly limits: ProxyLimits,
  ) {}

  /** @returns one that listens on a port of its own */
  static async start(dialer: Dialer, limits: Partial<ProxyLimits> = {}): Promise<RenderProxy> {
    const server = http.createServer();
    const proxy = new RenderProxy(dialer, server, { ...LIMITS, ...limits });
    server.on('connect', (req: http.IncomingMessage, socket: net.Socket, head: Buffer) => {
      void proxy.tunnel(req, socket, head);
    });
    server.on('request', (req: http.IncomingMessage, res: http.ServerResponse) => {
      void proxy.forward(req, res);
    });
    server.on('connection', (socket: net.Socket) => proxy.hold(socket));
    server.on('clientError', (_error: Error, socket: net.Socket) => socket.destroy());
    await new Promise<void>((resolve, reject) => {
      server.once('error', reject);
      server.listen(0, '127.0.0.1', resolve);
    });
    return proxy;
  }

  get address(): string {
    return `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
  }

  /** Why nothing more is let through; undefined while there is something left. */
  get spent(): string | undefined {
    const { received, made, limits } = this;
    if (received > limits.bytes) return `more than ${Math.round(limits.bytes / 1024 / 1024)} MB were sent`;
    return made > limits.connections ? `more than ${limits.connections} connections were made` : undefined;
  }

  private hold(socket: net.Socket): void {
    this.sockets.add(socket);
    socket.once('close', () => this.sockets.delete(socket));
    // a browser that goes away is no fault
    socket.on('error', () => socket.destroy());
  }

  private refuse(host: string, why: string): string {
    if (this.refusals.size < MOST_REFUSALS) this.refusals.set(host, why);
    return why;
  }

  /** @returns a socket that counts what it receives; or why there is none */
  private async dial(host: string, port: number): Promise<net.Socket | string> {
    this.made++;
    if (this.spent) return this.refuse(host, this.spent);
    // each has two: the browser's and the server's
    if (this.sockets.size > this.limits.atOnce * 2) return this.refuse(host, 'too many connections at once');
    try {
      const { socket } = await this.dialer.connect(host, port);
      this.hold(socket);
      socket.on('data', (chunk: Buffer) => {
        this.received += chunk.length;
        if (this.spent) this.cut();
      });
      return socket;
    } catch (error) {
      return this.refuse(host, describe(error).message);
    }
  }

  private async tunnel(req: http.IncomingMessage, client: net.Socket, head: Buffer): Promise<void> {
    const to = authority(req.url);
    const server = to ? await this.dial(to.host, to.port) : 'no host and port';
    if (typeof server === 'string' || client.destroyed) {
      if (typeof server !== 'string') server.destroy();
      client.end('HTTP/1.1 502 Bad Gateway\r\ncontent-length: 0\r\n\r\n');
      return;
    }
    client.write('HTTP/1.1 200 Connection established\r\n\r\n');
    if (head.length) server.write(head);
    server.pipe(client);
    client.pipe(server);
    server.once('close', () => client.destroy());
    client.once('close', () => server.destroy());
  }

  /** A request for an http: address, one connection each. */
  private async forward(req: http.IncomingMessage, res: http.ServerResponse): Promise<void> {
    const url = /^http:\/\//i.test(req.url ?? '') ? parseUrl(req.url!) : undefined;
    if (!url) {
      res.writeHead(400).end();
      return;
    }
    const socket = await this.dial(url.hostname, Number(url.port || 80));
    if (typeof socket === 'string') {
      // an answer of ours would look like one of the server’s
      res.destroy();
      return;
    }
    const { 'proxy-connection': _hop, ...headers } = req.headers;
    const out = http.request({
      createConnection: () => socket,
      method: req.method,
      path: url.pathname + url.search,
      headers: { ...headers, host: url.host, connection: 'close' },
    });
    out.once('response', (answer) => {
      const { 'transfer-encoding': _coding, ...kept } = answer.headers;
      res.writeHead(answer.statusCode!, kept);
      answer.pipe(res);
    });
    out.once('error', () => res.destroy());
    res.once('close', () => socket.destroy());
    req.pipe(out);
  }

  private cut(): void {
    for (const socket of this.sockets) socket.destroy();
  }

  /** Ends everything that goes through it. */
  async close(): Promise<void> {
    const closed = new Promise<void>((resolve) => this.server.close(() => resolve()));
    this.cut();
    await closed;
  }
}
