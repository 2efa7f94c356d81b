/** An audit: a checklist + a brief + evidence -> findings + score. Pure: time comes in as an argument. */
import type { Acceptance, Attestation, Checklist, ChecklistItem } from '#core/facts/checklist';
import { withALabels } from '#core/facts/a-labels';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import {
  SECTIONS,
  SEVERITY_WEIGHT,
  type Finding,
  type Judgement,
  type Section,
  type Severity,
} from '#core/facts/finding';
import type { HostProfile } from '#core/facts/host-profile';
import type { Situation } from '#core/facts/situation';
import { creditOf } from '#core/score/credit';
import { withHostRecords } from '#core/facts/host-records';
import { attested, endOf } from './attested';
import type { Check, CheckContext, Recipe } from '#core/checks/kit/check';
import { CATALOGUE, checkById } from '#core/checks/catalogue/index';
import { closedAs, stagingClosed } from '#core/checks/catalogue/indexing/staging-closed';
import { cantTell, inapplicable } from '#core/checks/kit/judgement';
import { ownCheck } from './own-check';
import { SiteView } from '#core/checks/view/site-view';

/** What a check may know beside evidence, brief and profile. */
export type Beside = Pick<CheckContext, 'book' | 'stage' | 'launched' | 'staging' | 'build' | 'place'>;

export interface AuditInput extends Beside {
  evidence: Evidence;
  brief: Brief;
  profile?: HostProfile;
  checklist: Checklist;
  situation: Situation;
  at: Date;
  attestations?: Attestation[];
  acceptances?: Acceptance[];
  /** Leave checks by hand out altogether (the command line without attestations). */
  leaveOutHand?: boolean;
}

export interface JudgedFinding extends Finding {
  recipe?: Recipe;
}

/** The checklist with every check of the catalogue at its own severity and parameters. */
export function fullChecklist(): Checklist {
  return {
    name: 'Full',
    version: 1,
    items: CATALOGUE.map((c) => ({
      check: c.id,
      on: true,
      severity: c.severity,
      weight: SEVERITY_WEIGHT[c.severity],
      parameters: Object.fromEntries(Object.entries(c.parameters ?? {}).map(([k, v]) => [k, v.default])),
    })),
  };
}

const NO_PARAMETERS: Record<string, number> = Object.freeze({});

/** A checklist item's parameters over the check's defaults, held within their range. */
function parametersOf(check: Check, item: ChecklistItem): Record<string, number> {
  if (!check.parameters) return NO_PARAMETERS;
  const out: Record<string, number> = {};
  for (const [name, spec] of Object.entries(check.parameters)) {
    const given = Number(item.parameters?.[name] ?? spec.default);
    out[name] = Number.isFinite(given) ? Math.min(spec.max, Math.max(spec.min, given)) : spec.default;
  }
  return out;
}

/** Rule 3: what a check rests on, when that is missing. */
function missing(view: SiteView, check?: Check): Judgement | null {
  if (check && check.needs !== 'pages') return null;
  const cause = view.rootCause();
  if (!cause || cause.check === check?.id) return null;
  return cantTell(`rests on ${cause.check}: ${cause.reason}`);
}

/** The checks of a checklist by their ids: the catalogue's and the agency's own. */
export function checksOf(checklist: Pick<Checklist, 'own'>): (id: string) => Check | undefined {
  if (!checklist.own?.length) return (id) => checkById.get(id);
  const own = new Map(checklist.own.map((c) => [c.id, ownCheck(c)]));
  return (id) => checkById.get(id) ?? own.get(id);
}

/** The checklist's lines, and those that the host calls for beside them. */
function linesOf(checklist: Checklist, profile: HostProfile): ChecklistItem[] {
  const called = (profile.handChecks ?? []).filter(
    (id) => !checklist.items.some((i) => i.check === id && i.on !== false) && checkById.get(id)?.byHand,
  );
  return called.length
    ? [...checklist.items.filter((i) => !called.includes(i.check)), ...called.map((check) => ({ check }))]
    : checklist.items;
}

function markAccepted(finding: Finding, input: AuditInput): void {
  if (finding.outcome !== 'failed') return;
  const own = input.acceptances!.filter(
    (a) =>
      a.check === finding.check &&
      endOf(a.until) >= input.at.getTime() &&
      (finding.severity !== 'blocker' || a.seconded),
  );
  if (!own.length) return;
  const bad = finding.places.filter((p) => p.outcome === 'failed');
  for (const p of bad)
    p.accepted = own.some((a) => a.places.some((q) => q.place === p.place && q.found === (p.found ?? '')));
  if (bad.length && bad.every((p) => p.accepted)) finding.accepted = true;
}

/**
 * Judges the evidence.
 * A check that throws is a fault of ours, not of the site: it is told as cantTell with the message, and the
 * others go on.
 */
export function judge(input: AuditInput): JudgedFinding[] {
  const profile = input.profile ?? { name: '' };
  const brief = withHostRecords(withALabels(input.brief), profile, input.evidence.target.hosts[0] ?? '');
  const view = new SiteView(input.evidence, brief, profile, input.situation);
  const checkOf = checksOf(input.checklist);
  const launched =
    input.launched ??
    (input.brief.launchDate ? Date.parse(input.brief.launchDate) <= input.at.getTime() : undefined);
  // a place that was closed after the launch is asked nothing more
  const closed =
    input.situation === 'staging' && launched
      ? closedAs({ view, evidence: input.evidence, brief })
      : undefined;
  const isAttested = (byHand: Check): boolean =>
    attested(byHand, input.attestations ?? [], { at: input.at, stage: input.stage }).outcome === 'passed';
  const findings = Object.fromEntries(SECTIONS.map((section) => [section, []])) as unknown as Record<
    Section,
    JudgedFinding[]
  >;
  for (const item of linesOf(input.checklist, profile)) {
    const check = checkOf(item.check);
    if (!check || item.on === false || !check.situations.includes(input.situation)) continue;
    if (check.byHand && input.leaveOutHand) continue;
    const context: CheckContext = {
      situation: input.situation,
      at: input.at,
      brief,
      profile,
      evidence: input.evidence,
      view,
      parameters: parametersOf(check, item),
      book: input.book,
      stage: input.stage,
      launched,
      staging: input.staging,
      build: input.build,
      place: input.place,
      isAttested,
    };
    let judgement: Judgement;
    try {
      judgement =
        closed && check !== stagingClosed
          ? inapplicable(`this place is closed after the launch (${closed})`)
          : check.byHand
            ? attested(check, input.attestations ?? [], {
                at: input.at,
                stage: input.stage,
                subjects: missing(view) ? undefined : check.subjects?.(context),
              })
            : (missing(view, check) ?? check.judge(context));
    } catch (error) {
      judgement = cantTell(`this check could not finish: ${(error as Error).message}`);
    }
    const severity: Severity = item.severity ?? check.severity;
    const { outcome, expected, found, reason, notes, places } = judgement;
    const finding: JudgedFinding = {
      check: check.id,
      section: check.section,
      title: item.title || check.title,
      severity,
      weight: item.weight ?? SEVERITY_WEIGHT[severity],
      credit: null,
      outcome,
      expected,
      found,
      reason,
      notes,
      places,
    };
    if (check.byHand) finding.byHand = true;
    if (item.note) finding.note = item.note;
    const unread = input.evidence.unread.length;
    if (check.scope === 'page' && unread && (finding.outcome === 'passed' || finding.outcome === 'failed'))
      finding.seen = { read: input.evidence.pages.length, known: input.evidence.pages.length + unread };
    if (input.acceptances?.length) markAccepted(finding, input);
    const allOrNothing = check.allOrNothing ?? check.scope === 'site';
    finding.credit = creditOf(finding, allOrNothing);
    if (input.acceptances?.length && finding.places.some((p) => p.accepted))
      finding.creditAsFound = creditOf(finding, allOrNothing, false);
    // a check by hand is done by its recipe, whatever its outcome
    if (finding.outcome === 'failed' || check.byHand) finding.recipe = check.recipe(context, finding);
    findings[check.section].push(finding);
  }
  return SECTIONS.flatMap((section) => findings[section]);
}
