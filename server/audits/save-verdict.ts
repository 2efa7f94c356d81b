/** Storing what follows from evidence: findings, score and fixes, in one transaction. */
import limitedTo from 'p-limit';
import { Op, type Transaction } from 'sequelize';
import { catalogueVersion } from '#core/checks/engine/catalogue-version';
import { checksOf } from '#core/checks/engine/checklist';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { wordingVersion } from '#core/checks/engine/wording-version';
import type { Face } from '#core/compare/news';
import type { Brief } from '#core/facts/brief';
import type { Checklist } from '#core/facts/checklist';
import type { Part } from '#core/facts/parts';
import type { RenderedEvidence } from '#core/facts/rendered';
import type { Situation } from '#core/facts/situation';
import type { Gate } from '#core/score/score';
import { pointsLost } from '#core/score/score';
import { checklistVersion } from '#server/checklists';
import { newestProfile } from '#server/hosts';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { defineHook } from '#server/platform/extension-points';
import { packJson } from '#server/platform/packed';
import {
  setLastAudit,
  findBrief,
  getEnvironment,
  getSite,
  type Environment,
  type Site,
  lockSites,
} from '#server/sites';
import type { Verdict } from './judge-bytes';
import { judgeBy, readBasis, type JudgeBasis } from './judge-environment';
import { Audit, AuditEvidence, AuditFindings, FindingRow, VerdictRow, type VerdictCause } from './models';
import { isRenewed, type Scope } from './scope';
import { saveSeenPictures } from './seen';

export interface Cause {
  cause: VerdictCause;
  by: string;
}
/** Characters of what was expected and found that lists show. */
const FOUND = 300;

/** An audit whose evidence is to be judged, with what belongs to it at one moment. */
export interface VerdictInput {
  audit: Audit;
  environment: Environment;
  site: Site;
  /** Packed; read only where it is judged. */
  evidence: () => Promise<Buffer>;
  brief: Brief;
}

/** How a verdict is stored. */
interface SaveOptions {
  cause: Cause;
  /** Called before anything is written. @throws where another worker has the job by now */
  assertLease?: (transaction: Transaction) => Promise<void>;
  /** What was collected just now; nothing where stored evidence is judged again. */
  parts?: readonly Part[];
  /** Stores more in the same transaction. */
  also?: (transaction: Transaction) => Promise<void>;
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

/** A verdict that was stored just now. */
export interface SavedVerdict {
  environment: Environment;
  site: Site;
  auditId: number;
  /** The newest audit until then. */
  before: number | null;
  findings: readonly JudgedFinding[];
  gate: Gate;
  face?: Face;
  at: Date;
  /** It is the first of its audit, and not stored evidence judged again. */
  isFresh: boolean;
  /** Whether what a check rests on was collected just now. */
  isRenewed: (check: string) => boolean;
}

/** Runs in the transaction that stores a verdict. */
export const verdictSaved = defineHook<[SavedVerdict, Transaction]>();
/** Runs before the evidence of an environment is judged. */
export const beforeJudging = defineHook<[environmentId: number]>();

/** An audit with everything that it is judged by. */
interface Judged {
  input: VerdictInput;
  basis: JudgeBasis;
  checklist: Checklist;
  profileVersion: number | null;
}

async function basisOf(input: VerdictInput): Promise<Judged> {
  const { audit, environment, site, brief } = input;
  const [profile, checklist] = await Promise.all([
    newestProfile(site.hostProfileId ?? null),
    checklistVersion(audit.checklistVersionId),
  ]);
  const basis = await readBasis(environment, site, { brief, checklist, profile: profile?.profile });
  return { input, basis, checklist, profileVersion: profile?.version ?? null };
}

/** Whether evidence that was judged by the first would be judged alike by the second. */
const isSameBasis = (first: Judged, second: Judged): boolean =>
  first.basis.version === second.basis.version &&
  first.profileVersion === second.profileVersion &&
  (['id', 'briefId', 'checklistVersionId'] as const).every(
    (key) => first.input.audit[key] === second.input.audit[key],
  );

/** How often evidence is judged before it is judged under the lock, because its inputs keep changing. */
const ATTEMPTS = 3;

/**
 * Judges evidence, locks its site, and compares what it was judged by with what holds now. Stores the verdict if
 * both are the same, otherwise judges again.
 * @param read reads what is to be judged; null where there is nothing any more
 */
export async function judgeAndSave(
  siteId: number,
  read: () => Promise<VerdictInput | null>,
  options: SaveOptions,
): Promise<void> {
  for (let attempt = 1; ; attempt++) {
    const input = await read();
    if (!input) return;
    const first = await basisOf(input);
    const at = now();
    const verdict = await judgeBy(first.basis, await input.evidence(), at);
    let isSaved = true;
    await withSiteLock(siteId, async (transaction) => {
      isSaved = true;
      const inputNow = await read();
      if (!inputNow) return;
      const second = await basisOf(inputNow);
      if (isSameBasis(first, second)) await saveVerdict(second, verdict, at, options, transaction);
      else if (attempt < ATTEMPTS) isSaved = false;
      else
        await saveVerdict(
          second,
          await judgeBy(second.basis, await inputNow.evidence(), at),
          at,
          options,
          transaction,
        );
    });
    if (isSaved) return;
  }
}

/** Stores a verdict as the audit's last one, in a transaction that has locked the site. */
async function saveVerdict(
  { input: { audit, environment, site, evidence }, checklist, profileVersion }: Judged,
  verdict: Verdict,
  at: Date,
  { cause, assertLease, parts = [], also }: SaveOptions,
  transaction: Transaction,
): Promise<void> {
  const fresh = cause.cause === 'audit';
  const { findings, result, notes, missing, proposals, situation, times, face } = verdict;
  // beside the score, so that a screen need not unpack the evidence for them
  const kept: object = { ...result, notes, missing, proposals, times, face };
  const packedFindings = await packJson(findings);
  const checkOf = checksOf(checklist);
  const briefVersion = audit.briefId ? ((await findBrief(audit.briefId))?.version ?? null) : null;
  await assertLease?.(transaction);
  if (fresh)
    await AuditEvidence.create(
      { auditId: audit.id, version: verdict.evidenceVersion, data: await evidence() },
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
      profileVersion,
      catalogue: catalogueVersion(),
      evidenceVersion: verdict.evidenceVersion,
      score: result.score,
      coverage: result.coverage,
      gate: result.gate,
      result: { band: result.band, gateNote: result.gateNote, provisional: result.provisional },
    },
    { transaction },
  );
  await setLastAudit(environment.id, audit.id, transaction);
  await verdictSaved.run(
    {
      environment,
      site,
      auditId: audit.id,
      before: environment.lastAuditId ?? null,
      findings,
      gate: result.gate,
      ...(face ? { face } : {}),
      at,
      isFresh: fresh,
      isRenewed: (check) => isRenewed(checkOf(check), parts),
    },
    transaction,
  );
  await also?.(transaction);
  await emit('SitesChanged', { siteIds: [site.id] }, transaction);
}

/** Verdicts at once in this process: each has a connection of its own, and asks over others. */
const AT_ONCE = 4;
const some = limitedTo(AT_ONCE);

/**
 * One verdict on a site after the other, in all processes: what is judged later knows all that was said before.
 * @param work is done in one transaction, again where two got in each other's way
 */
function withSiteLock(siteId: number, work: (transaction: Transaction) => Promise<void>): Promise<void> {
  return some(() =>
    inTransaction(async (transaction) => {
      await lockSites([siteId], transaction);
      await work(transaction);
    }),
  );
}

/** What an audit collected. */
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
 * Stores and judges what was collected just now, once.
 * @param assertLease throws where another worker has the job by now
 */
export async function saveAudit(
  { id, environmentId, startedBy }: Audit,
  { evidence, brief, parts, scope, tookMs, rendered, pictures }: Collected,
  assertLease: (transaction: Transaction) => Promise<void>,
): Promise<void> {
  await beforeJudging.run(environmentId);
  const { siteId } = await getEnvironment(environmentId);
  const read = async (): Promise<VerdictInput | null> => {
    const [audit, environment, site] = await Promise.all([
      Audit.findByPk(id),
      getEnvironment(environmentId),
      getSite(siteId),
    ]);
    // stopped, deleted or kept meanwhile
    if (!audit?.runningKey) return null;
    Object.assign(audit, { scope, tookMs, baseAuditId: scope && environment.lastAuditId });
    return { audit, environment, site, brief, evidence: () => Promise.resolve(evidence) };
  };
  await judgeAndSave(siteId, read, {
    cause: { cause: 'audit', by: startedBy },
    assertLease,
    parts,
    also: (transaction) => saveSeenPictures({ auditId: id, environmentId }, rendered, pictures, transaction),
  });
}
