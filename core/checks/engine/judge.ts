/** An audit: a checklist + a brief + evidence -> findings. Pure: time comes in as an argument. */
import type { Acceptance, Attestation, Checklist, ChecklistItem } from '#core/facts/checklist';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import { SECTIONS, SEVERITY_WEIGHT, type Finding, type Judgement, type Section } from '#core/facts/finding';
import type { HostProfile } from '#core/facts/host-profile';
import { lackingIn } from '#core/facts/fact-names';
import { isSameMessage, type Message } from '#core/facts/message';
import type { Situation } from '#core/facts/situation';
import { creditOf } from '#core/score/credit';
import { completeBrief } from '#core/facts/host-records';
import { clientApproval } from '#core/checks/catalogue/delivery/client-approval';
import { closedAs, stagingClosed } from '#core/checks/catalogue/indexing/staging-closed';
import type { Check, CheckContext, Recipe, Words } from '#core/checks/kit/check';
import { cantTell, inapplicable } from '#core/checks/kit/judgement';
import { SCOPE_WORDS } from '#core/text/scope-words';
import { timesOf } from '#core/facts/part-times';
import { SiteView } from '#core/checks/view/site-view';
import { partsOf } from './parts-of';
import { attested, endOf } from './attested';
import { checksOf, linesOf, parametersOf } from './checklist';
import { askedHosts, restsOnRootCause, unmetNeed } from './needs';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('engine.judge', {
  'closed-after-launch': 'this environment is closed after the launch ({closed})',
  'could-not-finish': 'this check could not finish: {message}',
});

/** What a check may know beside evidence, brief and profile. */
export type JudgeContext = Pick<
  CheckContext,
  'book' | 'stage' | 'launched' | 'staging' | 'build' | 'approval' | 'approved' | 'environment' | 'intended'
>;

export interface AuditInput extends JudgeContext {
  evidence: Evidence;
  brief: Brief;
  profile?: HostProfile;
  checklist: Checklist;
  situation: Situation;
  at: Date;
  /** Where the site is live or will be, for the host’s records where the brief names no preferred host. */
  liveHost?: string;
  attestations?: Attestation[];
  acceptances?: Acceptance[];
  /** Leave manual checks out altogether (the command line without attestations). */
  skipManual?: boolean;
}

export interface JudgedFinding extends Finding {
  recipe?: Recipe;
}

/** What all checks of one audit share. */
type Shared = Omit<CheckContext, 'parameters' | 'words' | 'hosts'>;

/** One audit while it is judged. */
interface Audit {
  input: AuditInput;
  shared: Shared;
  attestations: readonly Attestation[];
  /** How an environment before the live one was closed after the launch: then it is asked nothing more. */
  closed: Message | undefined;
  /** Facts that the evidence does not have. */
  lacking: ReturnType<typeof lackingIn>;
}

function openAudit(input: AuditInput): Audit {
  const { evidence, situation, at, stage } = input;
  const profile = input.profile ?? { name: '' };
  const brief = completeBrief(input.brief, profile, input.liveHost ?? evidence.target.hosts[0] ?? '');
  const view = new SiteView(evidence, brief, profile, situation);
  const attestations = input.attestations ?? [];
  const { launchDate } = input.brief;
  const launched = input.launched ?? (launchDate ? Date.parse(launchDate) <= at.getTime() : undefined);
  const shared: Shared = {
    situation,
    at,
    brief,
    profile,
    evidence,
    view,
    book: input.book,
    stage,
    launched,
    staging: input.staging,
    build: input.build,
    approval: input.approval,
    approved: input.approved,
    environment: input.environment,
    intended: input.intended,
    isAttested: (manual) => attested(manual, attestations, { at, stage }).outcome === 'passed',
  };
  // behind a door that opens to what is stored, it is judged as ever
  const isInside = view.shutDoor !== undefined && view.home !== undefined;
  const closed =
    situation === 'staging' && launched && !isInside ? closedAs({ view, evidence, brief }) : undefined;
  return { input, shared, attestations, closed, lacking: lackingIn(evidence) };
}

/** What one check is told: what all share, and what its own definition asks for. */
function contextFor(check: Check, item: ChecklistItem, shared: Shared): CheckContext {
  const { messages, scope } = check;
  const words: Words = {
    expected: undefined,
    unit: messages.unit ?? SCOPE_WORDS[scope],
    scope,
    none: check.none,
  };
  const { situation, at, brief, profile, evidence, view, book } = shared;
  const { stage, launched, staging, build, approval, approved, environment, intended, isAttested } = shared;
  // one literal, so that all contexts have one shape: a spread of what is shared costs an eighth of all judging
  return {
    situation,
    at,
    brief,
    profile,
    evidence,
    view,
    parameters: parametersOf(check, item),
    words,
    hosts: NO_HOSTS,
    book,
    stage,
    launched,
    staging,
    build,
    approval,
    approved,
    environment,
    intended,
    isAttested,
  } satisfies Record<keyof CheckContext, unknown>;
}
const NO_HOSTS: CheckContext['hosts'] = [];

function judgeManually(check: Check, context: CheckContext, audit: Audit): Judgement {
  const { at, stage } = context;
  const subjects = restsOnRootCause(context.view) ? undefined : check.subjects?.(context);
  return attested(check, audit.attestations, { at, stage, subjects });
}

/** What somebody vouched for, where a check that looks for itself could not tell, or waits for an answer. */
function judgeOrAttested(check: Check, context: CheckContext, audit: Audit): Judgement {
  const judgement = judgeBy(check, context, audit);
  const isOpen = judgement.outcome === 'cantTell' || judgement.outcome === 'untested';
  if (check.attestedForDays === undefined || !isOpen) return judgement;
  const { at, stage } = context;
  const vouched = attested(check, audit.attestations, { at, stage });
  return vouched.outcome === 'untested' ? judgement : vouched;
}

function judgeBy(check: Check, context: CheckContext, audit: Audit): Judgement {
  const unmet = unmetNeed(check, context, audit.lacking);
  if (unmet) return unmet;
  const { expected } = check.messages;
  const { needs } = check;
  if (needs.hosts || needs.tls) context.hosts = askedHosts(context.view, needs);
  context.words.expected = typeof expected === 'function' ? expected(context) : expected;
  return check.judge(context);
}

/** A check that throws is a fault of ours, not of the site: it is told as cantTell, and the others go on. */
function judgementOf(check: Check, context: CheckContext, audit: Audit): Judgement {
  try {
    if (audit.closed && check !== stagingClosed)
      return inapplicable(msg('closed-after-launch', { closed: audit.closed }));
    return check.byHand ? judgeManually(check, context, audit) : judgeOrAttested(check, context, audit);
  } catch (error) {
    return cantTell(msg('could-not-finish', { message: (error as Error).message }));
  }
}

function markAccepted(finding: Finding, acceptances: readonly Acceptance[], at: Date): void {
  if (finding.outcome !== 'failed') return;
  const own = acceptances.filter(
    (a) =>
      a.check === finding.check &&
      endOf(a.until) >= at.getTime() &&
      (finding.severity !== 'blocker' || a.seconded),
  );
  if (!own.length) return;
  const bad = finding.places.filter((p) => p.outcome === 'failed');
  for (const p of bad)
    p.accepted = own.some((a) => a.places.some((q) => q.place === p.place && isSameMessage(q, p)));
  if (bad.length && bad.every((p) => p.accepted)) finding.accepted = true;
}

/** How many of the known pages a check could see, where the page limit left some unread. */
function seenOf(check: Check, finding: Finding, { pages, unread, rendered }: Evidence): Finding['seen'] {
  if (check.scope !== 'page') return undefined;
  if (finding.outcome !== 'passed' && finding.outcome !== 'failed') return undefined;
  // a browser looks at some of the pages that were read
  if (check.needs.rendered) {
    const read = rendered?.pages.length ?? 0;
    const known = pages.filter((p) => p.facts).length + unread.length;
    return read < known ? { read, known } : undefined;
  }
  if (!unread.length) return undefined;
  return { read: pages.length, known: pages.length + unread.length };
}

/** When what a check rests on was looked at, where its parts are of two ages or more. */
function agesOf(check: Check, evidence: Evidence): Finding['ages'] {
  if (!evidence.times || check.byHand) return undefined;
  const times = timesOf(evidence);
  const parts = partsOf(check).map((part) => ({ part, at: times[part] }));
  const again = parts.some(({ part }) => part === 'pages')
    ? evidence.pages.flatMap(({ readAt }) => (readAt ? [{ part: 'pages' as const, at: readAt }] : []))
    : [];
  const all = [...parts, ...again.slice(-1)].sort((a, b) => (a.at < b.at ? -1 : Number(a.at > b.at)));
  return new Set(all.map(({ at }) => at)).size > 1 ? all : undefined;
}

function findingOf(check: Check, item: ChecklistItem, audit: Audit): JudgedFinding {
  const { input } = audit;
  const context = contextFor(check, item, audit.shared);
  const { outcome, expected, found, reason, notes, awaits, code, data, places } = judgementOf(
    check,
    context,
    audit,
  );
  const severity = item.severity ?? check.severity;
  const finding: JudgedFinding = {
    check: check.id,
    section: check.section,
    title: item.title || check.title,
    fault: check.fault,
    severity,
    weight: item.weight ?? SEVERITY_WEIGHT[severity],
    credit: null,
    outcome,
    expected,
    found,
    reason,
    notes,
    code,
    data,
    places,
  };
  if (check.byHand) finding.byHand = true;
  else if (check.attestedForDays !== undefined) finding.attestable = true;
  if (item.note) finding.note = item.note;
  if (awaits) finding.awaits = awaits;
  const seen = seenOf(check, finding, input.evidence);
  if (seen) finding.seen = seen;
  const ages = agesOf(check, input.evidence);
  if (ages) finding.ages = ages;
  if (input.acceptances?.length) markAccepted(finding, input.acceptances, input.at);
  // a site as a whole holds or does not
  const allOrNothing = check.scope === 'site';
  finding.credit = creditOf(finding, allOrNothing);
  if (finding.places.some((p) => p.accepted)) finding.creditAsFound = creditOf(finding, allOrNothing, false);
  // a manual check is done by its recipe, whatever its outcome
  if (finding.outcome === 'failed' || check.byHand) finding.recipe = check.recipe(context, finding);
  return finding;
}

/** Judges the evidence by every line of the checklist, in the order of the sections. */
export function judge(input: AuditInput): JudgedFinding[] {
  const audit = openAudit(input);
  const checkOf = checksOf(input.checklist);
  const bySection = new Map<Section, JudgedFinding[]>(SECTIONS.map((section) => [section, []]));
  for (const item of linesOf(input.checklist, audit.shared.profile)) {
    const check = checkOf(item.check);
    if (!check || item.on === false || !check.situations.includes(input.situation)) continue;
    if (input.skipManual && (check.byHand || (check === clientApproval && !input.approval))) continue;
    bySection.get(check.section)!.push(findingOf(check, item, audit));
  }
  return [...bySection.values()].flat();
}
