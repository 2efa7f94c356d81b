/** DNS messages: questions written, answers read, data in presentation form. */
import packet from 'dns-packet';
import type { Answer, DecodedPacket } from 'dns-packet';
import ipaddr from 'ipaddr.js';
import { presentService } from '#core/extract/svcb';
import type { DnsAnswer, DnsRecord } from '#core/facts/evidence';

export type Question = { name: string; type: string };

/** What an answer says, whoever gave it. */
export type AnswerFacts = Pick<
  DnsAnswer,
  'rcode' | 'authoritative' | 'authenticated' | 'records' | 'authority' | 'additional'
>;

/** A message that was read. */
export type Decoded = DecodedPacket & { cut: boolean; code: number; bits: number };

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

/** How a question is put. */
export interface Manner {
  /** Set for resolvers. */
  recursive: boolean;
  /** Asks a validating resolver not to check (RFC 4035 3.2.2). */
  unchecked: boolean;
  edns: boolean;
}

const OPT = {
  type: 'OPT',
  name: '.',
  udpPayloadSize: UDP_SIZE,
  extendedRcode: 0,
  ednsVersion: 0,
  flags: 0,
  flag_do: false,
  options: [],
} as const;

/** @throws Error when the name cannot be asked for */
export function encodeQuestion({ name, type }: Question, id: number, manner: Manner): Buffer {
  return packet.encode({
    type: 'query',
    id,
    flags: (manner.recursive ? RD : 0) | (manner.unchecked ? CD : AD),
    questions: [{ type: (NUMBERED[type] ?? type) as 'A', name: plain(name), class: 'IN' }],
    additionals: manner.edns ? [{ ...OPT, options: [] }] : [],
  });
}

/**
 * Decodes an answer. Forged counts are refused before they cost time: each record takes at least eleven
 * bytes.
 * @throws Error when it is no answer to this question
 */
export function decodeAnswer(bytes: Buffer, question: Question, id: number): Decoded {
  if (bytes.length < 12) throw new Error('shorter than a header');
  if (bytes.readUInt16BE(0) !== id) throw new Error('another id');
  const bits = bytes.readUInt16BE(2);
  if (!(bits & 0x8000)) throw new Error('no response');
  const cut = (bits & TC) !== 0;
  const code = bits & 15;
  const [questions, ...counts] = [4, 6, 8, 10].map((o) => bytes.readUInt16BE(o)) as [number, ...number[]];
  if (cut)
    return {
      cut,
      code,
      bits,
      answers: [],
      authorities: [],
      additionals: [],
      questions: [],
    } as unknown as Decoded;
  const records = counts.reduce((a, b) => a + b, 0);
  if (12 + questions * 5 + records * 11 > bytes.length) throw new Error('counts that do not fit its length');
  const decoded = packet.decode(bytes);
  if (!answers(decoded, question, code)) throw new Error('another question');
  return Object.assign(decoded, { cut, code, bits });
}

/** Whether a message repeats the question; one that reports an error may leave it out. */
function answers({ questions }: DecodedPacket, { name, type }: Question, code: number): boolean {
  const q = questions?.[0];
  return q ? plain(q.name) === plain(name) && typeName(q.type) === type : code !== 0;
}

/** Data of a record in presentation form, by its type (RFC 1035 5.1 and the standard of each). */
const PRESENT: Record<string, (data: never) => string> = {
  A: String,
  // one spelling (RFC 5952); mapped addresses stay IPv6 in an AAAA record
  AAAA: (data: unknown) =>
    ipaddr.isValid(String(data)) ? ipaddr.parse(String(data)).toString() : String(data),
  CNAME: String,
  NS: String,
  PTR: String,
  MX: (d: { preference: number; exchange: string }) => `${d.preference} ${d.exchange}`,
  TXT: (data: unknown) =>
    (Array.isArray(data) ? (data as unknown[]) : [data])
      .map((s) => `"${escapeString(Buffer.isBuffer(s) ? s : Buffer.from(String(s)))}"`)
      .join(' '),
  SOA: (d: {
    mname: string;
    rname: string;
    serial: number;
    refresh: number;
    retry: number;
    expire: number;
    minimum: number;
  }) => `${d.mname} ${d.rname} ${d.serial} ${d.refresh} ${d.retry} ${d.expire} ${d.minimum}`,
  CAA: (d: { flags: number; tag: string; value: string }) => `${d.flags ?? 0} ${d.tag} "${d.value}"`,
  SRV: (d: { priority?: number; weight?: number; port: number; target: string }) =>
    `${d.priority ?? 0} ${d.weight ?? 0} ${d.port} ${d.target}`,
  DS: (d: { keyTag: number; algorithm: number; digestType: number; digest: Buffer }) =>
    `${d.keyTag} ${d.algorithm} ${d.digestType} ${d.digest.toString('hex').toUpperCase()}`,
  DNSKEY: (d: { flags: number; algorithm: number; key: Buffer }) =>
    `${d.flags} 3 ${d.algorithm} ${d.key.toString('base64')}`,
};

function valueOf(a: Answer): string | undefined {
  const data = (a as { data?: unknown }).data;
  if (Object.hasOwn(PRESENT, a.type)) return PRESENT[a.type]!(data as never);
  return Buffer.isBuffer(data) && typeName(a.type) !== a.type ? presentService(data) : undefined;
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
function beside(decoded: DecodedPacket): Pick<AnswerFacts, 'authority' | 'additional'> {
  const authority = records(decoded.authorities).filter((r) => r.type === 'NS' || r.type === 'SOA');
  const additional = records(decoded.additionals).filter((r) => r.type === 'A' || r.type === 'AAAA');
  return { ...(authority.length ? { authority } : {}), ...(additional.length ? { additional } : {}) };
}

/** What a message says. */
export function factsOf(decoded: Decoded): AnswerFacts {
  return {
    rcode: RCODES[decoded.code] ?? `RCODE${decoded.code}`,
    authoritative: (decoded.bits & AA) !== 0,
    authenticated: (decoded.bits & AD) !== 0,
    records: records(decoded.answers),
    ...beside(decoded),
  };
}
