/** What an audit found beyond the one before, as far as somebody who was not looking should hear of it. */
import type { Finding } from '#core/facts/finding';
import type { Gate } from '#core/score/score';

export type NewsKind =
  'gate closed' | 'new blocker' | 'new fault' | 'back' | 'ends soon' | 'gone' | 'changed';

export interface News {
  kind: NewsKind;
  /** Empty for what is no check's. */
  check: string;
  /** The fault. */
  title: string;
  /** What several sites may have in common. */
  cause: string;
  /** What was found. */
  text: string;
}

/** What a visitor sees first. */
export interface Face {
  title: string;
  heading: string;
  description: string;
}

export interface Seen {
  gate: Gate | null;
  findings: readonly Finding[];
  face?: Face;
}

/** Checks of what ends by itself: their faults are told before they hold anything. */
const ENDING = new Set(['https.certificate-days', 'domain.registration-days', 'delivery.staging-lifetime']);
const isOpen = (f: Finding | undefined): boolean => f?.outcome === 'failed' && !f.accepted;

/** The authority behind a certificate, which many sites share; else the check alone. */
function causeOf(finding: Finding): string {
  if (!finding.check.startsWith('https.certificate-')) return finding.check;
  const issuer = finding.places.find((p) => p.outcome === 'failed')?.data?.issuer;
  return typeof issuer === 'string' ? `${finding.check}, issuer ${issuer}` : finding.check;
}

const FACE_WORDS: Record<keyof Face, string> = {
  title: 'title',
  heading: 'main heading',
  description: 'description',
};

function changesOf(before: Face | undefined, after: Face | undefined): string[] {
  if (!before || !after) return [];
  return (Object.keys(FACE_WORDS) as (keyof Face)[])
    .filter((part) => before[part] !== after[part])
    .map((part) => `its ${FACE_WORDS[part]} is “${after[part]}”, it was “${before[part]}”`);
}

/**
 * @param returned checks whose fix came back with this audit
 * @param ended checks whose fix is verified or gone with this audit
 */
export function newsBetween(
  before: Seen,
  after: Seen,
  returned: ReadonlySet<string>,
  ended: ReadonlySet<string>,
): News[] {
  const old = new Map(before.findings.map((f) => [f.check, f]));
  const fresh = after.findings.filter((f) => isOpen(f) && !isOpen(old.get(f.check)));
  // a check that was not there before, or had nothing to go by, finds what may have been so for years
  const isNew = (f: Finding): boolean => ['passed', 'inapplicable'].includes(old.get(f.check)?.outcome ?? '');
  const told = (kind: NewsKind, f: Finding): News => ({
    kind,
    check: f.check,
    title: f.fault || f.title,
    cause: causeOf(f),
    text: f.found ?? f.reason ?? '',
  });
  const blockers = fresh.filter((f) => f.severity === 'blocker');
  const closed = after.gate === 'held' && before.gate !== null && before.gate !== 'held';
  const changed = changesOf(before.face, after.face);
  return [
    // a gate that closes is told by what holds it
    ...blockers.map((f) => told(returned.has(f.check) ? 'back' : closed ? 'gate closed' : 'new blocker', f)),
    ...fresh
      .filter((f) => f.severity !== 'blocker' && (returned.has(f.check) || ENDING.has(f.check) || isNew(f)))
      .map((f) => told(returned.has(f.check) ? 'back' : ENDING.has(f.check) ? 'ends soon' : 'new fault', f)),
    ...after.findings.filter((f) => ended.has(f.check) && !isOpen(f)).map((f) => told('gone', f)),
    ...(changed.length
      ? [
          {
            kind: 'changed' as const,
            check: '',
            title: 'The home page says something else',
            cause: '',
            text: changed.join('; '),
          },
        ]
      : []),
  ];
}

const WORDS: Record<NewsKind, string> = {
  'gate closed': 'Gate closed',
  'new blocker': 'New blocker',
  'new fault': 'New fault',
  back: 'Came back',
  'ends soon': 'Ends soon',
  gone: 'Gone',
  changed: 'Changed',
};
const NAMED = 3;

/**
 * One message for all that has one cause.
 * @param news with the place where each was found, as “Site, Environment”
 */
export function messageOf(news: readonly (News & { where: string })[]): string {
  const [first] = news;
  const { kind, title, cause, check } = first!;
  const said = ({ where, text }: { where: string; text: string }): string =>
    text ? `${where}: ${text}` : where;
  if (news.length === 1) return `${WORDS[kind]}: ${title}. ${said(first!)}`;
  const common = cause === check ? '' : `, one cause: ${cause.slice(check.length + 2)}`;
  const named = news.slice(0, NAMED).map(said);
  const others = news.length - named.length;
  return `${WORDS[kind]} on ${news.length} sites${common}: ${title}. ${named.join('; ')}${others ? ` and ${others} more` : ''}`;
}
