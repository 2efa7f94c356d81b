/** The accounts that a site rests on; never a secret. */
import { ACCOUNT_KINDS, type SiteAccount } from '#core/facts/launch';
import { now } from '../platform/clock';
import { inTransaction } from '../platform/db/transaction';
import { NotFound } from '../platform/errors';
import { announce } from '../platform/events';
import { Site } from '../sites/models';
import { AccountRow } from './models';

/** In the order of their kinds; those that nobody wrote down are left out. */
export async function accountsOf(
  siteId: number,
): Promise<(SiteAccount & { savedBy: string; savedAt: string })[]> {
  const rows = await AccountRow.findAll({ where: { siteId } });
  rows.sort((a, b) => ACCOUNT_KINDS.indexOf(a.kind) - ACCOUNT_KINDS.indexOf(b.kind));
  return rows.map(({ kind, operator, holder, access, payer, hasTransferCode, note, savedBy, savedAt }) => ({
    kind,
    operator,
    holder,
    access,
    payer,
    hasTransferCode,
    note,
    savedBy,
    savedAt: savedAt.toISOString(),
  }));
}

/** An account without an operator is taken away. @throws NotFound */
export async function saveAccount(siteId: number, account: SiteAccount, by: string): Promise<void> {
  await inTransaction(async (transaction) => {
    if (!(await Site.count({ where: { id: siteId }, transaction })))
      throw new NotFound('This site does not exist, or not any more.');
    const { kind, operator } = account;
    await AccountRow.destroy({ where: { siteId, kind }, transaction });
    if (operator.trim())
      await AccountRow.create(
        { ...account, operator: operator.trim(), siteId, savedBy: by, savedAt: now() },
        { transaction },
      );
    announce([['site', siteId]], { transaction });
  });
}
