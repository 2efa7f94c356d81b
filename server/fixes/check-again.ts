/** Looking whether faults are gone: only what their checks rest on, one audit for each environment. */
import { isRemarkCheck } from '#core/facts/fix';
import { startAudits, type Started } from '#server/audits';
import { Fix } from './models';

/**
 * What comes of a client’s remark is left out: no audit can see it.
 * @returns the audits that were started, and what could not be
 */
export async function checkAgain(fixIds: readonly number[], by: string): Promise<Started> {
  const fixes = await Fix.findAll({
    where: { id: [...fixIds] },
    attributes: ['environmentId', 'checkId'],
    order: [['id', 'ASC']],
  });
  const checks = new Map<number, string[]>();
  for (const { environmentId, checkId } of fixes.filter((f) => !isRemarkCheck(f.checkId)))
    checks.set(environmentId, [...(checks.get(environmentId) ?? []), checkId]);
  const out: Started = { started: [], refused: [] };
  for (const [environmentId, list] of checks) {
    const { started, refused } = await startAudits([environmentId], by, { scope: { checks: list } });
    out.started.push(...started);
    out.refused.push(...refused);
  }
  return out;
}
