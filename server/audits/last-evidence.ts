/** What the last audit of an environment saw. */
import type { Brief } from '#core/facts/brief';
import { newestBrief, type Environment } from '#server/sites';
import { Audit, AuditEvidence } from './models';

/** The stored evidence of an environment's last audit, with the brief of today. */
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
