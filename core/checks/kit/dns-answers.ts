/** Reading the DNS part of the evidence. */
import { joinedText } from '#core/facts/dns-text';
import type { DnsAnswer, Evidence } from '#core/facts/evidence';
import { remembering } from '#core/remembering';

export const plainName = (name: string): string =>
  (name.endsWith('.') ? name.slice(0, -1) : name).toLowerCase();

/** Answers to one question: from the authorities where any of them was asked, else from the resolvers. */
export function bestAnswers(evidence: Evidence, name: string, type: string): readonly DnsAnswer[] {
  const all = answersFor(evidence, name, type);
  const authorities = all.filter((a) => a.role === 'authority' && a.rcode !== 'NONE');
  return authorities.length
    ? all.filter((a) => a.role === 'authority')
    : all.filter((a) => a.role === 'resolver');
}

/** Whether a server gave an answer that says something: records, or that there are none. */
export const isUsable = (a: DnsAnswer): boolean => a.rcode === 'NOERROR' || a.rcode === 'NXDOMAIN';

/** All answers to one question. */
export function answersFor(evidence: Evidence, name: string, type: string): readonly DnsAnswer[] {
  let book = books.get(evidence.dns.answers);
  if (!book) books.set(evidence.dns.answers, (book = bookOf(evidence.dns.answers)));
  return book.get(type)?.get(plainName(name)) ?? NONE;
}

/** The answers by type and name, since two dozen checks ask for a few each. */
const books = new WeakMap<readonly DnsAnswer[], Map<string, Map<string, DnsAnswer[]>>>();
function bookOf(answers: readonly DnsAnswer[]): Map<string, Map<string, DnsAnswer[]>> {
  const book = new Map<string, Map<string, DnsAnswer[]>>();
  for (const a of answers) {
    let names = book.get(a.type);
    if (!names) book.set(a.type, (names = new Map()));
    const name = plainName(a.name),
      list = names.get(name);
    if (list) list.push(a);
    else names.set(name, [a]);
  }
  return book;
}
const NONE: readonly DnsAnswer[] = [];

/**
 * Compares a record's value as its type does: names without case and final dot, addresses in one spelling,
 * text strings joined.
 */
export function sameValue(type: string, a: string, b: string): boolean {
  return canonicalValue(type, a) === canonicalValue(type, b);
}

/**
 * An IPv6 address as the URL standard writes it (RFC 5952, in brackets). Every server is asked for the same
 * few.
 */
const oneSpelling = remembering((address: string): string => {
  try {
    return new URL(`http://[${address}]/`).hostname;
  } catch {
    return address.toLowerCase();
  }
}, 2000);

/** One spelling for a value in presentation form. */
export function canonicalValue(type: string, value: string): string {
  const v = value.trim();
  switch (type) {
    case 'TXT':
      return joinedText(v);
    case 'AAAA':
      return oneSpelling(v);
    case 'MX':
    case 'SRV':
    case 'CNAME':
    case 'NS':
    case 'PTR':
    case 'CAA':
      return plainName(v.replace(/\s+/g, ' '));
    default:
      return v.toLowerCase();
  }
}

/** One answer as dig would show it, for the evidence. */
export function answerText(a: DnsAnswer): string {
  const head = `;; ${a.name} ${a.type} @${a.serverName ?? a.server}: ${a.rcode === 'NONE' ? (a.error ?? 'no answer') : a.rcode}${a.authoritative ? ', authoritative' : ''}`;
  return [head, ...a.records.map((r) => `${r.name}. ${r.ttl} IN ${r.type} ${r.value}`)].join('\n');
}
