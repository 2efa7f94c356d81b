/** The accounts that a site rests on; never a secret. */
import { ACCOUNT_KINDS, type SiteAccount } from '#core/facts/launch';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { assertSite } from '#server/sites';
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
    await assertSite(siteId, transaction);
    const { kind, operator } = account;
    await AccountRow.destroy({ where: { siteId, kind }, transaction });
    if (operator.trim())
      await AccountRow.create(
        { ...account, operator: operator.trim(), siteId, savedBy: by, savedAt: now() },
        { transaction },
      );
    await emit('SiteTouched', { siteId }, transaction);
  });
}
