/**
 * Audits as jobs: one at a time for each environment, a few at once, with progress, a way to stop, and no
 * audit that runs for ever.
 */
import { setMaxListeners } from 'node:events';
import { Op } from 'sequelize';
import { hostOf } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import { collect, type Progress } from '#probe/collect';
import { askedFor } from '#core/checks/engine/own-check';
import { Audit } from './models';
import { BriefRow, Environment, Site } from '../sites/models';
import { briefForChecks, newestBrief } from '../sites/briefs';
import { newestProfile } from '../hosts/known-profiles';
import { checklistFor, checklistVersion } from '../checklists/checklists';
import { Conflict, NotFound } from '../platform/errors';
import { reevaluateCompared } from './judging';
import { keepAudit } from './keeping';
import { networkSettings } from './network';
import { packJson } from '../platform/packed';
import { whenReachable } from '../platform/db/reachable';
import { situationFor } from './situations';
import { giveSlot, hasSlot, takeSlot, whenFree } from './slots';
import { accessOf } from '../sites/access';
import { announce } from '../platform/events';

const queue: number[] = [];

/** An audit that is under way. */
interface Job {
  stop: AbortController;
  progress: Progress;
  /** What it looks at; unknown until it was read. */
  about?: Pick<RunningAudit, 'environmentId' | 'siteId' | 'site' | 'environment'>;
}
const running = new Map<number, Job>();

/** Screens that show what is running ask again. */
function announceRunning(siteIds: Iterable<number>): void {
  announce([['roster'], ...[...siteIds].map((id) => ['site', id, 'head'])]);
}

/** Audits that a crash or a stop left behind are ended with the reason. Called once at the start. */
export async function endOrphans(): Promise<number> {
  const [count] = await Audit.update(
    {
      status: 'failed',
      runningKey: null,
      finishedAt: new Date(),
      progress: null,
      error: 'Armband was stopped in the middle of this audit. Start it again.',
    },
    { where: { status: { [Op.in]: ['queued', 'running'] } } },
  );
  return count;
}

export interface Started {
  started: { auditId: number; environmentId: number }[];
  refused: { environmentId: number; reason: string }[];
}

/**
 * Queues audits. An environment that is being audited already is refused, and so is one of a retired site.
 */
export async function startAudits(environmentIds: number[], by: string): Promise<Started> {
  const out: Started = { started: [], refused: [] };
  const siteIds = new Set<number>();
  for (const environmentId of new Set(environmentIds)) {
    const environment = await Environment.findByPk(environmentId);
    const site = environment && (await Site.findByPk(environment.siteId));
    if (!environment || !site) {
      out.refused.push({ environmentId, reason: 'This environment does not exist any more.' });
      continue;
    }
    if (site.stage === 'retired') {
      out.refused.push({ environmentId, reason: `${site.name} is retired and is not audited.` });
      continue;
    }
    const brief = await newestBrief(site.id);
    const situation = situationFor(environment, site);
    const { id: checklistVersionId } = await checklistFor(site);
    try {
      const audit = await Audit.create({
        environmentId,
        status: 'queued',
        runningKey: environmentId,
        situation,
        briefId: brief?.id ?? null,
        checklistVersionId,
        startedBy: by,
        startedAt: new Date(),
      });
      out.started.push({ auditId: audit.id, environmentId });
      siteIds.add(site.id);
      queue.push(audit.id);
    } catch (error) {
      if ((error as Error).name !== 'SequelizeUniqueConstraintError') throw error;
      out.refused.push({
        environmentId,
        reason: `${site.name}, ${environment.name}: an audit is running already. Wait for it or stop it.`,
      });
    }
  }
  pump();
  if (out.started.length) announceRunning(siteIds);
  return out;
}

function pump(): void {
  while (hasSlot() && queue.length) {
    const id = queue.shift()!;
    const job: Job = { stop: new AbortController(), progress: { phase: 'Starting', done: 0, total: 0 } };
    // each exchange that is under way listens, and an audit has many at once
    setMaxListeners(0, job.stop.signal);
    running.set(id, job);
    takeSlot();
    void run(id, job).finally(() => {
      running.delete(id);
      announceRunning(job.about ? [job.about.siteId] : []);
      giveSlot();
    });
  }
}
whenFree(pump);

/** What an audit needs to know before it looks; undefined when it is not to run any more. */
async function prepare(id: number) {
  const audit = await Audit.findByPk(id);
  if (!audit || (audit.status !== 'queued' && audit.status !== 'running')) return undefined;
  const environment = await Environment.findByPk(audit.environmentId, { rejectOnEmpty: true });
  await audit.update({ status: 'running', url: environment.url });
  const site = await Site.findByPk(environment.siteId, { rejectOnEmpty: true });
  const brief = audit.briefId ? ((await BriefRow.findByPk(audit.briefId))?.data as Brief) : {};
  const known = await briefForChecks(site, brief);
  const profile = (await newestProfile(site.hostProfileId ?? null))?.profile;
  const asked = askedFor(
    await checklistVersion(audit.checklistVersionId),
    known.brief.preferredHost ?? hostOf(environment.url) ?? '',
  );
  return { audit, environment, site, brief, known, profile, asked };
}

async function run(id: number, job: Job): Promise<void> {
  try {
    // a database that is away for a minute ends no audit, and loses none of what was collected
    const prepared = await whenReachable(() => prepare(id), job.stop.signal);
    if (!prepared) return;
    const { audit, environment, site, brief, known, profile, asked } = prepared;
    job.about = {
      environmentId: environment.id,
      siteId: site.id,
      site: site.name,
      environment: environment.name,
    };
    const evidence = await collect({
      ...networkSettings(),
      url: environment.url,
      kind: environment.kind,
      ...known,
      profile,
      asked,
      access: accessOf(environment),
      signal: job.stop.signal,
      onProgress: (p) => {
        job.progress = p;
      },
    });
    job.progress = { phase: 'Judging', done: 0, total: 1 };
    const packed = await packJson(evidence);
    await whenReachable(() => keepAudit(audit, packed, brief), job.stop.signal);
    await reevaluateCompared(environment, audit.startedBy).catch((error: unknown) =>
      console.error(`audit ${id}: the live environment could not be compared again`, error),
    );
  } catch (error) {
    const stopped = job.stop.signal.aborted;
    if (!stopped) console.error(`audit ${id} failed`, error);
    await whenReachable(() =>
      Audit.update(
        {
          status: stopped ? 'stopped' : 'failed',
          runningKey: null,
          finishedAt: new Date(),
          progress: null,
          error: stopped
            ? 'Stopped by a person.'
            : `The audit could not be finished: ${(error as Error).message}`.slice(0, 600),
        },
        { where: { id } },
      ),
    ).catch((failure: unknown) => console.error(`audit ${id}: its end could not be kept`, failure));
  }
}

/**
 * Audits that stand as running and that nobody works on: their end could not be kept. Called now and then.
 * @returns how many were ended
 */
export async function reconcile(): Promise<number> {
  const open = await Audit.findAll({
    where: { status: { [Op.in]: ['queued', 'running'] } },
    attributes: ['id', 'startedAt'],
  });
  const known = new Set([...queue, ...running.keys()]);
  // one that was made just now may not be queued yet
  const lost = open.filter((a) => !known.has(a.id) && Date.now() - a.startedAt.getTime() > 60_000);
  for (const { id } of lost)
    await Audit.update(
      {
        status: 'failed',
        runningKey: null,
        finishedAt: new Date(),
        progress: null,
        error: 'The database could not be reached when this audit ended. Start it again.',
      },
      { where: { id } },
    );
  return lost.length;
}

/** Stops a queued or running audit. What was collected so far is thrown away; the last full audit stays. */
export async function stopAudit(id: number): Promise<void> {
  const job = running.get(id);
  if (job) {
    job.stop.abort();
    return;
  }
  const at = queue.indexOf(id);
  if (at >= 0) queue.splice(at, 1);
  const [count] = await Audit.update(
    { status: 'stopped', runningKey: null, finishedAt: new Date(), error: 'Stopped by a person.' },
    { where: { id, status: { [Op.in]: ['queued', 'running'] } } },
  );
  if (!count) throw new Conflict('This audit has ended already.');
  announceRunning([]);
}

/**
 * Deletes one audit with its evidence and findings.
 * @throws NotFound, Conflict while it runs, and for the newest, on which the ledger and its fixes rest
 */
export async function deleteAudit(id: number): Promise<void> {
  const audit = await Audit.findByPk(id);
  if (!audit) throw new NotFound('This audit does not exist, or not any more.');
  if (audit.runningKey) throw new Conflict('This audit is running. Stop it first.');
  const environment = await Environment.findByPk(audit.environmentId, { rejectOnEmpty: true });
  if (environment.lastAuditId === id)
    throw new Conflict('The ledger and its fixes rest on the newest audit. Audit again first.');
  await audit.destroy();
  announce([['site', environment.siteId]]);
}

export interface RunningAudit {
  id: number;
  environmentId: number;
  siteId: number;
  site: string;
  environment: string;
  status: string;
  phase: string;
  done: number;
  total: number;
  current?: string;
}

/** How far those are that run, and how many there are with those that wait. */
export function auditProgress(): { count: number; list: RunningAudit[] } {
  const list = [...running].flatMap(([id, { about, progress }]) =>
    about ? [{ id, ...about, status: 'running', ...progress }] : [],
  );
  return { count: running.size + queue.length, list };
}

/** More than that are not named one by one. */
const NAMED = 200;

/** What is queued or running, in the order of starting. */
export async function runningAudits(): Promise<RunningAudit[]> {
  const audits = await Audit.findAll({
    where: { status: { [Op.in]: ['queued', 'running'] } },
    order: [['id', 'ASC']],
    attributes: ['id', 'environmentId', 'status'],
    limit: NAMED,
  });
  if (!audits.length) return [];
  const environments = new Map(
    (await Environment.findAll({ where: { id: audits.map((a) => a.environmentId) } })).map((e) => [e.id, e]),
  );
  const sites = new Map(
    (await Site.findAll({ where: { id: [...environments.values()].map((e) => e.siteId) } })).map((s) => [
      s.id,
      s,
    ]),
  );
  return audits.map((a) => {
    const e = environments.get(a.environmentId)!;
    const p = running.get(a.id)?.progress;
    return {
      id: a.id,
      environmentId: e.id,
      siteId: e.siteId,
      site: sites.get(e.siteId)!.name,
      environment: e.name,
      status: a.status,
      phase: p?.phase ?? 'Waiting',
      done: p?.done ?? 0,
      total: p?.total ?? 0,
      ...(p?.current ? { current: p.current } : {}),
    };
  });
}
