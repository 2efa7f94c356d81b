/** Keeping what follows from evidence: findings, score and fixes, in one transaction. */
import { catalogueVersion } from '#core/checks/engine/catalogue-version';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { checksOf } from '#core/checks/engine/checklist';
import { wordingVersion } from '#core/checks/engine/wording-version';
import type { Brief } from '#core/facts/brief';
import type { Part } from '#core/facts/parts';
import { pointsLost } from '#core/score/score';
import { checklistVersion } from '../checklists/checklists';
import { keepFixes } from '../fixes/fix-keeping';
import { newestProfile } from '../hosts/known-profiles';
import limitedTo from 'p-limit';
import { inTransaction } from '../platform/db/transaction';
import { packJson } from '../platform/packed';
import { BriefRow, Environment, Site } from '../sites/models';
import { holdSites, keepStanding } from '../sites/standing';
import { Op, type Transaction } from 'sequelize';
import type { Situation } from '#core/facts/situation';
import { Audit, AuditEvidence, AuditFindings, FindingRow, VerdictRow, type VerdictCause } from './models';
import { noteSeen } from '../intended/texts';
import { noteNews } from '../schedules/news';
import type { RenderedEvidence } from '#core/facts/rendered';
import { isRenewed, type Scope } from './scope';
import { keepPictures } from './seen';
import { migrateAcceptances } from './acceptance-codes';
import { verdictOn } from './verdict';
import { now } from '../platform/clock';

export interface Cause {
  cause: VerdictCause;
  by: string;
}
/** Characters of what was expected and found that lists show. */
const FOUND = 300;

export interface Kept {
  environment: Environment;
  site: Site;
  evidence: Buffer;
  brief: Brief;
  cause: Cause;
  /** Called before anything is written; throws where it is not to be. */
  hold?: (transaction: Transaction) => Promise<void>;
  /** What was collected just now; nothing where stored evidence is judged again. */
  parts?: readonly Part[];
}

/** The score that an audit's own may be compared with. */
async function scoreBefore(
  audit: Audit,
  situation: Situation,
  transaction: Transaction,
): Promise<number | null> {
  const { environmentId, checklistVersionId, briefId } = audit;
  const before = await Audit.findOne({
    where: {
      environmentId,
      id: { [Op.lt]: audit.id },
      status: 'done',
      situation,
      checklistVersionId,
      briefId,
    },
    order: [['id', 'DESC']],
    attributes: ['score'],
    transaction,
  });
  return before?.score ?? null;
}

/** Judges evidence and keeps the verdict as the audit's last one, in a transaction that holds the site. */
export async function keepVerdict(
  audit: Audit,
  { environment, site, evidence, brief, cause, hold, parts = [] }: Kept,
  transaction: Transaction,
): Promise<void> {
  const at = now();
  const fresh = cause.cause === 'audit';
  const profile = await newestProfile(site.hostProfileId ?? null);
  const checklist = await checklistVersion(audit.checklistVersionId);
  const verdict = await verdictOn(
    environment,
    site,
    evidence,
    { brief, checklist, profile: profile?.profile },
    at,
  );
  const { findings, result, notes, missing, proposals, situation, times, face } = verdict;
  // beside the score, so that a screen need not unpack the evidence for them
  const kept: object = { ...result, notes, missing, proposals, times, face };
  const packedFindings = await packJson(findings);
  const checkOf = checksOf(checklist);
  const briefVersion = audit.briefId
    ? ((await BriefRow.findByPk(audit.briefId, { attributes: ['version'] }))?.version ?? null)
    : null;
  await hold?.(transaction);
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
      title: f.title.slice(0, 200),
      fault: f.fault.slice(0, 200),
      wording: wordingVersion(),
      scope: checkOf(f.check)?.scope ?? '',
      code: f.code,
      found: (f.found ?? f.reason)?.slice(0, FOUND) ?? null,
      byHand: f.byHand ?? false,
      expected: f.expected?.slice(0, FOUND) ?? null,
      places: f.places.length,
      failing: f.places.filter((p) => p.outcome === 'failed' && !p.accepted).length,
      lost: pointsLost(f),
      data: f,
    })),
    { transaction },
  );
  await keepFixes(
    {
      environment,
      site,
      auditId: audit.id,
      findings,
      at,
      fresh: (check) => isRenewed(checkOf(check), parts),
    },
    transaction,
  );
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
      scope: audit.scope,
      baseAuditId: audit.baseAuditId,
      tookMs: audit.tookMs,
      score: result.score,
      scoreBefore: await scoreBefore(audit, situation, transaction),
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
  if (fresh) await noteSeen(environment, findings, transaction);
  if (fresh)
    await noteNews(
      audit,
      { findings, gate: result.gate, face, before: environment.lastAuditId ?? null },
      transaction,
    );
  await keepStanding([site.id], transaction);
}

/** Verdicts at once in this process: each has a connection of its own, and asks over others. */
const AT_ONCE = 4;
const some = limitedTo(AT_ONCE);

/**
 * One verdict on a site after the other, in all processes: what is judged later knows all that was said before.
 * @param work is done in one transaction, again where two got in each other's way
 */
export function inTurn(siteId: number, work: (transaction: Transaction) => Promise<void>): Promise<void> {
  return some(() =>
    inTransaction(async (transaction) => {
      await holdSites([siteId], transaction);
      await work(transaction);
    }),
  );
}

/** What an audit brought home. */
export interface Collected {
  /** Packed. */
  evidence: Buffer;
  brief: Brief;
  /** What of it was looked at just now. */
  parts: readonly Part[];
  /** The same, where it is not everything. */
  scope: Scope | null;
  tookMs: number;
  /** What a browser saw, and the pictures that it took just now. */
  rendered?: RenderedEvidence;
  pictures: ReadonlyMap<string, Buffer>;
}

/**
 * Keeps and judges what was collected just now, once.
 * @param hold throws where another collects it by now
 */
export async function keepAudit(
  { id, environmentId }: Audit,
  { evidence, brief, parts, scope, tookMs, rendered, pictures }: Collected,
  hold: (transaction: Transaction) => Promise<void>,
): Promise<void> {
  await migrateAcceptances(environmentId);
  const environment = await Environment.findByPk(environmentId, { rejectOnEmpty: true });
  const { siteId } = environment;
  await inTurn(siteId, async (transaction) => {
    const audit = await Audit.findByPk(id);
    // stopped, deleted or kept meanwhile
    if (!audit?.runningKey) return;
    const site = await Site.findByPk(siteId, { rejectOnEmpty: true });
    const cause: Cause = { cause: 'audit', by: audit.startedBy };
    Object.assign(audit, { scope, tookMs, baseAuditId: scope && environment.lastAuditId });
    await keepVerdict(audit, { environment, site, evidence, brief, cause, hold, parts }, transaction);
    await keepPictures({ auditId: id, environmentId }, rendered, pictures, transaction);
  });
}
