/** What contacts have said yes to, for those who judge and keep. */
import type { Approval } from '#core/facts/approval';
import { AuditEvidence } from '../audits/models';
import { Environment } from '../sites/models';
import { ApprovalRow } from './models';

/** The newest yes of a site that stands, with the evidence it was said to, packed. */
export async function approvalFor(
  environment: Environment,
): Promise<{ approval: Approval; approved: Buffer } | undefined> {
  const row = await ApprovalRow.findOne({
    where: { siteId: environment.siteId, withdrawnAt: null },
    order: [['id', 'DESC']],
  });
  const stored = row && (await AuditEvidence.findByPk(row.auditId));
  const shown = row && (await Environment.findByPk(row.environmentId));
  if (!row || !stored || !shown) return undefined;
  const approval: Approval = {
    by: row.byName,
    at: row.at.toISOString(),
    environment: shown.name,
    isHere: shown.id === environment.id,
    isLive: shown.kind === 'live',
  };
  return { approval, approved: stored.data };
}

/** Whether a yes was ever said to an audit: then nothing of it is let go of. */
export const isApproved = async (auditId: number): Promise<boolean> =>
  (await ApprovalRow.count({ where: { auditId } })) > 0;
