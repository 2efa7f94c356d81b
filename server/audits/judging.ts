/** Judging evidence and keeping what follows: findings, score and fixes, in one transaction. */
import { Op, Transaction } from 'sequelize';
import { catalogueVersion } from '#core/checks/engine/catalogue-version';
import { liveEqualsStaging, NOT_COMPARED } from '#core/checks/catalogue/delivery/live-equals-staging';
import type { JudgedFinding } from '#core/checks/engine/judge';
import type { Brief } from '#core/facts/brief';
import type { Acceptance, Attestation, Checklist } from '#core/facts/checklist';
import type { HostProfile } from '#core/facts/host-profile';
import { database } from '../platform/db/connection';
import {
  AcceptanceRow,
  AttestationRow,
  Audit,
  AuditEvidence,
  AuditFindings,
  BriefRow,
  Environment,
  FindingRow,
  Site,
  User,
  VerdictRow,
  type VerdictCause,
} from '../platform/db/models';
import { briefForChecks, newestBrief, profileVersionOf } from '../sites/briefs';
import { approvedEvidence, besideFor } from './beside';
import { checklistVersion } from '../checklists/checklists';
import { keepFixes } from '../fixes/fix-keeping';
import { judgeInThread } from './judge-pool';
import type { JudgeJob, Verdict } from './judge-bytes';
import { packJson } from '../platform/packed';
import { placeOf } from './situations';

async function acceptancesOf(environmentId: number): Promise<Acceptance[]> {
  const rows = await AcceptanceRow.findAll({ where: { environmentId, withdrawnAt: null } });
  const people = new Map((await User.findAll()).map((u) => [u.id, u.name]));
  return rows.map((r) => ({
    check: r.checkId,
    places: r.places,
    reason: r.reason,
    by: people.get(r.byId) ?? '',
    ...(r.secondedById ? { seconded: people.get(r.secondedById) ?? '' } : {}),
    until: r.until,
  }));
}

async function attestationsOf(environmentId: number): Promise<Attestation[]> {
  const rows = await AttestationRow.findAll({ where: { environmentId } });
  return rows.map((r) => ({
    check: r.checkId,
    done: r.done,
    by: r.byName,
    at: r.at.toISOString(),
    ...(r.place === null ? {} : { place: r.place }),
    ...(r.doesNotApply ? { doesNotApply: true } : {}),
    ...(r.note ? { note: r.note } : {}),
    ...(r.goodUntil ? { goodUntil: r.goodUntil } : {}),
    ...(r.goodWhile ? { goodWhile: r.goodWhile } : {}),
  }));
}

/** What evidence is judged by. */
export interface By {
  brief: Brief;
  checklist: Checklist;
  profile: HostProfile | undefined;
}

/** Judges packed evidence of a place, in a thread; keeps nothing. */
export async function verdictOn(
  environment: Environment,
  site: Site,
  evidence: Buffer,
  by: By,
  at: Date,
): Promise<Verdict> {
  const staging = await approvedEvidence(environment, site);
  const job: JudgeJob = {
    evidence,
    ...(staging ? { staging } : {}),
    input: {
      of: placeOf(environment, site),
      at: at.toISOString(),
      brief: await briefForChecks(site, by.brief),
      checklist: by.checklist,
      ...(by.profile ? { profile: by.profile } : {}),
      ...(await besideFor(environment, site)),
      attestations: await attestationsOf(environment.id),
      acceptances: await acceptancesOf(environment.id),
    },
  };
  return judgeInThread(job);
}

export interface Cause {
  cause: VerdictCause;
  by: string;
}
interface Kept {
  environment: Environment;
  site: Site;
  evidence: Buffer;
  brief: Brief;
  cause: Cause;
}

async function keepVerdict(audit: Audit, { environment, site, evidence, brief, cause }: Kept): Promise<void> {
  const at = new Date();
  const fresh = cause.cause === 'audit';
  const profile = await profileVersionOf(site);
  const checklist = await checklistVersion(audit.checklistVersionId);
  const verdict = await verdictOn(
    environment,
    site,
    evidence,
    { brief, checklist, profile: profile?.profile },
    at,
  );
  const { findings, result, notes, situation } = verdict;
  // beside the score, so that a screen need not unpack the evidence for them
  const kept: object = { ...result, notes };
  const packedFindings = await packJson(findings);
  const briefVersion = audit.briefId
    ? ((await BriefRow.findByPk(audit.briefId, { attributes: ['version'] }))?.version ?? null)
    : null;
  await inTransaction(async (transaction) => {
    if (fresh)
      await AuditEvidence.create(
        { auditId: audit.id, version: verdict.evidenceVersion, data: evidence },
        { transaction },
      );
    await AuditFindings.upsert({ auditId: audit.id, data: packedFindings }, { transaction });
    await FindingRow.destroy({ where: { environmentId: environment.id }, transaction });
    await FindingRow.bulkCreate(
      findings.map((f: JudgedFinding, position: number) => ({
        environmentId: environment.id,
        checkId: f.check,
        auditId: audit.id,
        section: f.section,
        severity: f.severity,
        outcome: f.outcome,
        accepted: f.accepted ?? false,
        position,
        data: f,
      })),
      { transaction },
    );
    await keepFixes({ environment, site, auditId: audit.id, findings, at, fresh }, transaction);
    // by their ids, not through the rows at hand: those would take a transaction that is tried again for
    // saved already
    await Audit.update(
      {
        status: 'done',
        runningKey: null,
        situation,
        finishedAt: audit.finishedAt ?? at,
        briefId: audit.briefId,
        checklistVersionId: audit.checklistVersionId,
        score: result.score,
        coverage: result.coverage,
        gate: result.gate,
        result: kept,
        progress: null,
      },
      { where: { id: audit.id }, transaction },
    );
    await VerdictRow.create(
      {
        auditId: audit.id,
        environmentId: environment.id,
        at,
        cause: cause.cause,
        byName: cause.by,
        situation,
        briefVersion,
        checklistVersionId: audit.checklistVersionId,
        profileVersion: profile?.version ?? null,
        catalogue: catalogueVersion(),
        evidenceVersion: verdict.evidenceVersion,
        score: result.score,
        coverage: result.coverage,
        gate: result.gate,
        result: { band: result.band, gateNote: result.gateNote, provisional: result.provisional },
      },
      { transaction },
    );
    await Environment.update({ lastAuditId: audit.id }, { where: { id: environment.id }, transaction });
  });
}

const turns = new Map<number, Promise<unknown>>();

/** One verdict on a place after the other: what is judged later knows all that was said before. */
function inTurn(environmentId: number, work: () => Promise<void>): Promise<void> {
  const mine = (turns.get(environmentId) ?? Promise.resolve()).then(work);
  const over: Promise<unknown> = mine
    .catch(() => {})
    .then(() => {
      if (turns.get(environmentId) === over) turns.delete(environmentId);
    });
  turns.set(environmentId, over);
  return mine;
}

/** Keeps and judges what was collected just now. @param evidence packed */
export function keepAudit(audit: Audit, evidence: Buffer, brief: Brief): Promise<void> {
  return inTurn(audit.environmentId, async () => {
    const environment = await Environment.findByPk(audit.environmentId, { rejectOnEmpty: true });
    const site = await Site.findByPk(environment.siteId, { rejectOnEmpty: true });
    await keepVerdict(audit, {
      environment,
      site,
      evidence,
      brief,
      cause: { cause: 'audit', by: audit.startedBy },
    });
  });
}

/** Deadlock, and a lock that was waited for too long. */
const IN_THE_WAY = new Set([1213, 1205]);
const ATTEMPTS = 8;

/**
 * A transaction that does not lock the gaps between rows, and is tried again when two audits finish in each
 * other's way.
 */
async function inTransaction(work: (t: Transaction) => Promise<void>): Promise<void> {
  for (let attempt = 1; ; attempt++) {
    try {
      await database().transaction({ isolationLevel: Transaction.ISOLATION_LEVELS.READ_COMMITTED }, work);
      return;
    } catch (error) {
      if (
        attempt >= ATTEMPTS ||
        !IN_THE_WAY.has((error as { original?: { errno?: number } }).original?.errno ?? 0)
      )
        throw error;
      await new Promise((r) => setTimeout(r, Math.random() * 40 * attempt));
    }
  }
}

/** The stored evidence of a place's last audit, with the brief of today. */
export async function lastEvidence(
  environment: Environment,
): Promise<{ audit: Audit; evidence: Buffer; brief: { id: number; brief: Brief } | null } | null> {
  if (!environment.lastAuditId) return null;
  const [audit, stored, brief] = await Promise.all([
    Audit.findByPk(environment.lastAuditId, { rejectOnEmpty: true }),
    AuditEvidence.findByPk(environment.lastAuditId),
    newestBrief(environment.siteId),
  ]);
  return stored && { audit, evidence: stored.data, brief };
}

/**
 * Judges the stored evidence of an environment's last audit again.
 * @param checklistVersionId another checklist than the audit's own
 */
export function judgeAgain(environmentId: number, cause: Cause, checklistVersionId?: number): Promise<void> {
  return inTurn(environmentId, async () => {
    const environment = await Environment.findByPk(environmentId, { rejectOnEmpty: true });
    const last = await lastEvidence(environment);
    if (!last) return;
    const site = await Site.findByPk(environment.siteId, { rejectOnEmpty: true });
    const { audit, evidence, brief } = last;
    audit.briefId = brief?.id ?? null;
    if (checklistVersionId) audit.checklistVersionId = checklistVersionId;
    await keepVerdict(audit, { environment, site, evidence, brief: brief?.brief ?? {}, cause });
  });
}

/**
 * A live place that could not be compared with what was approved, since that had not been audited yet, is
 * judged again once it has been.
 * Both may be audited at once: whichever is kept last finds the other here.
 * @param seen the place whose audit was kept just now
 */
export async function judgeComparedAgain(seen: Environment, by: string): Promise<void> {
  const live =
    seen.kind === 'live'
      ? seen
      : await Environment.findOne({
          where: { siteId: seen.siteId, kind: 'live', lastAuditId: { [Op.ne]: null } },
        });
  const open =
    live &&
    (await FindingRow.findOne({
      where: { environmentId: live.id, checkId: liveEqualsStaging.id, outcome: 'cantTell' },
    }));
  if (!open) return;
  if (
    seen === live &&
    ((open.data as JudgedFinding).reason !== NOT_COMPARED ||
      !(await approvedEvidence(live, await Site.findByPk(live.siteId, { rejectOnEmpty: true }))))
  )
    return;
  await judgeAgain(live.id, { cause: 'approved state', by });
}

/** Judges the stored evidence of all places of a site again. */
export async function judgeSiteAgain(
  siteId: number,
  cause: Cause,
  checklistVersionId?: number,
): Promise<void> {
  for (const e of await Environment.findAll({ where: { siteId }, attributes: ['id'] }))
    await judgeAgain(e.id, cause, checklistVersionId);
}
