/** Finding audits and what is stored with them. */
import { Op, type Transaction } from 'sequelize';
import type { Outcome } from '#core/facts/finding';
import type { Situation } from '#core/facts/situation';
import { now, today } from '#server/platform/clock';
import {
  AttestationRow,
  Audit,
  AuditEvidence,
  AuditFindings,
  AuditPages,
  FindingRow,
  SeenPicture,
  VerdictRow,
} from './models';

export const findAudit = (id: number, transaction?: Transaction): Promise<Audit | null> =>
  Audit.findByPk(id, { transaction });

/** One that is known to exist. @throws Error where it does not */
export const getAudit = (id: number, transaction?: Transaction): Promise<Audit> =>
  Audit.findByPk(id, { transaction, rejectOnEmpty: true });

/** Its evidence, packed. */
export const findEvidence = (auditId: number): Promise<AuditEvidence | null> =>
  AuditEvidence.findByPk(auditId);

/** Whether its evidence is stored. */
export const hasEvidence = async (auditId: number): Promise<boolean> =>
  (await AuditEvidence.count({ where: { auditId } })) > 0;

/** Its findings, packed. */
export const findFindings = (auditId: number): Promise<AuditFindings | null> =>
  AuditFindings.findByPk(auditId);

/** Whether an environment is being audited. */
export const isAuditing = async (environmentId: number): Promise<boolean> =>
  (await Audit.count({ where: { runningKey: environmentId } })) > 0;

/** Whether any environment is being audited. */
export const isAnythingAuditing = async (): Promise<boolean> =>
  (await Audit.count({ where: { runningKey: { [Op.ne]: null } } })) > 0;

export const auditsByIds = (ids: readonly number[]): Promise<Audit[]> =>
  Audit.findAll({ where: { id: [...ids] }, attributes: ['id', 'environmentId'] });

/** Finished audits of an environment, the newest first. @param before only those before this one */
export const finishedAudits = (
  environmentId: number,
  { before, limit }: { before?: number; limit: number },
): Promise<Audit[]> =>
  Audit.findAll({
    where: { environmentId, status: 'done', ...(before === undefined ? {} : { id: { [Op.lt]: before } }) },
    order: [['id', 'DESC']],
    limit,
  });

/** The first finished audit of an environment before another one. */
export const firstAudit = (environmentId: number, before: number): Promise<Audit | null> =>
  Audit.findOne({
    where: { environmentId, status: 'done', id: { [Op.lt]: before } },
    order: [['id', 'ASC']],
  });

/** An audit, where it is one of this environment. */
export const auditIn = (environmentId: number, id: number): Promise<Audit | null> =>
  Audit.findOne({ where: { id, environmentId } });

/** The newest finished audit of an environment that was judged as this situation. */
export const lastAuditAs = (environmentId: number, situation: Situation): Promise<Audit | null> =>
  Audit.findOne({ where: { environmentId, situation, status: 'done' }, order: [['id', 'DESC']] });

/** Packed evidence of several audits, the newest first. */
export const evidenceOfAudits = (auditIds: readonly number[]): Promise<AuditEvidence[]> =>
  AuditEvidence.findAll({ where: { auditId: [...auditIds] }, order: [['auditId', 'DESC']] });

/** What the newest audit of an environment says of a check. */
export const findFinding = (environmentId: number, checkId: string): Promise<FindingRow | null> =>
  FindingRow.findOne({ where: { environmentId, checkId } });

/** All findings of an environment, in the order of its checklist. */
export const findingsOf = (environmentId: number): Promise<FindingRow[]> =>
  FindingRow.findAll({ where: { environmentId }, order: [['position', 'ASC']] });

/** Those of some checks. */
export const findingsOfChecks = (environmentId: number, checks: readonly string[]): Promise<FindingRow[]> =>
  FindingRow.findAll({ where: { environmentId, checkId: [...checks] }, order: [['position', 'ASC']] });

/** Where a check failed. */
export const failedFindings = (checkId: string, environmentIds: readonly number[]): Promise<FindingRow[]> =>
  FindingRow.findAll({ where: { checkId, environmentId: [...environmentIds], outcome: 'failed' } });

/** Blockers with one of these outcomes that are not accepted. */
export const openBlockers = (environmentId: number, outcomes: readonly Outcome[]): Promise<FindingRow[]> =>
  FindingRow.findAll({
    where: { environmentId, severity: 'blocker', accepted: false, outcome: { [Op.in]: [...outcomes] } },
    order: [['position', 'ASC']],
  });

export async function newestVerdictId(auditId: number): Promise<number | null> {
  const row = await VerdictRow.findOne({ where: { auditId }, attributes: ['id'], order: [['id', 'DESC']] });
  return row?.id ?? null;
}

/** The packed table of an audit's pages, and the verdict it was made for. */
export const storedPages = (auditId: number): Promise<AuditPages | null> => AuditPages.findByPk(auditId);

export async function storePages(pages: { auditId: number; verdictId: number; data: Buffer }): Promise<void> {
  await AuditPages.upsert(pages);
}

/** Digests of the pictures that belong to an audit. */
export const picturesOfAudit = (auditId: number): Promise<SeenPicture[]> =>
  SeenPicture.findAll({ where: { auditId }, attributes: ['sha256'] });

/** The newest attestations of some checks. */
export const newestAttestations = (
  environmentId: number,
  checks: readonly string[],
  limit: number,
): Promise<AttestationRow[]> =>
  AttestationRow.findAll({
    where: { environmentId, checkId: [...checks] },
    order: [['id', 'DESC']],
    limit,
  });

/** What was attested as done, the oldest first. */
export const doneAttestations = (environmentId: number): Promise<AttestationRow[]> =>
  AttestationRow.findAll({ where: { environmentId, done: true }, order: [['id', 'ASC']] });

/** Attestations that have expired and whose end was not reported yet. */
export const lapsedAttestations = (limit: number): Promise<AttestationRow[]> =>
  AttestationRow.findAll({ where: { goodUntil: { [Op.lt]: today() }, toldAt: null }, limit });

/** Whether the same was attested again later. */
export const isAttestedAnew = async (
  { id, environmentId, checkId, place }: Pick<AttestationRow, 'id' | 'environmentId' | 'checkId' | 'place'>,
  transaction: Transaction,
): Promise<boolean> =>
  (await AttestationRow.count({
    where: { environmentId, checkId, place, id: { [Op.gt]: id } },
    transaction,
  })) > 0;

export async function noteAttestationTold(id: number, transaction: Transaction): Promise<void> {
  await AttestationRow.update({ toldAt: now() }, { where: { id }, transaction });
}
