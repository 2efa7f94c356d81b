/**
 * Audits as jobs: one at a time for each environment, with progress, a way to stop, and no audit that runs for ever.
 */
import { Op, QueryTypes, type Transaction } from 'sequelize';
import { checksOf } from '#core/checks/engine/checklist';
import { askedFor } from '#core/checks/engine/own-check';
import { hostOf } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import { PARTS } from '#core/facts/parts';
import { canRenew, collect, type Again } from '#probe/collect';
import { checklistFor, checklistVersion } from '#server/checklists';
import { newestProfile } from '#server/hosts';
import { now } from '#server/platform/clock';
import { database } from '#server/platform/db/connection';
import { retryWhileDatabaseDown } from '#server/platform/db/reachable';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { defineQuestion } from '#server/platform/extension-points';
import { IsInt, Min } from '#server/platform/http/validation';
import { defineJob, PRIORITY, type Work } from '#server/platform/jobs/definition';
import { countWaiting } from '#server/platform/jobs/job-table';
import { enqueue, runningJobs, stopJob, type Job } from '#server/platform/jobs/queue';
import { networkSettings } from '#server/platform/network/network';
import { readEvidence, packJson } from '#server/platform/packed';
import {
  findEnvironment,
  findSite,
  getEnvironment,
  getSite,
  findBrief,
  type Environment,
  type Site,
  briefForChecks,
  newestBrief,
  accessOf,
} from '#server/sites';
import { Audit, AuditEvidence } from './models';
import { reevaluateCompared } from './reevaluate';
import { renderSettings } from './rendering';
import { saveAudit } from './save-verdict';
import { partsOfScope, type Scope } from './scope';
import { situationFor } from './situations';

/** Why some of these audits are kept for good. */
export const reasonsToKeepAudits = defineQuestion<[auditIds: readonly number[]], string>();
/** The paths of a site's newest build. */
export const builtFiles = defineQuestion<[siteId: number], string[]>();

/** Screens that show what is running ask again. */
function announceRunning(siteIds: Iterable<number>, transaction?: Transaction): void {
  announce('AuditsRunning', { siteIds: [...siteIds] }, { transaction });
}

class AuditPayload {
  @IsInt() @Min(1) auditId!: number;
}

/** Collecting, judging and keeping one environment. */
export const auditJob = defineJob<AuditPayload>({
  name: 'audit',
  lane: 'work',
  payload: AuditPayload,
  attempts: 2,
  async run({ auditId }, work) {
    await runAudit(auditId, work);
    return undefined;
  },
  async ended({ auditId }, how, why, transaction) {
    await Audit.update(
      {
        status: how,
        runningKey: null,
        finishedAt: now(),
        progress: null,
        error: (how === 'stopped' ? why : `The audit could not be finished: ${why}`).slice(0, 600),
      },
      { where: { id: auditId, status: { [Op.in]: ['queued', 'running'] } }, transaction },
    );
    announceRunning(await siteIdOf(auditId, transaction), transaction);
  },
});

async function siteIdOf(auditId: number, transaction: Transaction): Promise<number[]> {
  const rows = await database().query<{ id: number }>(
    'SELECT e.site_id AS id FROM audit a JOIN environment e ON e.id = a.environment_id WHERE a.id = ?',
    { type: QueryTypes.SELECT, replacements: [auditId], transaction },
  );
  return rows.map((r) => r.id);
}

/**
 * Audits that an older version or a lost job left open wait as jobs again. Called at the start.
 * @returns how many those were
 */
export async function requeueOrphans(): Promise<number> {
  const open = await database().query<{ id: number }>(
    `SELECT a.id FROM audit a LEFT JOIN job j ON j.id = a.job_id AND j.state IN ('waiting', 'running')
      WHERE a.running_key IS NOT NULL AND j.id IS NULL ORDER BY a.id`,
    { type: QueryTypes.SELECT },
  );
  for (const { id } of open)
    await inTransaction(async (transaction) => {
      const audit = await Audit.findByPk(id, { transaction, lock: true });
      if (audit?.runningKey)
        await enqueueAudit(
          audit,
          { priority: PRIORITY.afterwards, restarts: audit.restarts + 1 },
          transaction,
        );
    });
  return open.length;
}

async function enqueueAudit(
  audit: Audit,
  { priority, restarts }: { priority: number; restarts: number },
  transaction: Transaction,
): Promise<void> {
  const asked = { by: audit.startedBy, title: `Audit ${audit.id}`, priority };
  const jobId = (await enqueue(auditJob, { auditId: audit.id }, asked, transaction))!;
  await audit.update({ jobId, restarts }, { transaction });
}

export interface Started {
  started: { auditId: number; environmentId: number }[];
  refused: { environmentId: number; reason: string }[];
}

export interface HowToStart {
  priority?: number;
  /** What is looked at, where not everything is. */
  scope?: Scope;
  /** Pages to read at most; what the site says where left out. */
  pageLimit?: number | null;
  /** What is written down with each, in the same transaction. */
  noted?: (auditId: number, transaction: Transaction) => Promise<void>;
}

/**
 * Queues audits. An environment that is being audited already is refused, and so is one of a retired site.
 */
export async function startAudits(
  environmentIds: readonly number[],
  by: string,
  { priority = PRIORITY.person, scope, pageLimit, noted }: HowToStart = {},
): Promise<Started> {
  const out: Started = { started: [], refused: [] };
  const siteIds = new Set<number>();
  for (const environmentId of new Set(environmentIds)) {
    const environment = await findEnvironment(environmentId);
    const site = environment && (await findSite(environment.siteId));
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
      const auditId = await inTransaction(async (transaction) => {
        const audit = await Audit.create(
          {
            environmentId,
            status: 'queued',
            runningKey: environmentId,
            situation,
            briefId: brief?.id ?? null,
            checklistVersionId,
            startedBy: by,
            startedAt: now(),
            scope: scope ?? null,
            pageLimit: pageLimit ?? null,
          },
          { transaction },
        );
        await enqueueAudit(audit, { priority, restarts: 0 }, transaction);
        await noted?.(audit.id, transaction);
        return audit.id;
      });
      out.started.push({ auditId, environmentId });
      siteIds.add(site.id);
    } catch (error) {
      if ((error as Error).name !== 'SequelizeUniqueConstraintError') throw error;
      out.refused.push({
        environmentId,
        reason: `${site.name}, ${environment.name}: an audit is running already. Wait for it or stop it.`,
      });
    }
  }
  if (out.started.length) announceRunning(siteIds);
  return out;
}

/** What an audit needs to know before it looks; undefined when it is not to run any more. */
async function prepare(id: number, restarts: number) {
  const audit = await Audit.findByPk(id);
  if (!audit || (audit.status !== 'queued' && audit.status !== 'running')) return undefined;
  const environment = await getEnvironment(audit.environmentId);
  await audit.update({
    status: 'running',
    url: environment.url,
    restarts: Math.max(restarts, audit.restarts),
  });
  const site = await getSite(environment.siteId);
  const brief = audit.briefId ? ((await findBrief(audit.briefId))?.data as Brief) : {};
  const known = await briefForChecks(site, brief);
  const profile = (await newestProfile(site.hostProfileId ?? null))?.profile;
  const checklist = await checklistVersion(audit.checklistVersionId);
  const asked = askedFor(checklist, known.brief.preferredHost ?? hostOf(environment.url) ?? '');
  const [build] = environment.kind === 'live' ? await builtFiles.ask(site.id) : [];
  const target = {
    url: environment.url,
    kind: environment.kind,
    ...known,
    profile,
    asked,
    access: accessOf(environment),
    build,
    ...pageLimitOf(audit, site),
  };
  const render = renderSettings(checklist, audit.scope);
  return { audit, environment, brief, target, render, again: await againOf(audit, environment, target) };
}

/** What the start of the audit says, else its site; nothing where neither does. */
const pageLimitOf = (audit: Audit, site: Site): { maxPages?: number } => {
  const maxPages = audit.pageLimit ?? site.pageLimit;
  return maxPages ? { maxPages } : {};
};

/** What is looked at again and what is taken over; undefined where all has to be looked at. */
async function againOf(
  audit: Audit,
  { lastAuditId }: Environment,
  target: Parameters<typeof canRenew>[1],
): Promise<Again | undefined> {
  const { scope } = audit;
  const stored = scope && lastAuditId ? await AuditEvidence.findByPk(lastAuditId) : null;
  if (!scope || !stored) return undefined;
  const before = await readEvidence(stored.data);
  // other hosts, or another way in: what was seen before is of something else
  if (!canRenew(before, target)) return undefined;
  const parts = partsOfScope(scope, checksOf(await checklistVersion(audit.checklistVersionId)));
  return { parts, before, ...(scope.pages ? { pages: scope.pages } : {}) };
}

async function runAudit(id: number, work: Work): Promise<void> {
  // a database that is away for a while ends no audit, and loses none of what was collected
  const prepared = await retryWhileDatabaseDown(() => prepare(id, work.losses), work.signal);
  // it was kept before whoever did it could say so, or it was stopped or deleted
  if (!prepared) return;
  const { audit, environment, brief, target, render, again } = prepared;
  const pictures = new Map<string, Buffer>();
  const since = performance.now();
  announceRunning([environment.siteId]);
  try {
    const evidence = await collect({
      ...networkSettings(),
      ...target,
      ...(render
        ? { render: { ...render, keepPicture: (sha256, bytes) => pictures.set(sha256, bytes) } }
        : {}),
      again,
      signal: work.signal,
      clock: now,
      onProgress: (p) => work.progress(p),
    });
    work.progress({ phase: 'Judging', done: 0, total: 1 });
    const packed = await packJson(evidence);
    const collected = {
      evidence: packed,
      brief,
      parts: again?.parts ?? PARTS.filter((part) => part !== 'rendered' || render !== undefined),
      rendered: evidence.rendered,
      pictures,
      // what was looked at in the end, which may be more than was asked for
      scope: again ? { parts: [...again.parts], ...(again.pages ? { pages: [...again.pages] } : {}) } : null,
      tookMs: Math.round(performance.now() - since),
    };
    await retryWhileDatabaseDown(() => saveAudit(audit, collected, (t) => work.hold(t)), work.signal);
  } finally {
    announceRunning([environment.siteId]);
  }
  await reevaluateCompared(environment, audit.startedBy).catch((error: unknown) =>
    console.error(`audit ${id}: the live environment could not be compared again`, error),
  );
}

/**
 * Stops a queued or running audit. What was collected so far is thrown away; the last full audit stays.
 * @throws Conflict when it has ended
 */
export async function stopAudit(id: number): Promise<void> {
  const audit = await Audit.findByPk(id, { attributes: ['runningKey', 'jobId'] });
  if (!audit?.runningKey || !audit.jobId) throw new Conflict('This audit has ended already.');
  await stopJob(audit.jobId);
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

/**
 * Deletes one audit with its evidence and findings.
 * @throws NotFound, Conflict while it runs, for the newest, on which the ledger and its fixes rest, and for one that
 * a client was told of or said yes to
 */
export async function deleteAudit(id: number): Promise<void> {
  const audit = await Audit.findByPk(id);
  if (!audit) throw new NotFound('This audit does not exist, or not any more.');
  if (audit.runningKey) throw new Conflict('This audit is running. Stop it first.');
  const environment = await getEnvironment(audit.environmentId);
  if (environment.lastAuditId === id)
    throw new Conflict('The ledger and its fixes rest on the newest audit. Audit again first.');
  const [why] = await reasonsToKeepAudits.ask([id]);
  if (why) throw new Conflict(why);
  await audit.destroy();
  await emit('SiteTouched', { siteId: environment.siteId });
}

/** Told of audits that were cut off with whoever did them. */
const AGAIN = 'Started again after it was cut off';

interface Queued extends Omit<RunningAudit, 'phase' | 'done' | 'total' | 'current'> {
  jobId: number;
  restarts: number;
}

const QUEUED = `SELECT a.id, a.job_id AS jobId, e.id AS environmentId, s.id AS siteId, s.name AS site,
  e.name AS environment, a.status, a.restarts
  FROM audit a JOIN environment e ON e.id = a.environment_id JOIN site s ON s.id = e.site_id`;

function shown({ jobId, restarts, ...audit }: Queued, job: Job | undefined): RunningAudit {
  const { phase = 'Waiting', done = 0, total = 0, current } = job?.progress ?? {};
  const cutOff = Math.max(restarts, job?.restarts ?? 0);
  return {
    ...audit,
    status: job ? 'running' : 'queued',
    phase: cutOff ? `${AGAIN}: ${phase.toLowerCase()}` : phase,
    done,
    total,
    ...(current ? { current } : {}),
  };
}

export interface AuditProgress {
  running: number;
  waiting: number;
  list: RunningAudit[];
}

/** How far those of these jobs are that are audits, and how many wait. */
export async function auditProgress(jobs: readonly Job[]): Promise<AuditProgress> {
  const running = new Map(jobs.filter((j) => j.name === auditJob.name).map((j) => [j.id, j]));
  const waiting = await countWaiting({ name: auditJob.name });
  if (!running.size) return { running: 0, waiting, list: [] };
  const audits = await database().query<Queued>(`${QUEUED} WHERE a.job_id IN (:ids) ORDER BY a.id`, {
    type: QueryTypes.SELECT,
    replacements: { ids: [...running.keys()] },
  });
  return { running: running.size, waiting, list: audits.map((a) => shown(a, running.get(a.jobId))) };
}

/** More than that are not named one by one. */
const NAMED = 200;

/** What is queued or running, in the order of starting. */
export async function runningAudits(): Promise<RunningAudit[]> {
  const audits = await database().query<Queued>(
    `${QUEUED} WHERE a.running_key IS NOT NULL ORDER BY a.id LIMIT ${NAMED}`,
    { type: QueryTypes.SELECT },
  );
  const jobs = new Map((await runningJobs()).map((j) => [j.id, j]));
  return audits.map((a) => shown(a, jobs.get(a.jobId)));
}
