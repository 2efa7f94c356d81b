/** A DNS server over UDP and TCP that answers from a function. */
import dgram from 'node:dgram';
import net from 'node:net';
import packet from 'dns-packet';

export interface ZoneRecord {
  name: string;
  type: string;
  ttl: number;
  value: string;
}
/** rcode 0 with no answers is NODATA; 3 is NXDOMAIN. */
export interface ZoneAnswer {
  rcode: number;
  authoritative: boolean;
  records: ZoneRecord[];
  authority?: ZoneRecord[];
  additional?: ZoneRecord[];
  authenticated?: boolean;
}
export type Answerer = (name: string, type: string, flags: { checkingDisabled: boolean }) => ZoneAnswer;

const AA = 0x400,
  RA = 0x80,
  RD = 0x100,
  TC = 0x200,
  AD = 0x20,
  CD = 0x10;

function wire(r: ZoneRecord): packet.Answer {
  const base = { name: r.name, ttl: r.ttl, class: 'IN' as const };
  switch (r.type) {
    case 'MX': {
      const [preference, exchange] = r.value.split(' ');
      return { ...base, type: 'MX', data: { preference: Number(preference), exchange: exchange! } };
    }
    // a string holds at most 255 octets (RFC 1035 3.3)
    case 'TXT':
      return { ...base, type: 'TXT', data: r.value.match(/[\s\S]{1,255}/g) ?? [''] };
    case 'SOA': {
      const [mname, rname, serial, refresh, retry, expire, minimum] = r.value.split(' ');
      return {
        ...base,
        type: 'SOA',
        data: {
          mname: mname!,
          rname: rname!,
          serial: Number(serial),
          refresh: Number(refresh),
          retry: Number(retry),
          expire: Number(expire),
          minimum: Number(minimum),
        },
      };
    }
    case 'CAA': {
      const [flags, tag, value] = r.value.split(' ');
      return { ...base, type: 'CAA', data: { flags: Number(flags), tag: tag as 'issue', value: value! } };
    }
    case 'DS': {
      const [keyTag, algorithm, digestType, digest] = r.value.split(' ');
      return {
        ...base,
        type: 'DS',
        data: {
          keyTag: Number(keyTag),
          algorithm: Number(algorithm),
          digestType: Number(digestType),
          digest: Buffer.from(digest!, 'hex'),
        },
      } as unknown as packet.Answer;
    }
    case 'DNSKEY': {
      const [flags, , algorithm, key] = r.value.split(' ');
      return {
        ...base,
        type: 'DNSKEY',
        data: { flags: Number(flags), algorithm: Number(algorithm), key: Buffer.from(key!, 'base64') },
      } as unknown as packet.Answer;
    }
    default:
      return { ...base, type: r.type as 'A', data: r.value } as packet.Answer;
  }
}

const OWN_OPT = {
  type: 'OPT',
  name: '.',
  udpPayloadSize: 1232,
  extendedRcode: 0,
  ednsVersion: 0,
  flags: 0,
  flag_do: false,
  options: [],
} as packet.Answer;

function decoded(query: Buffer): packet.DecodedPacket | null {
  try {
    return packet.decode(query);
  } catch {
    return null;
  }
}

function flagsOf(asked: packet.DecodedPacket, answer: ZoneAnswer): number {
  const repeated = (asked.flags ?? 0) & (RD | CD);
  const isReferral = Boolean(answer.authority?.length);
  const standing = answer.authoritative ? AA : isReferral ? 0 : RA;
  return repeated | standing | (answer.authenticated ? AD : 0) | answer.rcode;
}

/** The most bytes that an answer may have. */
function roomFor(limit: number, edns: { udpPayloadSize?: number } | undefined): number {
  return limit === 65535 ? limit : Math.min(limit, Math.max(512, edns?.udpPayloadSize ?? 512));
}

function reply(query: Buffer, answer: Answerer, limit: number): Buffer | null {
  const asked = decoded(query);
  const q = asked?.questions?.[0];
  if (!asked || !q || asked.type !== 'query') return null;
  const edns = asked.additionals?.find((a) => a.type === 'OPT') as { udpPayloadSize?: number } | undefined;
  const checkingDisabled = ((asked.flags ?? 0) & CD) !== 0;
  const given = answer(q.name.toLowerCase().replace(/\.$/, ''), q.type, { checkingDisabled });
  const head = { type: 'response' as const, id: asked.id, questions: [q] };
  const opt = edns ? [{ ...OWN_OPT }] : [];
  const flags = flagsOf(asked, given);
  const full = packet.encode({
    ...head,
    flags,
    answers: given.records.map(wire),
    authorities: (given.authority ?? []).map(wire),
    additionals: [...(given.additional ?? []).map(wire), ...opt],
  });
  if (full.length <= roomFor(limit, edns)) return full;
  return packet.encode({ ...head, flags: flags | TC, answers: [], authorities: [], additionals: opt });
}

export interface DnsServer {
  port: number;
  close(): Promise<void>;
}

/**
 * Listens on loopback, UDP and TCP on the same port. A free UDP port may be taken for TCP, so several are
 * tried.
 */
export async function serveDns(answer: Answerer): Promise<DnsServer> {
  for (let attempt = 1; ; attempt++) {
    try {
      return await listen(answer);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EADDRINUSE' || attempt >= 20) throw error;
    }
  }
}

async function listen(answer: Answerer): Promise<DnsServer> {
  const udp = dgram.createSocket('udp4');
  await new Promise<void>((resolve, reject) => {
    udp.once('error', reject);
    udp.bind(0, '127.0.0.1', resolve);
  });
  const bound = udp.address().port;
  udp.on('message', (bytes, from) => {
    const out = reply(bytes, answer, 1232);
    if (out) udp.send(out, from.port, from.address);
  });
  const tcp = net.createServer((socket) => {
    let got = Buffer.alloc(0);
    socket.on('error', () => {});
    socket.on('data', (chunk) => {
      got = Buffer.concat([got, chunk]);
      while (got.length >= 2 && got.length >= 2 + got.readUInt16BE(0)) {
        const size = got.readUInt16BE(0);
        const out = reply(got.subarray(2, 2 + size), answer, 65535);
        got = got.subarray(2 + size);
        if (!out) {
          socket.destroy();
          return;
        }
        const head = Buffer.alloc(2);
        head.writeUInt16BE(out.length);
        socket.write(Buffer.concat([head, out]));
      }
    });
  });
  await new Promise<void>((resolve, reject) => {
    tcp.once('error', (e) => {
      udp.close();
      reject(e);
    });
    tcp.listen(bound, '127.0.0.1', resolve);
  });
  return {
    port: bound,
    close: async () => {
      udp.close();
      await new Promise((r) => tcp.close(r));
    },
  };
}
