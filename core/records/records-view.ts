/** The technical side of a site in a form that a screen can draw: hosts, DNS, certificates, mail, registration. */
import { dmarcOf, spfDns, textsOf } from '#core/checks/catalogue/domain/mail-texts';
import { canonicalValue, plainName, sameValue } from '#core/checks/kit/dns-answers';
import { parseCaa } from '#core/extract/caa';
import { parseDkim, parseDmarc } from '#core/extract/dmarc';
import { countSpf, tested, type SpfTree } from '#core/extract/spf';
import type { Brief } from '#core/facts/brief';
import { coversHost } from '#core/facts/certificate';
import {
  headerValues,
  type CertificateFacts,
  type Chain,
  type DnsAnswer,
  type Evidence,
  type HostEvidence,
  type TlsEvidence,
} from '#core/facts/evidence';
import { timesOf } from '#core/facts/part-times';
import type { Part } from '#core/facts/parts';
import { hourLine } from '#core/formats/zone-file/write';
import { formatMessage } from '#core/text/messages';

/** One step of a chain of redirects. */
interface Step {
  url: string;
  /** What it answered; the error where it did not. */
  said: string;
  isBad: boolean;
}
interface Entry {
  label: string;
  steps: Step[];
}
interface HostRecord {
  host: string;
  role: HostEvidence['role'];
  entries: Entry[];
}

/** What one server said to a question. */
interface ServerSaid {
  server: string;
  role: DnsAnswer['role'];
  values: string[];
  /** Seconds; the least of its records. */
  ttl: number | null;
  /** NXDOMAIN, SERVFAIL and the like; nothing for an answer. */
  rcode?: string;
  /** It says something else than the first server of the zone. */
  differs: boolean;
}
interface Question {
  name: string;
  type: string;
  said: ServerSaid[];
  differs: boolean;
  /** What the brief expects; undefined where it says nothing of this. */
  wanted?: { value: string; isServed: boolean }[];
  /** The records as lines of a zone file. */
  lines: string;
}

export interface SpfBranch {
  domain: string;
  text: string;
  problem?: string;
  /** Its terms, in words. */
  terms: string[];
  children: SpfBranch[];
}
interface MailRecord {
  domain: string;
  exchangers: string[];
  spf: { tree: SpfBranch; lookups: number; voids: number; errors: string[] };
  dmarc: string[];
  dkim: { selector: string; words: string }[];
}

export interface RecordsView {
  /** When each part was looked at. */
  times: Record<Part, string>;
  hosts: HostRecord[];
  questions: Question[];
  certificates: {
    host: string;
    /** Trusted, within its dates, and for this host. */
    isValid: boolean;
    said: string;
    chain: CertificateFacts[];
  }[];
  mail: MailRecord | null;
  caa: { name: string; words: string[] }[];
  ds: string[];
  registration: { domain: string; words: [what: string, value: string][]; error?: string } | null;
  zone: string | null;
}

/** @param isMadeUp nothing is expected at the address, so that “not found” is as it should be */
function stepsOf(chain: Chain, isMadeUp = false): Step[] {
  const steps = chain.hops.map((hop): Step => {
    const { status, url, reason } = hop;
    const [location] = headerValues(hop, 'location');
    const moves = status !== undefined && status >= 300 && status < 400 && location !== undefined;
    return {
      url,
      said:
        status === undefined ? (hop.error?.message ?? 'no answer') : `${status}${reason ? ` ${reason}` : ''}`,
      isBad: !moves && (status === undefined || status >= (isMadeUp ? 500 : 400)),
    };
  });
  if (!steps.length) return [{ url: chain.start, said: chain.error?.message ?? 'not asked', isBad: true }];
  if (chain.end === 'error' && !steps.at(-1)!.isBad)
    steps.push({ url: '', said: chain.error?.message ?? 'no answer', isBad: true });
  return steps;
}

const hostOf = ({ host, role, http, https, httpPath, httpsPath }: HostEvidence): HostRecord => ({
  host,
  role,
  entries: [
    { label: 'http', steps: stepsOf(http) },
    { label: 'https', steps: stepsOf(https) },
    { label: 'http, made-up', steps: stepsOf(httpPath, true) },
    { label: 'https, made-up', steps: stepsOf(httpsPath, true) },
  ],
});

/** In this order people think of them. */
const ORDER = ['SOA', 'NS', 'DS', 'A', 'AAAA', 'CNAME', 'HTTPS', 'MX', 'TXT', 'CAA', 'SRV', 'DNSKEY'];
const rank = (type: string): number => (ORDER.includes(type) ? ORDER.indexOf(type) : ORDER.length);
const MOST_QUESTIONS = 400;

/** Data without what may differ from server to server for a while: an SOA's serial number alone says nothing. */
const comparedValue = (type: string, value: string): string =>
  type === 'SOA'
    ? canonicalValue(type, value).split(/\s+/).toSpliced(2, 1).join(' ')
    : canonicalValue(type, value);

/** Answers that say the same, in whatever order. */
const fingerprint = ({ rcode, records, type }: DnsAnswer): string =>
  [
    rcode,
    ...records
      .filter((r) => r.type === type || r.type === 'CNAME')
      .map((r) => `${r.type} ${comparedValue(r.type, r.value)}`)
      .sort(),
  ].join('\n');

function questionOf(answers: readonly DnsAnswer[], brief: Brief): Question {
  const [{ name, type }] = answers as [DnsAnswer];
  const zone = answers.filter((a) => a.role === 'authority');
  const first = (zone[0] ?? answers[0])!;
  // what is copied on the way differs in its TTL and in nothing else
  const compared = zone.length ? zone : answers;
  const said = answers.map((a): ServerSaid => {
    // the zone above refers to the servers of the zone, and has no answer of its own
    const given = a.role === 'parent' && !a.records.length ? (a.authority ?? []) : a.records;
    const records = given.filter((r) => r.type === type || r.type === 'CNAME');
    return {
      server: a.serverName ?? a.server,
      role: a.role,
      values: records.map((r) => (r.type === type ? r.value : `CNAME ${r.value}`)),
      ttl: records.length ? Math.min(...records.map((r) => r.ttl)) : null,
      ...(a.rcode === 'NOERROR' ? {} : { rcode: a.rcode === 'NONE' ? (a.error ?? 'no answer') : a.rcode }),
      differs: compared.includes(a) && fingerprint(a) !== fingerprint(first),
    };
  });
  const wanted = (brief.records ?? []).filter(
    (r) => plainName(r.name) === plainName(name) && r.type === type,
  );
  return {
    name,
    type,
    said,
    differs: said.some((s) => s.differs),
    ...(wanted.length
      ? {
          wanted: wanted.map(({ value }) => ({
            value,
            isServed: first.records.some((r) => r.type === type && sameValue(type, r.value, value)),
          })),
        }
      : {}),
    lines: first.records.map(hourLine).join('\n'),
  };
}

function questionsOf({ dns }: Evidence, brief: Brief): Question[] {
  const groups = new Map<string, DnsAnswer[]>();
  for (const answer of dns.answers) {
    if (answer.unchecked || answer.role === 'coming' || answer.name.includes(dns.randomLabel)) continue;
    const key = `${plainName(answer.name)} ${answer.type}`;
    groups.set(key, [...(groups.get(key) ?? []), answer]);
  }
  const found = [...groups.values()].map((answers) => questionOf(answers, brief));
  // servers on the way to the site, and whoever it points to, come behind its own names
  const isOthers = (name: string): boolean =>
    dns.zone !== null && plainName(name) !== dns.zone && !plainName(name).endsWith(`.${dns.zone}`);
  return found
    .filter(
      (q) =>
        q.wanted !== undefined || q.said.some((s) => s.values.length || (s.rcode && s.rcode !== 'NXDOMAIN')),
    )
    .sort(
      (a, b) =>
        Number(isOthers(a.name)) - Number(isOthers(b.name)) ||
        a.name.length - b.name.length ||
        a.name.localeCompare(b.name) ||
        rank(a.type) - rank(b.type),
    )
    .slice(0, MOST_QUESTIONS);
}

const QUALIFIERS = {
  '+': 'may send',
  '-': 'may not send',
  '~': 'should not send',
  '?': 'is left open',
} as const;
const WHO: Record<string, (value: string | undefined, domain: string, raw: string) => string> = {
  all: () => 'everybody else',
  include: (value) => `whoever ${value} lets send`,
  a: (value, domain) => `the addresses of ${value ?? domain}`,
  mx: (value, domain) => `the mail exchangers of ${value ?? domain}`,
  ptr: (value, domain) => `hosts whose reverse name is below ${value ?? domain}`,
  ip4: (_, _domain, raw) => raw.slice(raw.indexOf(':') + 1),
  ip6: (_, _domain, raw) => raw.slice(raw.indexOf(':') + 1),
  exists: (value) => `whoever has an address at ${value}`,
};

/** The terms of a record in words, those that ask the DNS marked. */
function termsOf({ record, domain }: SpfTree): string[] {
  if (!record) return [];
  const redirect = record.modifiers.find((m) => m.name === 'redirect');
  return [
    ...tested(record.mechanisms).map(
      (m) => `${m.raw}: ${WHO[m.name]!(m.value, domain, m.raw)} ${QUALIFIERS[m.qualifier]}`,
    ),
    ...(redirect ? [`${redirect.raw}: what ${redirect.value} says`] : []),
  ];
}

const branchOf = (tree: SpfTree): SpfBranch => ({
  domain: tree.domain,
  text: tree.text ?? '',
  ...(tree.problem ? { problem: tree.problem } : {}),
  terms: termsOf(tree),
  children: tree.children.map(branchOf),
});

const DMARC_WORDS = {
  none: 'mail that fails is delivered all the same (p=none)',
  quarantine: 'mail that fails is put aside (p=quarantine)',
  reject: 'mail that fails is refused (p=reject)',
} as const;

function dmarcWords(evidence: Evidence, zone: string): string[] {
  const { texts, failed } = dmarcOf(evidence, zone);
  if (failed) return [formatMessage(failed)];
  if (texts.length !== 1)
    return [texts.length ? `${texts.length} records, so none counts` : 'no DMARC record'];
  const { policy, percent, aggregate, errors, notes } = parseDmarc(texts[0]!);
  return [
    ...errors,
    ...(policy ? [DMARC_WORDS[policy]] : []),
    ...(percent < 100 ? [`asked for ${percent} % of it`] : []),
    aggregate.length ? `reports go to ${aggregate.join(', ')}` : 'nobody gets reports',
    ...notes,
  ];
}

function dkimWords(evidence: Evidence, name: string): string {
  const { texts, failed } = textsOf(evidence, name);
  if (failed) return formatMessage(failed);
  const [text] = texts.filter((t) => /(?:^|;)\s*p\s*=/.test(t));
  if (text === undefined) return 'no key';
  const { type, bits, revoked, testing, errors } = parseDkim(text);
  if (revoked) return 'the key was withdrawn (p= is empty)';
  return [
    ...errors,
    `a key of type ${type}`,
    ...(bits ? [`${bits} bits`] : []),
    ...(testing ? ['marked as a test'] : []),
  ].join(', ');
}

/** The values of a name and type that the zone, or else a resolver, gives. */
function valuesOf(questions: readonly Question[], name: string, type: string): string[] {
  return (
    questions.find((q) => q.type === type && plainName(q.name) === plainName(name))?.said[0]?.values ?? []
  );
}

function mailOf(evidence: Evidence, questions: readonly Question[], brief: Brief): MailRecord | null {
  const { zone } = evidence.dns;
  if (!zone) return null;
  const { tree, lookups, voids, errors } = countSpf(zone, spfDns(evidence));
  return {
    domain: zone,
    exchangers: valuesOf(questions, zone, 'MX'),
    spf: { tree: branchOf(tree), lookups, voids, errors },
    dmarc: dmarcWords(evidence, zone),
    dkim: (brief.dkimSelectors ?? []).map((selector) => ({
      selector,
      words: dkimWords(evidence, `${selector}._domainkey.${zone}`),
    })),
  };
}

const CAA_WORDS: Record<string, string> = {
  issue: 'certificates may come from',
  issuewild: 'wildcard certificates may come from',
  iodef: 'violations are told to',
};

function caaOf(questions: readonly Question[]): RecordsView['caa'] {
  return questions
    .filter((q) => q.type === 'CAA')
    .map(({ name, said }) => ({
      name,
      words: (said[0]?.values ?? []).map((value) => {
        const caa = parseCaa(value);
        const what = caa && CAA_WORDS[caa.tag];
        return what ? `${what} ${/^\s*(?:;|$)/.test(caa.value) ? 'nobody' : caa.value}` : value;
      }),
    }))
    .filter((c) => c.words.length);
}

function registrationOf({ registration }: Evidence): RecordsView['registration'] {
  if (!registration) return null;
  const { domain, registrar, status, events, nameServers, error, served } = registration;
  const words: [string, string][] = [
    ...(registrar ? [['registrar', registrar] as [string, string]] : []),
    ...events.map((e): [string, string] => [e.action, e.date]),
    ...(status.length ? [['status', status.join(', ')] as [string, string]] : []),
    ...(nameServers.length ? [['name servers', nameServers.join(', ')] as [string, string]] : []),
  ];
  return {
    domain,
    words,
    ...(error ? { error } : served ? {} : { error: 'no registration data service is known for this ending' }),
  };
}

const isValidFor = ({ trusted, chain, host }: TlsEvidence): boolean =>
  trusted && coversHost(chain[0]?.names ?? [], host);

function certificateWords(tls: TlsEvidence): string {
  if (tls.error) return tls.error.message;
  if (!tls.trusted) return tls.trustError ?? 'not trusted';
  const names = tls.chain[0]?.names ?? [];
  return isValidFor(tls) ? 'trusted' : `trusted, but only for ${names.slice(0, 6).join(', ') || 'no name'}`;
}

/** @param brief what was expected */
export function recordsView(evidence: Evidence, brief: Brief): RecordsView {
  const questions = questionsOf(evidence, brief);
  return {
    times: timesOf(evidence),
    hosts: evidence.hosts.map(hostOf),
    questions,
    certificates: evidence.hosts
      .filter((h) => h.tls.chain.length || h.tls.error)
      .map(({ host, tls }) => ({
        host,
        isValid: isValidFor(tls),
        said: certificateWords(tls),
        chain: tls.chain,
      })),
    mail: mailOf(evidence, questions, brief),
    caa: caaOf(questions),
    ds: evidence.dns.zone ? valuesOf(questions, evidence.dns.zone, 'DS') : [],
    registration: registrationOf(evidence),
    zone: evidence.dns.zone,
  };
}
