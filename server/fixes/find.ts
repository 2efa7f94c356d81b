/** Finding fixes and acceptances. */
import type { Transaction } from 'sequelize';
import { OPEN_STATES } from '#core/facts/fix';
import type { FixState } from '#core/facts/fix';
import { NotFound } from '#server/platform/errors';
import { AcceptanceRow, Fix, FixEventRow } from './models';

export const fixesOf = (environmentId: number): Promise<Fix[]> => Fix.findAll({ where: { environmentId } });

/** The states of fixes. */
export const fixesByIds = (ids: readonly number[]): Promise<Pick<Fix, 'id' | 'state'>[]> =>
  Fix.findAll({ where: { id: [...ids] }, attributes: ['id', 'state'] });

/** The open fix of a check. */
export const openFixOf = (
  environmentId: number,
  checkId: string,
  transaction: Transaction,
): Promise<Fix | null> =>
  Fix.findOne({ where: { environmentId, checkId, state: [...OPEN_STATES] }, transaction });

type NewFix = Pick<Fix, 'environmentId' | 'siteId' | 'checkId' | 'places' | 'openedAt' | 'changedAt'> & {
  title: string;
  severity: Fix['severity'];
  state: FixState;
  returns: number;
};

export const openFix = (fix: NewFix, transaction: Transaction): Promise<Fix> =>
  Fix.create(fix, { transaction });

/** Checks whose fix an audit moved in one of these ways. */
export async function checksMovedBy(
  auditId: number,
  kinds: readonly string[],
  transaction: Transaction,
): Promise<string[]> {
  const events = await FixEventRow.findAll({ where: { auditId, kind: [...kinds] }, transaction });
  const fixes = await Fix.findAll({
    where: { id: events.map((e) => e.fixId) },
    attributes: ['checkId'],
    transaction,
  });
  return fixes.map((f) => f.checkId);
}

/** Acceptances that hold, of some checks or of all. */
export const acceptancesOf = (environmentId: number, checks?: readonly string[]): Promise<AcceptanceRow[]> =>
  AcceptanceRow.findAll({
    where: { environmentId, withdrawnAt: null, ...(checks ? { checkId: [...checks] } : {}) },
  });

/** A fix with the newest lines of its history, the newest first. @throws NotFound */
export async function fixWithHistory(
  id: number,
  limit: number,
): Promise<{ fix: Fix; events: FixEventRow[] }> {
  const fix = await Fix.findByPk(id);
  if (!fix) throw new NotFound('This fix does not exist, or not any more.');
  return {
    fix,
    events: await FixEventRow.findAll({ where: { fixId: id }, order: [['id', 'DESC']], limit }),
  };
}
