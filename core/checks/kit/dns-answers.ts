/** Reading the DNS part of the evidence. */
import { asciiHost } from '#core/extract/address';
import { parseCaa } from '#core/extract/caa';
import { canonicalService } from '#core/extract/svcb';
import { NAME_WORDS } from '#core/formats/zone-file/records';
import { joinedText } from '#core/facts/dns-text';
import type { DnsAnswer, Evidence } from '#core/facts/evidence';
import { memoize } from '#core/remembering';

export const plainName = (name: string): string =>
  (name.endsWith('.') ? name.slice(0, -1) : name).toLowerCase();

/** A name within a record's data, in the form in which hosts are compared (rule 6). */
function comparedName(name: string): string {
  const plain = plainName(name);
  return /[^\0-\x7f]/.test(plain) ? (asciiHost(plain) ?? plain) : plain;
}

/** The name of the exchanger in an MX value; empty for “0 .”, which takes no mail (RFC 7505 3). */
export const exchangerOf = (mx: string): string => plainName(mx.trim().split(/\s+/)[1] ?? '');

/** Data whose names are compared as names; the words beside them stay. */
const withNames = (type: string, value: string): string =>
  value
    .split(/\s+/)
    .map((word, i) => (NAME_WORDS[type]!.includes(i) ? comparedName(word) : word))
    .join(' ');

/**
 * Answers to one question: from the authorities where any of them was asked, else from the resolvers. An
 * authority that has only an alias leaves its target to the resolver (RFC 1034 3.6.2, 4.3.2).
 */
export function bestAnswers(evidence: Evidence, name: string, type: string): readonly DnsAnswer[] {
  const all = answersFor(evidence, name, type);
  const authorities = all.filter((a) => a.role === 'authority');
  const resolvers = all.filter((a) => a.role === 'resolver');
  if (authorities.every((a) => a.rcode === 'NONE')) return resolvers;
  const leadsOn = authorities.some((a) => isBareAlias(a, type));
  return leadsOn && resolvers.some((a) => isUsable(a) && !isBareAlias(a, type)) ? resolvers : authorities;
}

/** Whether an answer has an alias and nothing of what was asked for. */
const isBareAlias = ({ records }: DnsAnswer, type: string): boolean =>
  type !== 'CNAME' && records.some((r) => r.type === 'CNAME') && !records.some((r) => r.type === type);

/** Whether a server gave an answer that says something: records, or that there are none. */
export const isUsable = (a: Pick<DnsAnswer, 'rcode'>): boolean =>
  a.rcode === 'NOERROR' || a.rcode === 'NXDOMAIN';

/** All answers to one question. */
export function answersFor(evidence: Evidence, name: string, type: string): readonly DnsAnswer[] {
  let book = books.get(evidence.dns.answers);
  if (!book) books.set(evidence.dns.answers, (book = bookOf(evidence.dns.answers)));
  return book.get(type)?.get(comparedName(name)) ?? NONE;
}

/** The answers by type and name, since two dozen checks ask for a few each. */
const books = new WeakMap<readonly DnsAnswer[], Map<string, Map<string, DnsAnswer[]>>>();
function bookOf(answers: readonly DnsAnswer[]): Map<string, Map<string, DnsAnswer[]>> {
  const book = new Map<string, Map<string, DnsAnswer[]>>();
  for (const a of answers) {
    // what is said without checking signatures is domain.signed’s alone
    if (a.unchecked) continue;
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
const oneSpelling = memoize((address: string): string => {
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
    case 'HTTPS':
    case 'SVCB':
      return canonicalService(v, comparedName);
    case 'CAA':
      return canonicalCaa(v);
    default:
      return NAME_WORDS[type] ? withNames(type, v) : v.toLowerCase();
  }
}

/** Tag and value, whether or not the value stands in quotes (RFC 8659 4.1.1). */
function canonicalCaa(value: string): string {
  const record = parseCaa(value);
  if (!record) return value.toLowerCase();
  return `${record.critical ? 128 : 0} ${record.tag} ${record.value.toLowerCase()}`;
}

/** One answer as dig would show it, for the evidence. */
export function answerText(a: DnsAnswer): string {
  const head = `;; ${a.name} ${a.type} @${a.serverName ?? a.server}: ${a.rcode === 'NONE' ? (a.error ?? 'no answer') : a.rcode}${a.authoritative ? ', authoritative' : ''}`;
  return [head, ...a.records.map((r) => `${r.name}. ${r.ttl} IN ${r.type} ${r.value}`)].join('\n');
}
