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
  spreadOfMove,
  type AsGood,
  type CutOver,
  type CutOverLine,
} from './cut-over';

/** What is to be seen everywhere in the end. */
export interface WatchGoal {
  lines: Pick<CutOverLine, 'name' | 'type' | 'before' | 'after' | 'lasts'>[];
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
}

const WEB = new Set(['A', 'AAAA', 'CNAME', 'HTTPS']);

/**
 * What is to be seen everywhere: what changes by the plan, or all that is wanted where it is changed already.
 * @param hosts of the live site, the preferred one first
 */
export function goalOf(
  plan: Pick<CutOver, 'lines' | 'move'>,
  { brief, hosts, ranges }: { brief: Brief; hosts: string[]; ranges?: string[] },
): WatchGoal {
  const changing = plan.lines.filter((l) => l.action !== 'keep');
  const named = new Set((brief.records ?? []).map((r) => `${plainName(r.name)} ${r.type}`));
  const wanted = plan.lines.filter((l) => named.has(`${l.name} ${l.type}`) && WEB.has(l.type));
  const lines = changing.length ? changing : wanted.map((l) => ({ ...l, before: [] }));
  const zone = registrableDomain(hosts[0] ?? '');
  return {
    lines: lines.map(({ name, type, before, after, lasts }) => ({ name, type, before, after, lasts })),
    nameServers: plan.move?.to ?? [],
    nsTtl: plan.move?.nsTtl ?? 0,
    hosts,
    mail: plan.lines.filter((l) => l.type === 'MX' && l.name === zone).flatMap((l) => l.after),
    ...(ranges ? { ranges } : {}),
  };
}

export type ServerKind = 'zone above' | 'authority' | 'resolver';

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
  /** Whether a trusted certificate covers it; nothing where no handshake came to its end. */
  isCovered?: boolean;
  tlsError?: string;
}

export interface WatchSeen {
  at: number;
  servers: SeenServer[];
  hosts: SeenHost[];
  /** What the new host says of the preferred name when it is asked at its own address. */
  atNew?: SeenHost & { address: string };
  /** The addresses of names that wanted aliases lead to. */
  aliases?: Record<string, string[]>;
  /** The MX records as the first server gives them; nothing where none answered. */
  mail?: string[];
}

export type SubjectState = 'new' | 'old' | 'other' | 'silent';
export type SubjectKind = ServerKind | 'https' | 'http' | 'mail';

/** One thing that is watched. */
export interface Subject {
  kind: SubjectKind;
  name: string;
  state: SubjectState;
  text: string;
  /** How long its answer will last. */
  until?: number;
}

export type WatchVerdict = 'waiting' | 'holds' | 'turned back' | 'overdue';

export interface WatchStanding {
  at: number;
  verdict: WatchVerdict;
  /** The likely reason where it does not hold. */
  reason: string | null;
  subjects: Subject[];
  /** When the first authoritative server was seen with the new records; where servers move, when the zone above named them. */
  changedAt: number | null;
  /** When the last cache that obeys TTLs has let go; nothing before the change. */
  expectedBy: number | null;
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
  const { line, answer, state } = worst;
  const text =
    state === 'silent'
      ? (answer?.error ?? 'no answer')
      : `${line.type} ${line.name}: ${said(answer?.values ?? [])}`;
  const isKept = kind === 'resolver' && (state === 'old' || state === 'other') && answer;
  return { kind, name, state, text, ...(isKept ? { until: at + answer.ttl * 1000 } : {}) };
}

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

const shownText = ({ shows, error, title }: SeenHost): string =>
  [shows === 'nothing' ? (error ?? 'nothing answers') : shows, title && `“${title}”`]
    .filter(Boolean)
    .join(': ');

function judgeHost(h: SeenHost, preferred: string): Subject[] {
  // what the old server shows says nothing of the new one’s certificate
  const isOld = h.shows === 'old site';
  const covered: Subject = {
    kind: 'https',
    name: h.host,
    state: isOld ? 'old' : h.isCovered ? 'new' : h.isCovered === false ? 'other' : 'silent',
    text: isOld
      ? 'the old server’s'
      : h.isCovered
        ? 'the certificate covers it'
        : (h.tlsError ?? 'no handshake'),
  };
  const isAstray = h.shows === 'site' && h.end !== undefined && hostOf(h.end) !== preferred;
  const shown: Subject = {
    kind: 'http',
    name: h.host,
    state: isAstray ? 'other' : SHOWN[h.shows],
    text: isAstray ? `ends at ${h.end}` : shownText(h),
  };
  return [covered, shown];
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

/** Why the authoritative servers do not all have it. */
function reasonAtOperator(servers: readonly Subject[], seen: WatchSeen): string | null {
  const has = servers.filter((s) => s.state === 'new');
  const lacks = servers.filter((s) => s.state !== 'new');
  if (!lacks.length) return null;
  if (has.length)
    return `Half of the servers: ${names(has)} ${has.length === 1 ? 'has' : 'have'} the new records, ${names(lacks)} not (${lacks[0]!.text}). Its operator has to spread them.`;
  const { atNew } = seen;
  return atNew?.shows === 'site'
    ? `Told to the host, not set at the DNS operator: ${atNew.address} shows the site for ${atNew.host}, but ${names(lacks)} still ${lacks.length === 1 ? 'gives' : 'give'} the old records.`
    : `Not changed at the DNS operator: ${names(lacks)} ${lacks.length === 1 ? 'gives' : 'give'} ${lacks[0]!.text}.`;
}

/** Why a host does not show what it should, once its names lead there. */
function reasonAtHost({ hosts, atNew }: WatchSeen, subjects: readonly Subject[]): string | null {
  // what a resolver still leads astray says nothing of the host: the new address itself is asked too
  const met = [...(atNew ? [atNew] : []), ...hosts];
  const unknown = met.find((h) => h.shows === 'unknown name');
  if (unknown)
    return `Set at the DNS operator, not told to the host: it does not know ${unknown.host}${unknown.title ? ` (“${unknown.title}”)` : ''}.`;
  const parked = met.find((h) => h.shows === 'parking page');
  if (parked)
    return `${parked.host} shows a parking page: the name leads to the registrar, or the host parks it.`;
  const holding = met.find((h) => h.shows === 'holding page');
  if (holding) return `${holding.host} still shows the holding page.`;
  const bad = subjects.find(
    (s) => (s.kind === 'https' || s.kind === 'http') && s.state !== 'new' && s.state !== 'old',
  );
  if (bad?.kind === 'https') return `No certificate for ${bad.name} yet: ${bad.text}.`;
  return bad ? `${bad.name}: ${bad.text}.` : null;
}

function reasonAtCaches(subjects: readonly Subject[], at: number, expectedBy: number | null): string | null {
  const late = subjects.filter((s) => s.kind === 'resolver' && s.state !== 'new');
  if (!late.length) return null;
  return expectedBy !== null && at > expectedBy
    ? `${names(late)} still ${late.length === 1 ? 'gives' : 'give'} the old answer, past its TTL. Whoever runs ${late.length === 1 ? 'it' : 'them'} can empty the cache.`
    : `Caches still hold the old answer: ${names(late)}.`;
}

function reasonOf(subjects: readonly Subject[], seen: WatchSeen, expectedBy: number | null): string | null {
  const above = subjects.find((s) => s.kind === 'zone above' && s.state !== 'new');
  const own = subjects.filter((s) => s.kind === 'authority');
  const mail = subjects.find((s) => s.kind === 'mail' && s.state === 'other');
  return (
    (above ? `The zone above does not name the new name servers: ${above.text}.` : null) ??
    (mail ? `Mail does not go where it went: MX is ${mail.text}.` : null) ??
    reasonAtOperator(own, seen) ??
    // only what the caches lead to is left
    reasonAtHost(seen, subjects) ??
    reasonAtCaches(subjects, seen.at, expectedBy) ??
    (subjects.some((s) => s.state !== 'new')
      ? `${names(subjects.filter((s) => s.state !== 'new'))}: not as it is to be.`
      : null)
  );
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

/** Judges one look, knowing the one before. @param begunAt when the watch was begun */
export function watchStanding(
  goal: WatchGoal,
  seen: WatchSeen,
  before: Pick<WatchStanding, 'changedAt' | 'heldAt'> | null,
  begunAt: number,
): WatchStanding {
  const { at } = seen;
  const subjects = [
    ...seen.servers
      .filter((s) => s.kind !== 'zone above' || goal.nameServers.length > 0)
      .map((s) => judgeServer(s, goal, seen)),
    ...judgeNew(seen),
    ...seen.hosts.flatMap((h) => judgeHost(h, goal.hosts[0] ?? h.host)),
    ...judgeMail(seen, goal),
  ];
  const changedAt = before?.changedAt ?? (isTurned(goal, subjects) ? at : null);
  const longest = Math.max(0, ...goal.lines.map((l) => l.lasts));
  const expectedBy = changedAt === null ? null : spreadOfMove(longest, goal.nsTtl, changedAt).last;
  const holds = subjects.length > 0 && subjects.every((s) => s.state === 'new');
  const heldAt = before?.heldAt ?? (holds ? at : null);
  const isLate = at > (expectedBy ?? begunAt + PATIENCE_MS) + SLACK_MS;
  const missed: WatchVerdict = before?.heldAt ? 'turned back' : isLate ? 'overdue' : 'waiting';
  return {
    at,
    verdict: holds ? 'holds' : missed,
    reason: holds ? null : reasonOf(subjects, seen, expectedBy),
    subjects,
    changedAt,
    expectedBy,
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
