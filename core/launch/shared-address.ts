/**
 * What shares an address that moves: other hosts of the zone, mail, and what SPF allows. Each is asked about: whether
 * it moves with the site, or stays where it is. Pure.
 */
import { exchangerOf, isUsable, plainName } from '#core/checks/kit/dns-answers';
import { evaluateSpf, type SpfVerdict, type SpfZone } from '#core/extract/spf-evaluate';
import { isSpf } from '#core/extract/spf';
import type { DnsAnswer } from '#core/facts/evidence';
import { setsOf, type CutOverLine } from './cut-over';

export const SHARE_ANSWERS = ['moves', 'stays'] as const;
export type ShareAnswer = (typeof SHARE_ANSWERS)[number];

/** One thing that leads to an address that moves. */
export interface Share {
  /** By which an answer is kept. */
  id: string;
  kind: 'host' | 'alias' | 'mail' | 'spf';
  name: string;
  /** What is so today, and what becomes of it when nothing is done. */
  text: string;
  /** What follows from each answer. */
  then: Record<ShareAnswer, string>;
  answer: ShareAnswer | null;
}

export interface ShareInput {
  lines: readonly CutOverLine[];
  /** All that was answered, aliases and addresses of other zones too. */
  answered: readonly Pick<DnsAnswer, 'name' | 'type' | 'rcode' | 'records' | 'role'>[];
  zone: string;
  /** Hosts of the live site: they are what moves. */
  hosts: readonly string[];
  answers: Readonly<Record<string, ShareAnswer>>;
}

const isAddress = (type: string): boolean => type === 'A' || type === 'AAAA';
const listed = (all: readonly string[]): string => [...new Set(all)].join(', ');

/** The records of a zone before or after the change, as names are followed through them. */
class Records {
  private readonly byKey = new Map<string, string[]>();

  constructor(records: Iterable<{ name: string; type: string; values: readonly string[] }>) {
    for (const { name, type, values } of records) this.byKey.set(`${plainName(name)} ${type}`, [...values]);
  }

  values(name: string, type: string): string[] | undefined {
    return this.byKey.get(`${plainName(name)} ${type}`);
  }

  /** The addresses of a name, its aliases followed; undefined where they were not asked. */
  addresses(name: string): string[] | undefined {
    let at = name;
    for (let step = 0; step < 9; step++) {
      const [alias] = this.values(at, 'CNAME') ?? [];
      if (alias === undefined) break;
      at = alias;
    }
    const all = ['A', 'AAAA'].map((type) => this.values(at, type));
    return all.some((set) => set !== undefined) ? all.flatMap((set) => set ?? []) : undefined;
  }

  spfZone(): SpfZone {
    return {
      texts: (name) => this.values(name, 'TXT'),
      addresses: (name) => this.addresses(name),
      exchangers: (name) => this.values(name, 'MX')?.map(exchangerOf),
    };
  }
}

/** Sets by name and type; empty where somebody answered that there is none. */
function* answeredSets(
  answered: ShareInput['answered'],
): Generator<{ name: string; type: string; values: string[] }> {
  // servers that will take the zone over say nothing of today
  const today = answered.filter((a) => a.role !== 'coming' && isUsable(a));
  for (const { name, type } of today) yield { name, type, values: [] };
  yield* setsOf(today.flatMap((a) => a.records)).values();
}

function* both(
  { answered, lines }: ShareInput,
  which: 'before' | 'after',
): Generator<{ name: string; type: string; values: readonly string[] }> {
  yield* answeredSets(answered);
  for (const line of lines) yield { name: line.name, type: line.type, values: line[which] };
}

const RESULT_WORDS: Record<SpfVerdict['result'], string> = {
  pass: 'allows',
  fail: 'forbids',
  softfail: 'distrusts',
  neutral: 'says nothing of',
  none: 'says nothing of',
  permerror: 'is broken for',
  unknown: 'cannot be told for',
};
const byWords = ({ by }: SpfVerdict): string => (by ? ` (${by})` : '');

/** The domains that mail is sent for, as far as they have SPF. */
const spfNames = (lines: readonly CutOverLine[]): string[] =>
  lines.filter((l) => l.type === 'TXT' && l.after.some(isSpf)).map((l) => l.name);

function spfShares(input: ShareInput, old: readonly string[], now: Records, then: Records): Share[] {
  return spfNames(input.lines).flatMap((name) =>
    old.flatMap((address): Share[] => {
      const before = evaluateSpf(name, address, now.spfZone());
      const after = evaluateSpf(name, address, then.spfZone());
      // whoever was never allowed to send is not touched by the change
      if (before.result !== 'pass' && before.result !== 'unknown') return [];
      const id = `spf ${name} ${address}`;
      const becomes =
        after.result === 'pass'
          ? `it still does after the change${byWords(after)}`
          : `after the change it ${RESULT_WORDS[after.result]} it${byWords(after)}`;
      const mechanism = `${address.includes(':') ? 'ip6' : 'ip4'}:${address}`;
      return [
        {
          id,
          kind: 'spf',
          name,
          text:
            before.result === 'pass'
              ? `SPF of ${name} allows mail from ${address}${byWords(before)}; ${becomes}.`
              : `It cannot be told whether SPF of ${name} allows mail from ${address}${byWords(before)}.`,
          then: {
            moves:
              after.result === 'pass'
                ? `Nothing is sent from ${address} any more: take it out of the record.`
                : `Nothing is sent from ${address} any more.`,
            stays:
              after.result === 'pass'
                ? `Mail is still sent from ${address}, and may be.`
                : `Mail is still sent from ${address}: add ${mechanism} to the record first.`,
          },
          answer: input.answers[id] ?? null,
        },
      ];
    }),
  );
}

/** The addresses that the site leaves. */
const leftAddresses = (lines: readonly CutOverLine[], hosts: readonly string[]): string[] => {
  const own = new Set(hosts.map(plainName));
  return [
    ...new Set(
      lines
        .filter((l) => own.has(l.name) && isAddress(l.type))
        .flatMap((l) => l.before.filter((v) => !l.after.includes(v))),
    ),
  ];
};

/** Everything that leads to an address the site leaves, except the site’s own hosts. */
export function sharesOf(input: ShareInput): Share[] {
  const { lines, hosts, zone, answers } = input;
  const old = leftAddresses(lines, hosts);
  if (!old.length) return [];
  const now = new Records(both(input, 'before'));
  const then = new Records(both(input, 'after'));
  const own = new Set(hosts.map(plainName));
  const leadsTo = (records: Records, name: string): string[] =>
    (records.addresses(name) ?? []).filter((a) => old.includes(a));
  const inZone = (name: string): boolean => name === zone || name.endsWith(`.${zone}`);
  const exchangers = new Map(
    lines
      .filter((l) => l.type === 'MX')
      .flatMap((l) => l.before.map((mx): [string, string] => [exchangerOf(mx), l.name])),
  );
  const names = [...new Set(lines.map((l) => l.name))].filter((n) => inZone(n) && !own.has(n));
  const shares = names.flatMap((name): Share[] => {
    const before = leadsTo(now, name);
    if (!before.length) return [];
    const after = leadsTo(then, name);
    const alias = now.values(name, 'CNAME')?.[0];
    const isMail = exchangers.has(name);
    const kind = isMail ? 'mail' : alias ? 'alias' : 'host';
    const id = `${kind} ${name}`;
    const what = isMail ? `Mail of ${exchangers.get(name)} is delivered to ${name}, which` : name;
    const by = alias ? `by its alias ${plainName(alias)}` : 'by its own record';
    const becomes = after.length ? 'stays there' : 'moves with the site';
    return [
      {
        id,
        kind,
        name,
        text: `${what} leads to ${listed(before)} too (${by}), and ${becomes}.`,
        then: {
          moves: after.length ? `${name} gets the new address with the others.` : `${name} moves along.`,
          stays: after.length
            ? `${name} stays at ${listed(before)}.`
            : `${name} gets a record of its own with ${listed(before)}.`,
        },
        answer: answers[id] ?? null,
      },
    ];
  });
  // an exchanger that is one of the site's own names moves with it
  const mail = [...exchangers].flatMap(([name, of]): Share[] => {
    if (!own.has(name) || !leadsTo(now, name).length || leadsTo(then, name).length) return [];
    const id = `mail ${name}`;
    return [
      {
        id,
        kind: 'mail',
        name,
        text: `Mail of ${of} is delivered to ${name}, whose address changes with this.`,
        then: {
          moves: 'The new server takes mail: its mailboxes have to exist first.',
          stays: `Mail stays at ${listed(leadsTo(now, name))}: give it a name of its own, and let the MX name that.`,
        },
        answer: answers[id] ?? null,
      },
    ];
  });
  return [...mail, ...shares, ...spfShares(input, old, now, then)];
}

/**
 * The records that answers ask for beside those of the brief.
 * @param to the new addresses of the site
 */
export function recordsOfShares(
  shares: readonly Share[],
  { lines, hosts }: Pick<ShareInput, 'lines' | 'hosts'>,
): { name: string; type: string; value: string }[] {
  const own = new Set(hosts.map(plainName));
  const site = lines.filter((l) => own.has(l.name) && isAddress(l.type));
  const old = leftAddresses(lines, hosts);
  const fresh = [...new Set(site.flatMap((l) => l.after))];
  const typeOf = (address: string): string => (address.includes(':') ? 'AAAA' : 'A');
  const asRecords = (name: string, addresses: readonly string[]) =>
    [...new Set(addresses)].map((value) => ({ name, type: typeOf(value), value }));
  return shares.flatMap(({ kind, name, answer }) => {
    if (kind === 'spf' || own.has(name)) return [];
    const today = lines.filter((l) => l.name === name && isAddress(l.type)).flatMap((l) => l.before);
    if (answer === 'moves' && today.some((v) => old.includes(v)))
      return asRecords(name, [...today.filter((v) => !old.includes(v)), ...fresh]);
    const isAlias = lines.some((l) => l.name === name && l.type === 'CNAME');
    return answer === 'stays' && isAlias ? asRecords(name, old) : [];
  });
}
