/**
 * HTTP/2 (RFC 9113) for servers that speak nothing older: one session an origin over the dialer's sockets.
 */
import http2 from 'node:http2';
import type { Readable } from 'node:stream';
import type tls from 'node:tls';
import { ProbeError } from '../network-error';

export interface H2Answer {
  status: number;
  headers: [string, string][];
  body: Readable;
}

export class H2Session {
  private session: Promise<http2.ClientHttp2Session> | undefined;

  /** @param open makes a TLS connection that agreed on h2 */
  constructor(
    private readonly origin: string,
    private readonly open: () => Promise<tls.TLSSocket>,
  ) {}

  private connect(): Promise<http2.ClientHttp2Session> {
    return (this.session ??= (async () => {
      const socket = await this.open();
      if (socket.alpnProtocol !== 'h2') {
        socket.destroy();
        throw new ProbeError('protocol', 'the server speaks neither HTTP/1.1 nor HTTP/2');
      }
      const session = http2.connect(this.origin, {
        createConnection: () => socket,
        maxHeaderListPairs: 400,
        maxSessionMemory: 50,
        settings: { enablePush: false },
      });
      const gone = () => {
        this.session = undefined;
      };
      session.on('error', gone);
      session.on('close', gone);
      return session;
    })().catch((error: unknown) => {
      this.session = undefined;
      throw error;
    }));
  }

  /** Sends one request; the body has to be read or destroyed. */
  async request(
    path: string,
    method: string,
    headers: Record<string, string>,
    signal: AbortSignal,
  ): Promise<H2Answer> {
    const session = await this.connect();
    return new Promise((resolve, reject) => {
      const stream = session.request({ ':method': method, ':path': path, ...headers }, { endStream: true });
      const stop = () => stream.destroy(signal.reason as Error);
      signal.addEventListener('abort', stop, { once: true });
      stream.once('close', () => signal.removeEventListener('abort', stop));
      stream.once('error', reject);
      stream.once('response', (got, _flags, raw?: unknown) => {
        stream.removeListener('error', reject);
        stream.on('error', () => {});
        resolve({ status: Number(got[':status']), headers: pairsOf(got, raw), body: stream });
      });
      if (signal.aborted) stop();
    });
  }

  async close(): Promise<void> {
    (await this.session?.catch(() => undefined))?.destroy();
  }
}

/** Header fields in the order they came, where Node passes them on raw; else as it grouped them. */
function pairsOf(got: http2.IncomingHttpHeaders, raw: unknown): [string, string][] {
  const list = Array.isArray(raw)
    ? raw.map(String)
    : Object.entries(got).flatMap(([name, value]) =>
        (Array.isArray(value) ? value : [value ?? '']).flatMap((v) => [name, String(v)]),
      );
  const out: [string, string][] = [];
  for (let i = 0; i + 1 < list.length && out.length < 200; i += 2)
    if (!list[i]!.startsWith(':')) out.push([list[i]!, list[i + 1]!.slice(0, 8192)]);
  return out;
}
