/**
 * The watch on a launch: from what servers, resolvers and hosts say, who has the new and who the old, whether it
 * holds, and what is the likely reason where it does not. Pure; times in milliseconds.
 */
import { plainName } from '#core/checks/kit/dns-answers';
import { hostOf, registrableDomain } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import {
  isFlattened,
  isInRanges,
  sameValues,
  expiryOf,
  type AsGood,
  type CutOver,
  type CutOverLine,
  type Timing,
} from './cut-over';

/** What is to be seen everywhere in the end. */
export interface WatchGoal {
  lines: Pick<CutOverLine, 'name' | 'type' | 'before' | 'after' | 'lasts' | 'ttl'>[];
  /** Of the zone, where they move; empty where they stay. */
  nameServers: string[];
  /** How long caches may ask the old ones; seconds, 0 where they stay. */
  nsTtl: number;
  /** Addresses that the host answers from, as CIDR ranges. */
  ranges?: string[];
  /** All hosts of the live site; the preferred one is first. */
  hosts: string[];
  /** What receives mail, as it is to stay. */
  mail: string[];
  /** When the TTLs were lowered, to what, and what they were before. */
  lowered?: Timing['lowered'];
}

const WEB = new Set(['A', 'AAAA', 'CNAME', 'HTTPS']);

/**
 * What is to be seen everywhere: what changes by the plan, or all that is wanted where it is changed already.
 * @param hosts of the live site, the preferred one first
 * @param oldTtl of what was there before the launch, in seconds; 0 where that is not known
 */
export function goalOf(
  plan: Pick<CutOver, 'lines' | 'move'>,
  {
    brief,
    hosts,
    ranges,
    lowered,
    oldTtl = 0,
  }: { brief: Brief; hosts: string[]; ranges?: string[]; lowered?: Timing['lowered']; oldTtl?: number },
): WatchGoal {
  const changing = plan.lines.filter((l) => l.action !== 'keep');
  const named = new Set((brief.records ?? []).map((r) => `${plainName(r.name)} ${r.type}`));
  const wanted = plan.lines.filter((l) => named.has(`${l.name} ${l.type}`) && WEB.has(l.type));
  const lines = changing.length ? changing : wanted.map((l) => ({ ...l, before: [] }));
  const zone = registrableDomain(hosts[0] ?? '');
  return {
    lines: lines.map(({ name, type, before, after, lasts, ttl }) => ({
      name,
      type,
      before,
      after,
      // begun after the change, caches may hold what was there before for as long as that lasted
      lasts: changing.length ? lasts : oldTtl || (ttl ?? 0),
      ...(ttl === undefined ? {} : { ttl }),
    })),
    nameServers: plan.move?.to ?? [],
    nsTtl: plan.move?.nsTtl ?? 0,
    hosts,
    mail: plan.lines.filter((l) => l.type === 'MX' && l.name === zone).flatMap((l) => l.after),
    ...(ranges ? { ranges } : {}),
    ...(lowered ? { lowered } : {}),
  };
}

type ServerKind = 'zone above' | 'authority' | 'resolver';

export interface SeenAnswer {
  name: string;
  type: string;
  values: string[];
  ttl: number;
  /** Why there is no answer. */
  error?: string;
}
export interface SeenServer {
  kind: ServerKind;
  name: string;
  answers: SeenAnswer[];
}

/** What a visitor of a host meets. */
export type Shows =
  'site' | 'old site' | 'parking page' | 'unknown name' | 'holding page' | 'refused' | 'nothing';

export interface SeenHost {
  host: string;
  shows: Shows;
  /** Where redirects end. */
  end?: string;
  title?: string;
  error?: string;
  /** Each of its addresses by itself; empty where the name has none. */
  addresses: SeenAddress[];
}

/** One address of a host: its handshake, and what it answers over that connection. */
export interface SeenAddress {
  address: string;
  /**
   * Whether the certificate is trusted, within its dates, and covers the host (RFC 9525); nothing where no
   * handshake came to its end.
   */
  isCovered?: boolean;
  tlsError?: string;
  shows: Shows;
  error?: string;
  /** An IPv6 address that this machine has no way to: it says nothing of the address. */
  isOutOfReach?: true;
}

export interface WatchSeen {
  at: number;
  servers: SeenServer[];
  hosts: SeenHost[];
  /** What the new host says of the preferred name when it is asked at its own address. */
  atNew?: Omit<SeenHost, 'addresses'> & { address: string };
  /** The addresses of names that wanted aliases lead to. */
  aliases?: Record<string, string[]>;
  /** The MX records as the first server gives them; nothing where none answered. */
  mail?: string[];
}

type SubjectState = 'new' | 'old' | 'other' | 'silent';
type SubjectKind = ServerKind | 'https' | 'http' | 'mail';

/** One thing that is watched. */
export interface Subject {
  kind: SubjectKind;
  name: string;
  state: SubjectState;
  text: string;
  /** How long its answer will last. */
  until?: number;
}

type WatchVerdict = 'waiting' | 'holds' | 'turned back' | 'overdue';

export interface WatchStanding {
  at: number;
  verdict: WatchVerdict;
  /** Where it does not hold: each fault with its likely reason, its servers and records. */
  reasons: string[];
  subjects: Subject[];
  /** When the first authoritative server was seen with the new records; where servers move, when the zone above named them. */
  changedAt: number | null;
  /** When the last cache that obeys TTLs has let go; nothing before the change. */
  expectedBy: number | null;
  /** How that comes about; older standings do not say. */
  expectedHow?: string;
  heldAt: number | null;
}

type Line = WatchGoal['lines'][number];

/** An answer beside what is wanted; a flattened alias and other addresses of the host are as good. */
function stateOfAnswer(line: Line, answers: readonly SeenAnswer[], good: AsGood): SubjectState {
  const of = (type: string): SeenAnswer | undefined =>
    answers.find((a) => plainName(a.name) === line.name && a.type === type);
  const answer = of(line.type);
  if (!answer || answer.error) return 'silent';
  const { type } = line;
  if (sameValues(type, answer.values, line.after)) return 'new';
  const isOther = line.after.length > 0 && isInRanges(type, answer.values, good);
  const flat =
    type === 'CNAME' && !answer.values.length && isFlattened(line.after[0], of('A')?.values ?? [], good);
  if (isOther || flat) return 'new';
  return sameValues(type, answer.values, line.before) ? 'old' : 'other';
}

const ORDER: SubjectState[] = ['other', 'old', 'silent', 'new'];
/** What comes from others is kept to a line or two. */
const LONGEST = 300;
const unique = (texts: readonly string[]): string[] => [...new Set(texts)];
const said = (values: readonly string[]): string =>
  values.length ? values.join(', ').slice(0, LONGEST) : 'no record';

/** Names that a server answers with the addresses of the alias that is wanted there. */
const flattenedNames = (goal: WatchGoal, answers: readonly SeenAnswer[], good: AsGood): Set<string> =>
  new Set(
    goal.lines
      .filter((l) => l.type === 'CNAME' && l.after.length > 0)
      .filter((l) =>
        isFlattened(
          l.after[0],
          answers.find((a) => plainName(a.name) === l.name && a.type === 'A')?.values ?? [],
          good,
        ),
      )
      .map((l) => l.name),
  );

/** One server, by all the records that change: the worst of its answers counts. */
function judgeServer(
  { kind, name, answers }: SeenServer,
  goal: WatchGoal,
  { at, aliases }: WatchSeen,
): Subject {
  const lines: Line[] =
    kind === 'zone above'
      ? answers.map((a) => ({
          name: a.name,
          type: 'NS',
          before: [],
          after: goal.nameServers,
          lasts: a.ttl,
        }))
      : goal.lines;
  const good = { aliases, ranges: goal.ranges };
  const flat = flattenedNames(goal, answers, good);
  const judged = lines.map((line) => {
    const answer = answers.find((a) => plainName(a.name) === line.name && a.type === line.type);
    // addresses that were to go are those of the alias in their place
    const isFlat = flat.has(line.name) && !line.after.length && line.type === 'A';
    return { line, answer, state: isFlat ? ('new' as const) : stateOfAnswer(line, answers, good) };
  });
  // what the zone above names is the old, until it is the new
  if (kind === 'zone above') for (const one of judged) if (one.state === 'other') one.state = 'old';
  const worst = judged.sort((a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state))[0];
  if (!worst) return { kind, name, state: 'new', text: 'nothing changes there' };
  const { state } = worst;
  // of a server that is not as it is to be, all that is wrong there
  const told = state === 'new' ? [worst] : judged.filter((one) => one.state !== 'new');
  const text = unique(
    told.map(({ line, answer, state: one }) =>
      one === 'silent'
        ? (answer?.error ?? 'no answer')
        : `${line.type} ${line.name}: ${said(answer?.values ?? [])}`,
    ),
  ).join('; ');
  const kept = told.flatMap((one) => (kind === 'resolver' && isStale(one.state) ? (one.answer ?? []) : []));
  const lasts = Math.max(0, ...kept.map((a) => a.ttl));
  return { kind, name, state, text, ...(kept.length ? { until: at + lasts * 1000 } : {}) };
}

const isStale = (state: SubjectState): boolean => state === 'old' || state === 'other';

const SHOWN: Record<Shows, SubjectState> = {
  site: 'new',
  'old site': 'old',
  'holding page': 'old',
  'parking page': 'other',
  'unknown name': 'other',
  // who is refused does not see what is there
  refused: 'silent',
  nothing: 'silent',
};

const shownText = ({ shows, error, title }: Pick<SeenHost, 'shows' | 'error' | 'title'>): string =>
  [shows === 'nothing' ? (error ?? 'nothing answers') : shows, title && `“${title}”`]
    .filter(Boolean)
    .join(': ');

const worstOf = (states: readonly SubjectState[]): SubjectState =>
  ORDER.find((state) => states.includes(state)) ?? 'silent';

/** What the old server shows says nothing of the new one’s certificate. */
const coverState = ({ shows, isCovered }: SeenAddress): SubjectState => {
  if (shows === 'old site') return 'old';
  return isCovered ? 'new' : isCovered === false ? 'other' : 'silent';
};

/** The certificate of a host at each of its addresses. */
function judgeCertificate({ host, addresses }: SeenHost): Subject {
  const asked = addresses.filter((a) => !a.isOutOfReach);
  const state = worstOf(asked.map(coverState));
  const bad = asked.filter((a) => coverState(a) === state);
  const texts: Record<SubjectState, string> = {
    new: asked.length === 1 ? 'the certificate covers it' : 'the certificate covers it at each address',
    old: 'the old server’s',
    other: bad.map((a) => `${a.tlsError ?? 'not trusted'} at ${a.address}`).join('; '),
    silent: bad.map((a) => `${a.tlsError ?? 'no handshake'} at ${a.address}`).join('; ') || 'no handshake',
  };
  return { kind: 'https', name: host, state, text: texts[state].slice(0, LONGEST) };
}

/** What visitors of a host meet: by the way that browsers take, and at each of its addresses. */
function judgeShown(h: SeenHost, preferred: string): Subject {
  const isElsewhere = h.shows === 'site' && h.end !== undefined && hostOf(h.end) !== preferred;
  const asked = h.addresses.filter((a) => !a.isOutOfReach);
  const first: SubjectState = isElsewhere ? 'other' : SHOWN[h.shows];
  const state = worstOf([first, ...asked.map((a) => SHOWN[a.shows])]);
  const bad = asked.filter((a) => SHOWN[a.shows] === state).map((a) => `${shownText(a)} at ${a.address}`);
  const text = first === state ? (isElsewhere ? `ends at ${h.end}` : shownText(h)) : bad.join('; ');
  return { kind: 'http', name: h.host, state, text: text.slice(0, LONGEST) };
}

/** The new host itself, whatever resolvers still say. */
function judgeNew({ atNew }: WatchSeen): Subject[] {
  if (!atNew) return [];
  const { shows, host, address } = atNew;
  return [{ kind: 'http', name: `${host} at ${address}`, state: SHOWN[shows], text: shownText(atNew) }];
}

function judgeMail(seen: WatchSeen, goal: WatchGoal): Subject[] {
  if (!goal.mail.length) return [];
  const { mail } = seen;
  const state: SubjectState = !mail ? 'silent' : sameValues('MX', mail, goal.mail) ? 'new' : 'other';
  return [{ kind: 'mail', name: 'MX', state, text: mail ? said(mail) : 'no answer' }];
}

const names = (subjects: readonly { name: string }[]): string => subjects.map((s) => s.name).join(' and ');

/** Subjects of which the same is said, together. */
const byText = (subjects: readonly Subject[]): [text: string, Subject[]][] => {
  const groups = new Map<string, Subject[]>();
  for (const s of subjects) groups.set(s.text, [...(groups.get(s.text) ?? []), s]);
  return [...groups];
};

/** Why the authoritative servers do not all have it: each of their faults by itself. */
function reasonsAtOperator(servers: readonly Subject[], { atNew }: WatchSeen): string[] {
  const has = servers.filter((s) => s.state === 'new');
  const lacks = servers.filter((s) => s.state !== 'new');
  const isTold = !has.length && atNew?.shows === 'site';
  return byText(lacks).map(([text, group]) => {
    if (group.every((s) => s.state === 'silent'))
      return `${names(group)} ${group.length === 1 ? 'does' : 'do'} not answer (${text}).`;
    const give = group.length === 1 ? 'gives' : 'give';
    if (has.length)
      return `Half of the servers: ${names(has)} ${has.length === 1 ? 'has' : 'have'} the new records, but ${names(group)} ${give} ${text}. Its operator has to spread them.`;
    return isTold
      ? `Told to the host, not set at the DNS operator: ${atNew.address} shows the site for ${atNew.host}, but ${names(group)} ${give} ${text}.`
      : `Not changed at the DNS operator: ${names(group)} ${give} ${text}.`;
  });
}

const listed = (all: readonly string[]): string => unique(all).join(' and ');

/** Why hosts do not show what they should. @param isSet the names lead there by every server */
function reasonsAtHost({ hosts, atNew }: WatchSeen, subjects: readonly Subject[], isSet: boolean): string[] {
  // what a resolver still leads elsewhere says nothing of the host: the new address itself is asked too
  const met = [
    ...(atNew ? [atNew] : []),
    ...hosts,
    ...hosts.flatMap(({ host, addresses }) => addresses.map((a) => ({ ...a, host, title: undefined }))),
  ];
  const of = (shows: Shows): typeof met => met.filter((h) => h.shows === shows);
  const [unknown, parked, holding] = [of('unknown name'), of('parking page'), of('holding page')];
  const named = new Set([...unknown, ...parked, ...holding].map((h) => h.host));
  const title = unknown.find((h) => h.title)?.title;
  const hostsOf = (list: typeof met): string => listed(list.map((h) => h.host));
  const show = (list: typeof met): string => (new Set(list.map((h) => h.host)).size === 1 ? 'shows' : 'show');
  const bad = subjects.filter(({ kind, name, state }) => {
    const isOfHost = kind === 'https' || kind === 'http';
    // a host that does not know the name has no certificate for it either
    return isOfHost && !isOfNames(named, name) && (state === 'other' || state === 'silent');
  });
  return [
    unknown.length > 0 &&
      `${isSet ? 'Set at the DNS operator, not told to the host: it' : 'Not told to the host either: it'} does not know ${hostsOf(unknown)}${title ? ` (“${title}”)` : ''}.`,
    parked.length > 0 &&
      `${hostsOf(parked)} ${show(parked)} a parking page: the name leads to the registrar, or the host parks it.`,
    holding.length > 0 && `${hostsOf(holding)} still ${show(holding)} the holding page.`,
    ...byText(bad.filter((s) => s.kind === 'https')).map(
      ([text, group]) => `No valid certificate for ${names(group)}: ${text}.`,
    ),
    ...byText(bad.filter((s) => s.kind === 'http')).map(([text, group]) => `${names(group)}: ${text}.`),
  ].filter((text) => text !== false);
}

/** A subject is called by its host, or by its host and an address. */
const isOfNames = (hosts: ReadonlySet<string>, name: string): boolean => hosts.has(name.split(' ')[0]!);

function reasonsAtCaches(subjects: readonly Subject[], at: number, expectedBy: number | null): string[] {
  const late = subjects.filter((s) => s.kind === 'resolver' && s.state !== 'new');
  if (!late.length) return [];
  return [
    expectedBy !== null && at > expectedBy
      ? `${names(late)} still ${late.length === 1 ? 'gives' : 'give'} the old answer, past its TTL. Whoever runs ${late.length === 1 ? 'it' : 'them'} can empty the cache.`
      : `Caches still hold the old answer: ${names(late)}.`,
  ];
}

function reasonsOf(subjects: readonly Subject[], seen: WatchSeen, expectedBy: number | null): string[] {
  const above = subjects.filter((s) => s.kind === 'zone above' && s.state !== 'new');
  const mail = subjects.find((s) => s.kind === 'mail' && s.state === 'other');
  const atOperator = reasonsAtOperator(
    subjects.filter((s) => s.kind === 'authority'),
    seen,
  );
  const reasons = [
    ...byText(above).map(
      ([text, group]) => `The zone above (${names(group)}) does not name the new name servers: ${text}.`,
    ),
    ...(mail ? [`Mail does not go where it went: MX is ${mail.text}.`] : []),
    ...atOperator,
    ...reasonsAtHost(seen, subjects, !atOperator.length),
  ];
  // what caches hold follows from what servers give
  if (!above.length && !atOperator.length) reasons.push(...reasonsAtCaches(subjects, seen.at, expectedBy));
  const left = subjects.filter((s) => s.state !== 'new');
  return reasons.length || !left.length ? reasons : [`${names(left)}: not as it is to be.`];
}

/** So long after the last cache should have let go it is overdue. */
const SLACK_MS = 15 * 60_000;
/** So long a change may take to be made. */
const PATIENCE_MS = 3_600_000;

/** Whether the change is made; servers that will take a zone over have it before anything leads to them. */
function isTurned({ nameServers }: WatchGoal, subjects: readonly Subject[]): boolean {
  const turning: SubjectKind = nameServers.length ? 'zone above' : 'authority';
  return subjects.some((s) => s.kind === turning && s.state === 'new');
}

/** All that is watched, as one look saw it. */
const subjectsOf = (goal: WatchGoal, seen: WatchSeen): Subject[] => [
  ...seen.servers
    .filter((s) => s.kind !== 'zone above' || goal.nameServers.length > 0)
    .map((s) => judgeServer(s, goal, seen)),
  ...judgeNew(seen),
  ...seen.hosts.flatMap((h) => [judgeCertificate(h), judgeShown(h, goal.hosts[0] ?? h.host)]),
  ...judgeMail(seen, goal),
];

function verdictOf(holds: boolean, hasHeld: boolean, isLate: boolean): WatchVerdict {
  if (holds) return 'holds';
  if (hasHeld) return 'turned back';
  return isLate ? 'overdue' : 'waiting';
}

/** Judges one look, knowing the one before. @param begunAt when the watch was begun */
export function watchStanding(
  goal: WatchGoal,
  seen: WatchSeen,
  before: Pick<WatchStanding, 'changedAt' | 'heldAt'> | null,
  begunAt: number,
): WatchStanding {
  const { at } = seen;
  const subjects = subjectsOf(goal, seen);
  const changedAt = before?.changedAt ?? (isTurned(goal, subjects) ? at : null);
  const { lowered, nsTtl } = goal;
  const expiry = changedAt === null ? null : expiryOf(goal.lines, { changedAt, nsTtl, lowered });
  const { at: expectedBy = null, how: expectedHow } = expiry ?? {};
  const holds = subjects.length > 0 && subjects.every((s) => s.state === 'new');
  const heldAt = before?.heldAt ?? (holds ? at : null);
  const isLate = at > (expectedBy ?? begunAt + PATIENCE_MS) + SLACK_MS;
  return {
    at,
    verdict: verdictOf(holds, Boolean(before?.heldAt), isLate),
    reasons: holds ? [] : reasonsOf(subjects, seen, expectedBy),
    subjects,
    changedAt,
    expectedBy,
    ...(expectedHow ? { expectedHow } : {}),
    heldAt,
  };
}

/** What changed from one look to the next: new, old, or something else, and back. */
export function watchChanges(before: WatchStanding | null, now: WatchStanding): Subject[] {
  const was = new Map((before?.subjects ?? []).map((s) => [`${s.kind} ${s.name}`, `${s.state} ${s.text}`]));
  return now.subjects.filter((s) => was.get(`${s.kind} ${s.name}`) !== `${s.state} ${s.text}`);
}

const MINUTE_MS = 60_000;
/** How long it is watched once it holds. */
export const AFTER_HOLDING_MS = 48 * 3_600_000;

/** Milliseconds until the next look: often at first, then ever less. @param since the begin, or the last change */
export function pauseAfter(since: number, holds: boolean): number {
  if (holds) return 30 * MINUTE_MS;
  if (since < 10 * MINUTE_MS) return MINUTE_MS / 2;
  if (since < 60 * MINUTE_MS) return 2 * MINUTE_MS;
  return since < 360 * MINUTE_MS ? 5 * MINUTE_MS : 15 * MINUTE_MS;
}
