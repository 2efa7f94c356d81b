/** Small servers on loopback for the tests of the probe. */
import dgram from 'node:dgram';
import http from 'node:http';
import net, { type AddressInfo } from 'node:net';
import packet from 'dns-packet';

export class LocalServers {
  private readonly closers: (() => void)[] = [];

  /** An HTTP server; @returns its address with a final slash. */
  async http(handler: http.RequestListener): Promise<string> {
    const server = http.createServer(handler);
    this.closers.push(() => {
      server.closeAllConnections();
      server.close();
    });
    await new Promise<void>((r) => server.listen(0, '127.0.0.1', r));
    return `http://127.0.0.1:${(server.address() as AddressInfo).port}/`;
  }

  /** A bare TCP server. */
  async tcp(onConnect: (s: net.Socket) => void): Promise<number> {
    const sockets = new Set<net.Socket>();
    const server = net.createServer((s) => {
      sockets.add(s);
      s.on('error', () => {});
      onConnect(s);
    });
    this.closers.push(() => {
      for (const s of sockets) s.destroy();
      server.close();
    });
    await new Promise<void>((r) => server.listen(0, '127.0.0.1', r));
    return (server.address() as AddressInfo).port;
  }

  /** A DNS server over UDP; the function makes the raw answer, or none. @returns "address:port" */
  async dns(answer: (query: packet.DecodedPacket) => Buffer | Buffer[] | null): Promise<string> {
    const socket = dgram.createSocket('udp4');
    socket.on('message', (bytes, from) => {
      const out = answer(packet.decode(bytes));
      for (const b of out === null ? [] : Array.isArray(out) ? out : [out])
        socket.send(b, from.port, from.address);
    });
    this.closers.push(() => socket.close());
    await new Promise<void>((r) => socket.bind(0, '127.0.0.1', r));
    return `127.0.0.1:${socket.address().port}`;
  }

  close(): void {
    for (const c of this.closers.splice(0)) c();
  }
}

type Answers = packet.Answer[];
/** An ordinary answer to a query. */
export function dnsReply(
  query: packet.DecodedPacket,
  answers: Answers,
  more: { rcode?: number; flags?: number; id?: number; questions?: packet.Question[] } = {},
): Buffer {
  return packet.encode({
    type: 'response',
    id: more.id ?? query.id,
    flags: (more.flags ?? 0x80) | (more.rcode ?? 0),
    questions: more.questions ?? query.questions,
    answers,
  });
}
