/** One DNS question to one server over its own sockets: UDP with EDNS, TCP when the answer was cut. */
import dgram from 'node:dgram';
import net from 'node:net';
import packet from 'dns-packet';
import type { Answer, DecodedPacket } from 'dns-packet';
import ipaddr from 'ipaddr.js';
import type { DnsAnswer, DnsRecord } from '#core/facts/evidence';
import type { Destination } from '../addresses';

export type Question = { name: string; type: string };
export type WireAnswer = Pick<
  DnsAnswer,
  | 'rcode'
  | 'authoritative'
  | 'authenticated'
  | 'transport'
  | 'records'
  | 'authority'
  | 'additional'
  | 'ms'
  | 'error'
>;

const RCODES = ['NOERROR', 'FORMERR', 'SERVFAIL', 'NXDOMAIN', 'NOTIMP', 'REFUSED'];
const AA = 0x400,
  TC = 0x200,
  RD = 0x100,
  AD = 0x20,
  CD = 0x10;
/** Types that the codec does not name (RFC 9460: HTTPS is 65). */
const NUMBERED: Record<string, string> = { HTTPS: 'UNKNOWN_65' };
const typeName = (codec: string): string => Object.keys(NUMBERED).find((n) => NUMBERED[n] === codec) ?? codec;
const UDP_SIZE = 1232;

const plain = (name: string): string => name.toLowerCase().replace(/\.$/, '');

function encode(
  { name, type }: Question,
  id: number,
  recursive: boolean,
  edns: boolean,
  unchecked: boolean,
): Buffer {
  return packet.encode({
    type: 'query',
    id,
    flags: (recursive ? RD : 0) | (unchecked ? CD : AD),
    questions: [{ type: (NUMBERED[type] ?? type) as 'A', name: plain(name), class: 'IN' }],
    additionals: edns
      ? [
          {
            type: 'OPT',
            name: '.',
            udpPayloadSize: UDP_SIZE,
            extendedRcode: 0,
            ednsVersion: 0,
            flags: 0,
            flag_do: false,
            options: [],
          },
        ]
      : [],
  });
}

/**
 * Decodes an answer. Forged counts are refused before they cost time: each record takes at least eleven
 * bytes.
 * @throws Error when it is no answer to this question
 */
export function decodeAnswer(
  bytes: Buffer,
  question: Question,
  id: number,
): DecodedPacket & { cut: boolean; code: number } {
  if (bytes.length < 12) throw new Error('shorter than a header');
  if (bytes.readUInt16BE(0) !== id) throw new Error('another id');
  const flags = bytes.readUInt16BE(2);
  if (!(flags & 0x8000)) throw new Error('no response');
  const cut = (flags & TC) !== 0;
  const counts = [4, 6, 8, 10].map((o) => bytes.readUInt16BE(o)) as [number, number, number, number];
  if (cut)
    return {
      cut,
      code: flags & 15,
      answers: [],
      authorities: [],
      additionals: [],
      questions: [],
    } as unknown as DecodedPacket & { cut: boolean; code: number };
  if (12 + counts[0] * 5 + (counts[1] + counts[2] + counts[3]) * 11 > bytes.length)
    throw new Error('counts that do not fit its length');
  const decoded = packet.decode(bytes);
  const q = decoded.questions?.[0];
  const code = flags & 15;
  if (q ? plain(q.name) !== plain(question.name) || typeName(q.type) !== question.type : code === 0)
    throw new Error('another question');
  return Object.assign(decoded, { cut, code });
}

function valueOf(a: Answer): string | undefined {
  const data = (a as { data?: unknown }).data;
  switch (a.type) {
    case 'A':
      return String(data);
    // one spelling (RFC 5952); mapped addresses stay IPv6 in an AAAA record
    case 'AAAA':
      return ipaddr.isValid(String(data)) ? ipaddr.parse(String(data)).toString() : String(data);
    case 'CNAME':
    case 'NS':
    case 'PTR':
      return String(data);
    case 'MX': {
      const d = data as { preference: number; exchange: string };
      return `${d.preference} ${d.exchange}`;
    }
    case 'TXT':
      return (Array.isArray(data) ? data : [data])
        .map((s) => `"${escapeString(Buffer.isBuffer(s) ? s : Buffer.from(String(s)))}"`)
        .join(' ');
    case 'SOA': {
      const d = data as {
        mname: string;
        rname: string;
        serial: number;
        refresh: number;
        retry: number;
        expire: number;
        minimum: number;
      };
      return `${d.mname} ${d.rname} ${d.serial} ${d.refresh} ${d.retry} ${d.expire} ${d.minimum}`;
    }
    case 'CAA': {
      const d = data as { flags: number; tag: string; value: string };
      return `${d.flags ?? 0} ${d.tag} "${d.value}"`;
    }
    case 'SRV': {
      const d = data as { priority?: number; weight?: number; port: number; target: string };
      return `${d.priority ?? 0} ${d.weight ?? 0} ${d.port} ${d.target}`;
    }
    case 'DS': {
      const d = data as { keyTag: number; algorithm: number; digestType: number; digest: Buffer };
      return `${d.keyTag} ${d.algorithm} ${d.digestType} ${d.digest.toString('hex').toUpperCase()}`;
    }
    case 'DNSKEY': {
      const d = data as { flags: number; algorithm: number; key: Buffer };
      return `${d.flags} 3 ${d.algorithm} ${d.key.toString('base64')}`;
    }
    default:
      return Buffer.isBuffer(data) && typeName(a.type) !== a.type ? serviceValue(data) : undefined;
  }
}

/** SVCB and HTTPS: priority and target; the parameters in the generic form of RFC 3597 5. */
function serviceValue(data: Buffer): string {
  if (data.length < 3) return `\\# ${data.length} ${data.toString('hex')}`;
  const labels: string[] = [];
  let at = 2;
  while (at < data.length && data[at]) {
    labels.push(data.toString('latin1', at + 1, at + 1 + data[at]!));
    at += 1 + data[at]!;
  }
  const rest = data.subarray(at + 1);
  return `${data.readUInt16BE(0)} ${labels.join('.') || '.'}${rest.length ? ` \\# ${rest.length} ${rest.toString('hex')}` : ''}`;
}

/** RFC 1035 5.1: quotes and backslashes escaped, other octets outside printable ASCII as \DDD. */
function escapeString(bytes: Buffer): string {
  let out = '';
  for (const b of bytes.subarray(0, 4096))
    out +=
      b === 0x22 || b === 0x5c
        ? `\\${String.fromCharCode(b)}`
        : b < 0x20 || b > 0x7e
          ? `\\${String(b).padStart(3, '0')}`
          : String.fromCharCode(b);
  return out;
}

function records(answers: readonly Answer[] = []): DnsRecord[] {
  const out: DnsRecord[] = [];
  for (const a of answers.slice(0, 200)) {
    const value = valueOf(a);
    if (value !== undefined)
      out.push({
        name: plain(a.name),
        type: typeName(a.type),
        ttl: Number((a as { ttl?: number }).ttl ?? 0),
        value: value.slice(0, 8192),
      });
  }
  return out;
}

/** What stands beside the answer: referrals and the SOA of a negative answer, and glue. */
function beside(decoded: DecodedPacket): Pick<WireAnswer, 'authority' | 'additional'> {
  const authority = records(decoded.authorities).filter((r) => r.type === 'NS' || r.type === 'SOA');
  const additional = records(decoded.additionals).filter((r) => r.type === 'A' || r.type === 'AAAA');
  return { ...(authority.length ? { authority } : {}), ...(additional.length ? { additional } : {}) };
}

function overUdp(
  server: Destination,
  message: Buffer,
  accept: (b: Buffer) => boolean,
  ms: number,
): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const socket = dgram.createSocket(server.address.includes(':') ? 'udp6' : 'udp4');
    const end = (error: Error | null, bytes?: Buffer) => {
      clearTimeout(timer);
      socket.removeAllListeners();
      socket.on('error', () => {});
      socket.close();
      if (error) reject(error);
      else resolve(bytes!);
    };
    const timer = setTimeout(
      () => end(Object.assign(new Error('no answer in time'), { code: 'ETIMEDOUT' })),
      ms,
    );
    socket.on('error', end);
    // a forged or stray answer is passed over; the right one may still come
    socket.on('message', (bytes) => {
      if (accept(bytes)) end(null, bytes);
    });
    socket.connect(server.port, server.address, () =>
      socket.send(message, (e) => {
        if (e) end(e);
      }),
    );
  });
}

function overTcp(server: Destination, message: Buffer, ms: number): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const socket = net.connect({ host: server.address, port: server.port });
    let got = Buffer.alloc(0);
    const end = (error: Error | null, bytes?: Buffer) => {
      clearTimeout(timer);
      socket.removeAllListeners();
      socket.on('error', () => {});
      socket.destroy();
      if (error) reject(error);
      else resolve(bytes!);
    };
    const timer = setTimeout(
      () => end(Object.assign(new Error('no answer in time'), { code: 'ETIMEDOUT' })),
      ms,
    );
    socket.on('error', end);
    socket.on('close', () => end(new Error('the connection was cut off')));
    socket.on('connect', () => {
      const head = Buffer.alloc(2);
      head.writeUInt16BE(message.length);
      socket.write(Buffer.concat([head, message]));
    });
    socket.on('data', (chunk) => {
      got = Buffer.concat([got, chunk]);
      if (got.length >= 2 && got.length >= 2 + got.readUInt16BE(0))
        end(null, got.subarray(2, 2 + got.readUInt16BE(0)));
    });
  });
}

/**
 * Asks one server. Never throws: silence and nonsense come back as rcode NONE with the reason.
 * @param options.recursive set for resolvers
 * @param options.unchecked asks a validating resolver not to check (RFC 4035 3.2.2)
 */
export async function ask(
  server: Destination,
  question: Question,
  options: {
    recursive: boolean;
    unchecked?: boolean;
    timeoutMs: number;
    id: () => number;
    now: () => number;
  },
): Promise<WireAnswer> {
  const started = options.now();
  const fail = (error: string, transport: 'udp' | 'tcp' = 'udp'): WireAnswer => ({
    rcode: 'NONE',
    authoritative: false,
    authenticated: false,
    transport,
    records: [],
    ms: Math.round(options.now() - started),
    error,
  });
  let edns = true;
  let reason = 'no answer in time';
  for (let attempt = 0; attempt < 3; attempt++) {
    const id = options.id();
    let message: Buffer;
    try {
      message = encode(question, id, options.recursive, edns, options.unchecked ?? false);
    } catch (error) {
      return fail(`the name cannot be asked for: ${(error as Error).message}`);
    }
    try {
      let transport: 'udp' | 'tcp' = 'udp';
      let bytes = await overUdp(
        server,
        message,
        (b) => {
          try {
            decodeAnswer(b, question, id);
            return true;
          } catch (error) {
            reason = `an answer that is none: ${(error as Error).message}`;
            return false;
          }
        },
        options.timeoutMs / 2,
      );
      let decoded = decodeAnswer(bytes, question, id);
      if (decoded.cut) {
        transport = 'tcp';
        bytes = await overTcp(server, message, options.timeoutMs);
        decoded = decodeAnswer(bytes, question, id);
      }
      if (decoded.code === 1 && edns) {
        edns = false;
        continue;
      }
      const flags = bytes.readUInt16BE(2);
      return {
        rcode: RCODES[decoded.code] ?? `RCODE${decoded.code}`,
        authoritative: (flags & AA) !== 0,
        authenticated: (flags & AD) !== 0,
        transport,
        records: records(decoded.answers),
        ...beside(decoded),
        ms: Math.round(options.now() - started),
      };
    } catch (error) {
      const code = (error as { code?: string }).code;
      if (code === 'ECONNREFUSED') return fail('the server refused the question (nothing listens there)');
      if (code !== 'ETIMEDOUT') reason = (error as Error).message;
      if (attempt === 1) return fail(reason);
    }
  }
  return fail(reason);
}
