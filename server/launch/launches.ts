/** Beginning a launch, working through its sheet, going, and ending it. */
import type { Transaction } from 'sequelize';
import { checksOf } from '#core/checks/engine/checklist';
import type { Check } from '#core/checks/kit/check';
import { finalStatus, type PageEvidence } from '#core/facts/evidence';
import type { ProofKind, TemplateStep } from '#core/facts/launch';
import type { Part } from '#core/facts/parts';
import { settled, type GoStanding } from '#core/launch/sheet';
import { findEvidence, type Scope, startAudits, type Started } from '#server/audits';
import { checklistFor } from '#server/checklists';
import { findMember, listPeople, notify } from '#server/people';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound, Refused } from '#server/platform/errors';
import { readEvidence } from '#server/platform/packed';
import { lockSite, getSite, contactOfSite } from '#server/sites';
import { launchedFrom, planFrom } from './cut-over';
import type { GoDto, StepActDto } from './dto';
import { Launch, LaunchEvent, LaunchStep, type LaunchOverride, type LaunchEventKind } from './models';
import { refreshProofs } from './refresh-proofs';
import { inZone, openLaunch, sheetOfLaunch, standingSheet } from './sheet';
import { countingOf } from './standing';
import { launchTemplate } from './template';

const GONE = 'This launch is not there, or not any more.';

async function note(
  launchId: number,
  kind: LaunchEventKind,
  by: string,
  { stepId, text, at = now() }: { stepId?: string; text?: string; at?: Date },
  transaction?: Transaction,
): Promise<void> {
  await LaunchEvent.create(
    { launchId, kind, byName: by, at, stepId: stepId ?? null, text: text?.slice(0, 2000) ?? null },
    { transaction },
  );
}

/** Begins a launch of a site: its sheet follows from the site’s facts. @throws NotFound, Conflict, Refused */
export async function beginLaunch(siteId: number, plannedAt: Date, by: string): Promise<{ id: number }> {
  const from = await launchedFrom(siteId);
  if (!from.live) throw new Refused('There is no live address yet: add one under Edit site.');
  if (from.site.stage === 'retired') throw new Refused('A retired site is not launched.');
  const plan = planFrom(from);
  const changing = (plan?.lines ?? []).filter((l) => l.action !== 'keep');
  const { version, template } = await launchTemplate();
  const onePage = await hasOnePage(siteId);
  return inTransaction(async (transaction) => {
    const site = await lockSite(siteId, transaction);
    if (await Launch.count({ where: { openKey: siteId }, transaction }))
      throw new Conflict('A launch of this site is under way already.');
    const number =
      (((await Launch.max('number', { where: { siteId }, transaction })) as number | null) ?? 0) + 1;
    const launch = await Launch.create(
      {
        siteId: site.id,
        number,
        openKey: siteId,
        templateVersion: version,
        template,
        plannedAt,
        onePage,
        oldTtl: Math.max(0, ...changing.map((l) => l.ttl ?? 0)),
        backLines: plan?.back ?? '',
        begunBy: by,
        begunAt: now(),
      },
      { transaction },
    );
    await note(
      launch.id,
      'begun',
      by,
      { text: `planned for ${inZone(plannedAt.getTime(), from.brief.timeZone ?? null)}` },
      transaction,
    );
    await emit('LaunchChanged', { siteId }, transaction);
    return { id: launch.id };
  });
}

const LEAST_TEXT = 200;

const isWhole = ({ chain, facts }: PageEvidence): boolean =>
  finalStatus(chain) === 200 && (facts?.text.trim().length ?? 0) > LEAST_TEXT;

/** Whether what goes live has a single page, as its newest audit read it whole. */
async function hasOnePage(siteId: number): Promise<boolean> {
  const [first] = await countingOf(siteId);
  const stored = first?.lastAuditId ? await findEvidence(first.lastAuditId) : null;
  if (!stored) return false;
  const { pages } = await readEvidence(stored.data);
  const [only] = pages;
  // a page that scripts build has no links to tell by
  return pages.length === 1 && only !== undefined && isWhole(only);
}

/** An open launch, held. @throws NotFound, Conflict where it has ended */
async function heldLaunch(id: number, transaction: Transaction): Promise<Launch> {
  const launch = await Launch.findByPk(id, { transaction, lock: true });
  if (!launch) throw new NotFound(GONE);
  if (launch.openKey === null) throw new Conflict('This launch has ended.');
  return launch;
}

/** Plans it for another moment: all steps move with it. @throws NotFound, Conflict */
export async function moveLaunch(id: number, plannedAt: Date, by: string): Promise<void> {
  await inTransaction(async (transaction) => {
    const launch = await heldLaunch(id, transaction);
    await launch.update({ plannedAt }, { transaction });
    await note(id, 'moved', by, { text: `to ${inZone(plannedAt.getTime(), null)} UTC` }, transaction);
    await emit('SiteTouched', { siteId: launch.siteId }, transaction);
  });
}

type Act = (
  step: LaunchStep,
  input: StepActDto,
  by: string,
  launch: Launch,
  transaction: Transaction,
) => Promise<{ kind: LaunchEventKind; text?: string }>;

const ACTS: Record<StepActDto['act'], Act> = {
  async done(step, { text }, by, _, transaction) {
    await step.update(
      { saidBy: by, saidAt: now(), note: text?.trim() || null, leftBy: null, leftAt: null, leftReason: null },
      { transaction },
    );
    return { kind: 'done', text: text?.trim() };
  },
  async undo(step, { text }, _, __, transaction) {
    await step.update(
      { saidBy: null, saidAt: null, note: null, provenAt: null, provenBy: null },
      { transaction },
    );
    return { kind: 'undone', text: text?.trim() };
  },
  async 'leave out'(step, { text = '' }, by, _, transaction) {
    if (text.trim().length < 3) throw new Refused('Say why it is left out.');
    await step.update({ leftBy: by, leftAt: now(), leftReason: text.trim() }, { transaction });
    return { kind: 'left out', text: text.trim() };
  },
  async 'take up'(step, _, __, ___, transaction) {
    await step.update({ leftBy: null, leftAt: null, leftReason: null }, { transaction });
    return { kind: 'taken up' };
  },
  async own(step, input, _, launch, transaction) {
    const { name, ...owner } = await namedOwner(input, launch.siteId, transaction);
    await step.update(owner, { transaction });
    return { kind: 'owner', text: name || 'nobody' };
  },
};

/** Whose a step is to be: the first that is named. @throws NotFound, Refused */
async function namedOwner(
  { ownerId, contactId, outside = '' }: StepActDto,
  siteId: number,
  transaction: Transaction,
): Promise<{ name: string } & Pick<LaunchStep, 'ownerId' | 'contactId' | 'outside'>> {
  const nobody = { ownerId: null, contactId: null, outside: null };
  if (ownerId) {
    const person = await findMember(ownerId, transaction);
    if (!person) throw new Refused('This person is not of the team, or not any more.');
    return { ...nobody, name: person.name, ownerId };
  }
  if (contactId) {
    const { name } = await contactOfSite(contactId, siteId, transaction);
    return { ...nobody, name, contactId };
  }
  const name = outside.trim();
  return { ...nobody, name, outside: name || null };
}

/** @throws NotFound, Conflict, Refused */
export async function actOnStep(id: number, stepId: string, input: StepActDto, by: string): Promise<void> {
  await inTransaction(async (transaction) => {
    const launch = await heldLaunch(id, transaction);
    if (!launch.template.steps.some((s) => s.id === stepId)) throw new NotFound('There is no such step.');
    const [step] = await LaunchStep.findOrCreate({ where: { launchId: id, stepId }, transaction });
    const { kind, text } = await ACTS[input.act](step, input, by, launch, transaction);
    await note(id, kind, by, { stepId, text }, transaction);
    await emit('SiteTouched', { siteId: launch.siteId }, transaction);
  });
}

/** What an environment is looked at for, to see whether a step is done; nothing where nothing of it shows there. */
function scopeFor(
  { proofs }: TemplateStep,
  kind: 'live' | 'before',
  known: (id: string) => Check | undefined,
): { scope?: Scope } | undefined {
  const checks = proofs.flatMap((p) => {
    const check = p.kind === 'check' && p.environment === kind && p.check ? known(p.check) : undefined;
    return check && !check.byHand ? [check.id] : [];
  });
  const has = (proof: ProofKind): boolean => proofs.some((p) => p.kind === proof);
  // the gate rests on all that is there
  if (kind === 'before' && has('gate')) return {};
  const parts: Part[] = kind === 'live' && (has('records') || has('left')) ? ['dns'] : [];
  return checks.length || parts.length ? { scope: { checks, parts } } : undefined;
}

/** Looks now at what proves a step. @throws NotFound, Conflict, Refused where nothing can be looked at */
export async function checkStep(id: number, stepId: string, by: string): Promise<Started> {
  const launch = await Launch.findByPk(id);
  const step = launch?.template.steps.find((s) => s.id === stepId);
  if (!launch || !step) throw new NotFound(GONE);
  const site = await getSite(launch.siteId);
  const known = checksOf((await checklistFor(site)).checklist);
  const out: Started = { started: [], refused: [] };
  for (const environment of await countingOf(launch.siteId)) {
    const asked = scopeFor(step, environment.kind, known);
    if (!asked) continue;
    const { started, refused } = await startAudits([environment.id], by, asked);
    out.started.push(...started);
    out.refused.push(...refused);
  }
  if (
    await refreshProofs(
      launch,
      step.proofs.map((p) => p.kind),
    )
  )
    return out;
  if (!out.started.length && out.refused.length) throw new Conflict(out.refused[0]!.reason);
  if (!out.started.length) throw new Refused('Only a person can tell whether this is done.');
  return out;
}

/** Somebody is asked to agree to what stands against a launch. */
async function askSecond(
  held: Launch,
  { reason, against, codes }: Pick<LaunchOverride, 'reason' | 'against' | 'codes'>,
  person: { id: number; name: string },
  transaction: Transaction,
): Promise<void> {
  const anyway = { by: person.name, byId: person.id, at: now().toISOString(), reason, against, codes };
  await held.update({ anyway }, { transaction });
  const text = `${reason} (against it: ${against.join(' ')})`;
  await note(held.id, 'anyway', person.name, { text }, transaction);
  const site = await getSite(held.siteId, transaction);
  // whoever may agree hears of it
  const others = (await listPeople()).filter((p) => p.id !== person.id);
  await notify(
    others.map((u) => u.id),
    `${person.name} wants to launch ${site.name} although something stands against it: ${reason}`,
    `/sites/${site.id}?tab=launch`,
    transaction,
  );
}

/** What is said where something is against a launch that somebody was not shown. */
function refuseUnseen({ codes, against }: GoStanding, seen: readonly string[] | undefined): void {
  if (!seen || codes.every((code) => seen.includes(code))) return;
  throw new Conflict(
    `Something has changed since this was shown. Against it now: ${against.join(' ')} Read it, then decide again.`,
  );
}

/**
 * Goes. Where something is against it, the first person says why all the same, and a second one agrees to exactly
 * that. Decided while the launch is held, so that two people at once never overwrite each other.
 * @param agreesTo when the first person asked, for whom the second agrees
 * @param seen the codes of what the screen showed to be against it
 * @returns whether it went, or waits for a second person
 * @throws NotFound, Conflict, Refused
 */
export async function go(
  id: number,
  { reason = '', agreesTo, seen }: GoDto,
  person: { id: number; name: string },
): Promise<{ went: boolean }> {
  const launch = await Launch.findByPk(id);
  if (!launch || launch.openKey === null) throw new NotFound(GONE);
  const back = planFrom(await launchedFrom(launch.siteId))?.back;
  return inTransaction(async (transaction) => {
    const held = await heldLaunch(id, transaction);
    if (held.wentAt) throw new Conflict(`${held.wentBy} has said go already.`);
    const { go: standing } = await sheetOfLaunch(held);
    const { anyway } = held;
    const went = async (wentBy: string, text: string): Promise<{ went: boolean }> => {
      const at = now();
      // from here on records change: what is there now is the way back
      const { conditions } = await standingSheet(held);
      await held.update(
        { wentAt: at, wentBy, conditions: [...conditions], ...(back ? { backLines: back } : {}) },
        { transaction },
      );
      await note(id, 'went', wentBy, { text, at }, transaction);
      await emit('SiteTouched', { siteId: held.siteId }, transaction);
      return { went: true };
    };
    if (standing.isGo) return went(person.name, 'nothing was against it');
    // who agrees without saying what was shown agrees to what was asked
    refuseUnseen(standing, seen ?? (agreesTo === undefined ? undefined : anyway?.codes));
    if (agreesTo !== undefined) {
      if (anyway?.at !== agreesTo || anyway.byId === person.id)
        throw new Conflict('This was asked anew meanwhile, or needs somebody else to agree. Read it again.');
      return went(`${anyway.by} and ${person.name}`, `anyway: ${anyway.reason}`);
    }
    if (anyway && anyway.byId !== person.id)
      throw new Conflict(`${anyway.by} has asked to go anyway already: read why, and agree to that.`);
    if (reason.trim().length < 3)
      throw new Refused(
        anyway
          ? `${anyway.by} wants to go anyway: somebody else has to agree.`
          : `This is against it: ${standing.against.join(' ')} To go anyway say why; a second person has to agree.`,
      );
    await askSecond(held, { ...standing, reason: reason.trim() }, person, transaction);
    await emit('SiteTouched', { siteId: held.siteId }, transaction);
    return { went: false };
  });
}

/** Ends a launch, with what was learnt. @throws NotFound, Conflict */
export async function endLaunch(
  id: number,
  { how, learnt = '' }: { how: 'done' | 'given up'; learnt?: string },
  by: string,
): Promise<void> {
  await inTransaction(async (transaction) => {
    const launch = await heldLaunch(id, transaction);
    await launch.update(
      { openKey: null, endedAt: now(), endedBy: by, endedHow: how, learnt: learnt.trim() || null },
      { transaction },
    );
    await note(id, how === 'done' ? 'ended' : 'given up', by, { text: learnt.trim() }, transaction);
    await emit('LaunchChanged', { siteId: launch.siteId }, transaction);
  });
}

/** Writes down what evidence has proven or refuted since. */
export async function settle(siteId: number, transaction: Transaction): Promise<void> {
  const launch = await openLaunch(siteId);
  if (!launch) return;
  const { steps, kept } = await standingSheet(launch);
  const turns = settled(steps, kept);
  if (!turns.length) return;
  const held = await Launch.findByPk(launch.id, { transaction, lock: true });
  // ended meanwhile
  if (!held || held.openKey === null) return;
  for (const { id: stepId, provenAt, provenBy } of turns) {
    const [row] = await LaunchStep.findOrCreate({ where: { launchId: held.id, stepId }, transaction });
    // another process may have written it meanwhile
    if ((row.provenAt === null || row.provenAt === undefined) === (provenAt === null)) continue;
    const at = provenAt === null ? null : new Date(provenAt);
    await row.update({ provenAt: at, provenBy: provenBy ?? null }, { transaction });
    const found = steps.find((s) => s.id === stepId)?.proofs.find((p) => p.outcome === 'failed')?.found;
    const kind = provenAt === null ? 'went back' : 'proven';
    await note(held.id, kind, 'audit', { stepId, text: provenAt === null ? found : undefined }, transaction);
  }
  await emit('SiteTouched', { siteId }, transaction);
}
