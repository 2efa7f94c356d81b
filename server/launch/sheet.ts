/** The run sheet of a site as it stands: made anew from the site’s facts, the evidence and what people said. */
import { checkById } from '#core/checks/catalogue/index';
import { partsOf } from '#core/checks/engine/parts-of';
import type { Outcome } from '#core/facts/finding';
import { headingOf } from '#core/facts/heading';
import {
  PROOF_WORDS,
  type Condition,
  type PasteKind,
  type Proof,
  type SiteAccount,
} from '#core/facts/launch';
import type { Part } from '#core/facts/parts';
import { conditionsOf } from '#core/launch/conditions';
import { expiryOf, oldAddressesIn, stillLeadingTo, type Expiry } from '#core/launch/cut-over';
import { pasteOf, type PasteInput } from '#core/launch/pastes';
import {
  goOf,
  type GoInput,
  sheetOf,
  type GoStanding,
  type KeptStep,
  type Seen,
  type StepStanding,
} from '#core/launch/sheet';
import { hostsOf } from '#probe/plan';
import { findingsOfChecks, getAudit, type Audit } from '#server/audits';
import { hasBuild } from '#server/builds';
import { peopleByIds } from '#server/people';
import { now } from '#server/platform/clock';
import { contactsByIds, contactsOfSite, type ContactLine, type Environment } from '#server/sites';
import { accountsOf } from './accounts';
import { launchedFrom, loweredBy, planFrom, type LaunchedFrom } from './cut-over';
import { Launch, LaunchStep, WatchRow, type LaunchOverride } from './models';
import { countingOf, launchStanding, type LaunchStanding } from './standing';

/** Who does a step: somebody of the agency, a contact of the client, or somebody else by name. */
interface StepOwner {
  kind: 'agency' | 'client' | 'outside';
  id: number | null;
  name: string;
}

export interface SheetStep extends StepStanding {
  owner: StepOwner | null;
  /** The account that it is done in, where that is written down. */
  account: Pick<SiteAccount, 'operator' | 'access'> | null;
  /** What it has ready to paste. */
  text: string;
}

/** @param at a day or a moment, ISO 8601 */
interface SheetEnd {
  id: string;
  what: string;
  at: string;
}

export interface Sheet {
  launch: {
    id: number;
    number: number;
    plannedAt: string;
    begunBy: string;
    begunAt: string;
    oldTtl: number;
    anyway: LaunchOverride | null;
    wentAt: string | null;
    wentBy: string | null;
  };
  steps: SheetStep[];
  /** Of the client: they can own a step. */
  contacts: ContactLine[];
  /** Where checks look. */
  environments: Record<'live' | 'before', number | null>;
  go: GoStanding;
  /** The records as they were, as lines to paste. */
  back: string;
  /** What ends after the launch. */
  ends: SheetEnd[];
  /** When the last cache has let go: as the watch saw the change, else where the launch is on time. */
  until: string;
  /** How that comes about. */
  untilHow: string;
  /** When the site was set to launched; nothing before. */
  launchedAt: string | null;
  timeZone: string | null;
}

/** All that a sheet is made from. */
interface Facts extends LaunchedFrom {
  plan: ReturnType<typeof planFrom>;
  standing: LaunchStanding;
  before: Environment | undefined;
  accounts: SiteAccount[];
  hasBuild: boolean;
  watch: WatchRow | null;
}

async function factsOf(siteId: number): Promise<Facts> {
  const [from, standing, counting, accounts, built, watch] = await Promise.all([
    launchedFrom(siteId),
    launchStanding(siteId),
    countingOf(siteId),
    accountsOf(siteId),
    hasBuild(siteId),
    WatchRow.findOne({ where: { siteId }, order: [['id', 'DESC']] }),
  ]);
  const before = counting.find((e) => e.kind === 'before');
  return { ...from, plan: planFrom(from), standing, before, accounts, hasBuild: built, watch };
}

/** When the parts that a check reads were looked at. */
function lookedAt({ result, finishedAt, startedAt }: Audit, check: string): number {
  const times = (result as { times?: Partial<Record<Part, string>> } | null)?.times;
  const usual = (finishedAt ?? startedAt).toISOString();
  const known = checkById.get(check);
  const all = (known ? partsOf(known) : []).map((part) => Date.parse(times?.[part] ?? usual));
  return all.length ? Math.min(...all) : Date.parse(usual);
}

/** What the checks that prove steps say of one environment. */
async function findingsOf(
  environment: Environment | null | undefined,
  checks: readonly string[],
): Promise<Map<string, Seen>> {
  if (!environment?.lastAuditId) return new Map();
  const [audit, rows] = await Promise.all([
    getAudit(environment.lastAuditId),
    findingsOfChecks(environment.id, checks),
  ]);
  return new Map(
    rows.map(({ checkId, outcome, accepted, title, fault, found }) => [
      checkId,
      {
        // what two people accepted is no reason to stop
        outcome: accepted ? 'passed' : outcome,
        title: headingOf({ title, fault, outcome }),
        ...(found ? { found } : {}),
        at: lookedAt(audit, checkId),
        auditId: audit.id,
      },
    ]),
  );
}

type OtherProof = Exclude<Proof['kind'], 'check'>;
const passedIf = (good: boolean): Outcome => (good ? 'passed' : 'failed');

/** What the proofs that are no checks say. */
const OTHER_PROOFS: Record<OtherProof, (facts: Facts, launch: Launch) => Omit<Seen, 'title'> | undefined> = {
  records: ({ plan }) => {
    if (!plan || plan.without) return undefined;
    const open = plan.lines.filter((l) => l.action !== 'keep');
    return {
      outcome: passedIf(open.length === 0),
      found: open.map((l) => `${l.action} ${l.type} ${l.name}`).join('; '),
      at: Date.parse(plan.at),
    };
  },
  gate: (facts) => {
    const counting = goingLive(facts);
    if (!counting?.at) return undefined;
    const failed = counting.against.filter((a) => a.outcome === 'failed');
    const outcome = failed.length ? 'failed' : counting.against.length ? 'cantTell' : 'passed';
    return { outcome, found: counting.against.map((a) => a.title).join('; '), at: Date.parse(counting.at) };
  },
  // it is not seen, it is so
  stage: ({ site }) => ({ outcome: passedIf(site.stage === 'launched'), at: now().getTime() }),
  watch: ({ watch }, launch) => {
    if (!watch?.standing || watch.begunAt < launch.begunAt) return undefined;
    const { verdict, reasons, at } = watch.standing;
    return {
      outcome: verdict === 'holds' ? 'passed' : verdict === 'waiting' ? 'cantTell' : 'failed',
      ...(reasons.length ? { found: reasons.join(' ') } : {}),
      at,
    };
  },
  accounts: ({ accounts }) => {
    const has = new Set(accounts.map((a) => a.kind));
    const lacking = (['registrar', 'dns', 'host'] as const).filter((kind) => !has.has(kind));
    return {
      outcome: passedIf(lacking.length === 0),
      found: lacking.length ? `not written down: ${lacking.join(', ')}` : '',
      at: now().getTime(),
    };
  },
  told: ({ plan }, launch) =>
    plan?.without
      ? { outcome: 'inapplicable', found: plan.without, at: Date.parse(plan.at) }
      : launch.asked?.told,
  mail: (_, launch) => launch.asked?.mail,
  left: ({ evidence }, { backLines, wentAt }) => {
    const at = Date.parse(evidence?.times?.dns ?? evidence?.finishedAt ?? '');
    // before the change everything leads there
    if (!evidence || !wentAt || at < wentAt.getTime()) return undefined;
    const old = oldAddressesIn(backLines);
    if (!old.length) return { outcome: 'inapplicable', found: 'no old address is known', at };
    const still = stillLeadingTo(old, evidence.dns);
    return { outcome: passedIf(still.length === 0), found: still.join('; '), at };
  },
};

/** What is to go live: the last environment before the live one, and once launched the live one itself. */
function goingLive({ site, standing, before }: Facts): LaunchStanding['environments'][number] | undefined {
  const { environments } = standing;
  const isBefore = before !== undefined && site.stage !== 'launched';
  return isBefore ? environments.find((e) => e.id === before.id) : environments.find((e) => e.isLive);
}

/** What a proof looks at, in words, before anything was seen. */
const titleOf = ({ kind, check = '' }: Proof): string =>
  kind === 'check' ? (checkById.get(check)?.title ?? check) : PROOF_WORDS[kind];

/** What evidence says of every proof. */
async function proofsOf(facts: Facts, launch: Launch): Promise<(proof: Proof) => Seen | undefined> {
  const proofs = launch.template.steps.flatMap((s) => s.proofs);
  const named = (environment: Proof['environment']): string[] =>
    proofs.flatMap((p) => (p.kind === 'check' && p.environment === environment && p.check ? [p.check] : []));
  const [live, before] = await Promise.all([
    findingsOf(facts.live, named('live')),
    findingsOf(facts.before, named('before')),
  ]);
  return (proof) => {
    if (proof.kind === 'check') return (proof.environment === 'live' ? live : before).get(proof.check ?? '');
    const seen = OTHER_PROOFS[proof.kind](facts, launch);
    return seen && { title: PROOF_WORDS[proof.kind], ...seen };
  };
}

const keptStep = (row: LaunchStep): KeptStep => ({
  ...(row.saidBy && row.saidAt
    ? { said: { by: row.saidBy, at: row.saidAt.getTime(), ...(row.note ? { note: row.note } : {}) } }
    : {}),
  ...(row.leftBy && row.leftAt
    ? { leftOut: { by: row.leftBy, at: row.leftAt.getTime(), reason: row.leftReason ?? '' } }
    : {}),
  ...(row.provenAt ? { provenAt: row.provenAt.getTime() } : {}),
  ...(row.provenBy ? { provenBy: row.provenBy } : {}),
});

/** The sheet without who does what: all that settles it. */
export async function standingSheet(launch: Launch): Promise<{
  facts: Facts;
  rows: LaunchStep[];
  kept: Map<string, KeptStep>;
  steps: StepStanding[];
  conditions: ReadonlySet<Condition>;
}> {
  const [facts, rows] = await Promise.all([
    factsOf(launch.siteId),
    LaunchStep.findAll({ where: { launchId: launch.id } }),
  ]);
  const kept = new Map(rows.map((row) => [row.stepId, keptStep(row)]));
  const live = facts.standing.environments.find((e) => e.isLive);
  const { site } = facts;
  // once somebody said go, what is so afterwards does not take steps off the sheet
  const conditions = launch.conditions
    ? new Set(launch.conditions)
    : conditionsOf({
        replaces: site.replaces,
        brief: facts.brief,
        live: facts.evidence,
        isHolding: !site.replaces && live?.at !== null && site.stage !== 'launched',
        hasBefore: facts.before !== undefined,
        stagingEnds: Boolean(facts.before?.endsOn),
        hasBuild: facts.hasBuild,
      });
  const steps = sheetOf({
    template: launch.template,
    conditions,
    kept,
    seen: await proofsOf(facts, launch),
    titleOf,
    plannedAt: launch.plannedAt.getTime(),
    oldTtl: launch.oldTtl,
    isOnePage: launch.onePage,
    ...(launch.wentAt ? { wentAt: launch.wentAt.getTime() } : {}),
  });
  return { facts, rows, kept, steps, conditions };
}

async function ownersOf(rows: readonly LaunchStep[]): Promise<Map<string, StepOwner>> {
  const [people, contacts] = await Promise.all([
    peopleByIds(rows.flatMap((r) => r.ownerId ?? [])),
    contactsByIds(rows.flatMap((r) => r.contactId ?? [])),
  ]);
  const named = (list: readonly { id: number; name: string }[], id: number): string =>
    list.find((one) => one.id === id)?.name ?? '';
  return new Map(
    rows.flatMap((r): [string, StepOwner][] => {
      if (r.ownerId) return [[r.stepId, { kind: 'agency', id: r.ownerId, name: named(people, r.ownerId) }]];
      if (r.contactId)
        return [[r.stepId, { kind: 'client', id: r.contactId, name: named(contacts, r.contactId) }]];
      return r.outside ? [[r.stepId, { kind: 'outside', id: null, name: r.outside }]] : [];
    }),
  );
}

/** A moment as the client reads it. */
export function inZone(at: number, timeZone: string | null): string {
  const options = { dateStyle: 'full', timeStyle: 'short' } as const;
  try {
    return new Intl.DateTimeFormat('en-GB', { ...options, timeZone: timeZone ?? 'UTC' }).format(at);
  } catch {
    return new Intl.DateTimeFormat('en-GB', { ...options, timeZone: 'UTC' }).format(at);
  }
}

/** When the last cache lets go of the old records: as the watch saw the change, else where it is made as planned. */
function untilOf({ plan, watch }: Facts, launch: Launch, rows: readonly LaunchStep[]): Expiry {
  const standing = watch && watch.begunAt >= launch.begunAt ? watch.standing : null;
  if (standing?.expectedBy && standing.expectedHow)
    return { at: standing.expectedBy, how: standing.expectedHow };
  return expiryOf(
    (plan?.lines ?? []).filter((l) => l.action !== 'keep'),
    {
      changedAt: launch.wentAt?.getTime() ?? launch.plannedAt.getTime(),
      nsTtl: plan?.move?.nsTtl ?? 0,
      lowered: loweredBy(launch, rows),
    },
  );
}

/** The open launch of a site. */
export const openLaunch = (siteId: number): Promise<Launch | null> =>
  Launch.findOne({ where: { openKey: siteId } });

/** @returns null where no launch is open. @throws NotFound */
export async function siteSheet(siteId: number): Promise<Sheet | null> {
  const launch = await openLaunch(siteId);
  return launch && sheetOfLaunch(launch);
}

/** What steps have ready to paste is made from. */
function pasteInput({ plan, brief, live, site }: Facts, launch: Launch, until: number): PasteInput {
  const timeZone = brief.timeZone ?? null;
  return {
    plan,
    brief,
    siteName: site.name,
    liveUrl: live?.url ?? '',
    hosts: live ? hostsOf(live.url, 'live', brief) : [],
    when: inZone(launch.plannedAt.getTime(), timeZone),
    until: inZone(until, timeZone),
  };
}

/** What decides whether to go, beside the steps. */
function goInput(facts: Facts): GoInput {
  const { standing, plan } = facts;
  const against = goingLive(facts)?.against ?? [];
  const ids = (isFailed: boolean): string[] =>
    against.filter((a) => (a.outcome === 'failed') === isFailed).map((a) => a.check);
  return {
    blockers: { failed: ids(true), unsure: ids(false) },
    yes: standing.yes ? (standing.yes.outcome ?? 'untested') : null,
    conflicts: [
      ...(plan?.conflicts ?? []),
      // asked under Records
      ...(plan?.shares ?? []).flatMap((s) =>
        s.answer ? [] : [`${s.text} Nobody has said whether it moves.`],
      ),
    ],
  };
}

/** What ends after the launch, as far as it was seen: the registration, the certificate, staging. */
function endsOf({ evidence, before }: Facts): SheetEnd[] {
  const registered = evidence?.registration?.events.find((e) => e.action === 'expiration')?.date;
  const certificates = (evidence?.hosts ?? []).flatMap((h) => h.tls.chain[0]?.notAfter ?? []).sort();
  const ends: [id: string, what: string, at: string | null | undefined][] = [
    ['registration', 'the registration ends', registered],
    ['certificate', 'the certificate ends', certificates[0]],
    ['staging', `${before?.name ?? 'staging'} ends`, before?.endsOn],
  ];
  return ends.flatMap(([id, what, at]) => (at && !Number.isNaN(Date.parse(at)) ? [{ id, what, at }] : []));
}

export async function sheetOfLaunch(launch: Launch): Promise<Sheet> {
  const { facts, rows, steps } = await standingSheet(launch);
  const owners = await ownersOf(rows);
  const until = untilOf(facts, launch, rows);
  const input = pasteInput(facts, launch, until.at);
  const textOf = (kind: PasteKind | undefined): string => (kind ? pasteOf(kind, input) : '');
  return {
    launch: {
      id: launch.id,
      number: launch.number,
      plannedAt: launch.plannedAt.toISOString(),
      begunBy: launch.begunBy,
      begunAt: launch.begunAt.toISOString(),
      oldTtl: launch.oldTtl,
      anyway: launch.anyway ?? null,
      wentAt: launch.wentAt?.toISOString() ?? null,
      wentBy: launch.wentBy ?? null,
    },
    steps: steps.map((s) => ({
      ...s,
      owner: owners.get(s.id) ?? null,
      account: facts.accounts.find((a) => a.kind === s.where) ?? null,
      text: textOf(s.paste),
    })),
    environments: { live: facts.live?.id ?? null, before: facts.before?.id ?? null },
    contacts: await contactsOfSite(launch.siteId),
    go: goOf(steps, goInput(facts)),
    back: launch.backLines,
    ends: endsOf(facts),
    until: new Date(until.at).toISOString(),
    untilHow: until.how,
    launchedAt: facts.site.launchedAt?.toISOString() ?? null,
    timeZone: facts.brief.timeZone ?? null,
  };
}
