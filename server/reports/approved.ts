/** What contacts have said yes to, for those who judge and keep. */
import type { Approval } from '#core/facts/approval';
import { hasEvidence } from '#server/audits';
import { findEnvironment, type Environment } from '#server/sites';
import { ApprovalRow, ReportEdition } from './models';

/** The newest yes of a site that stands, and the audit it was said to. */
export async function approvalFor(
  environment: Environment,
): Promise<{ approval: Approval; approvedAuditId: number } | undefined> {
  const row = await ApprovalRow.findOne({
    where: { siteId: environment.siteId, withdrawnAt: null },
    order: [['id', 'DESC']],
  });
  const isStored = row && (await hasEvidence(row.auditId));
  const shown = row && (await findEnvironment(row.environmentId));
  if (!row || !isStored || !shown) return undefined;
  const approval: Approval = {
    by: row.byName,
    at: row.at.toISOString(),
    environment: shown.name,
    isHere: shown.id === environment.id,
    isLive: shown.kind === 'live',
  };
  return { approval, approvedAuditId: row.auditId };
}

/** Why audits are kept for good: a client said yes to one, or was told of it; nothing where neither is so. */
export async function reasonToKeep(auditId: readonly number[]): Promise<string | undefined> {
  const where = { auditId: [...auditId] };
  if (await ApprovalRow.count({ where }))
    return 'A client said yes to what was seen there: it is kept as proof.';
  if (await ReportEdition.count({ where }))
    return 'A report that was published tells of what was seen there: it is kept with it.';
  return undefined;
}
