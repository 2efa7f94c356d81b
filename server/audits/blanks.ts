/** What the blanks of a brief cost in one environment, and what its last audit saw for each. */
import type { JudgedFinding } from '#core/checks/engine/judge';
import { blanksOf, type Blank } from '#core/proposals/blanks';
import type { Proposal } from '#core/proposals/propose-brief';
import { NotFound } from '#server/platform/errors';
import { findEnvironment } from '#server/sites';
import { Audit, FindingRow } from './models';

/** @throws NotFound */
export async function blanksIn(environmentId: number): Promise<(Blank & { seen: Proposal | null })[]> {
  const environment = await findEnvironment(environmentId);
  if (!environment) throw new NotFound('This environment does not exist, or not any more.');
  if (!environment.lastAuditId) return [];
  const [audit, rows] = await Promise.all([
    Audit.findByPk(environment.lastAuditId, { rejectOnEmpty: true }),
    FindingRow.findAll({ where: { environmentId, outcome: 'untested' } }),
  ]);
  const { proposals = [] } = audit.result as { proposals?: Proposal[] };
  return blanksOf(rows.map((r) => r.data as JudgedFinding)).map((blank) => ({
    ...blank,
    seen: proposals.find((p) => p.field === blank.field) ?? null,
  }));
}
