/** Judging stored evidence again, when something else than the site has changed. */
import { liveEqualsStaging, NOT_COMPARED } from '#core/checks/catalogue/delivery/live-equals-staging';
import type { JudgedFinding } from '#core/checks/engine/judge';
import {
  auditedLive,
  environmentsOf,
  getEnvironment,
  getSite,
  newestBrief,
  type Environment,
} from '#server/sites';
import { findEvidence, getAudit, hasEvidence } from './find';
import { stagingAudit } from './judge-context';
import { FindingRow } from './models';
import { beforeJudging, judgeAndSave, type Cause, type VerdictInput } from './save-verdict';

/**
 * Judges the stored evidence of an environment's last audit again.
 * @param checklistVersionId another checklist than the audit's own
 */
export async function reevaluate(
  environmentId: number,
  cause: Cause,
  checklistVersionId?: number,
): Promise<void> {
  await beforeJudging.run(environmentId);
  const { siteId } = await getEnvironment(environmentId);
  const read = async (): Promise<VerdictInput | null> => {
    const environment = await getEnvironment(environmentId);
    const { lastAuditId } = environment;
    if (!lastAuditId || !(await hasEvidence(lastAuditId))) return null;
    const [audit, brief, site] = await Promise.all([
      getAudit(lastAuditId),
      newestBrief(siteId),
      getSite(siteId),
    ]);
    audit.briefId = brief?.id ?? null;
    if (checklistVersionId) audit.checklistVersionId = checklistVersionId;
    const evidence = async (): Promise<Buffer> => (await findEvidence(lastAuditId))!.data;
    return { audit, environment, site, evidence, brief: brief?.brief ?? {} };
  };
  await judgeAndSave(siteId, read, { cause });
}

/**
 * A live environment that could not be compared with what was approved, since that had not been audited yet, is
 * re-evaluated once it has been.
 * Both may be audited at once: whichever is kept last finds the other here.
 * @param seen the environment whose audit was kept just now
 */
export async function reevaluateCompared(seen: Environment, by: string): Promise<void> {
  const live = seen.kind === 'live' ? seen : await auditedLive(seen.siteId);
  const open =
    live &&
    (await FindingRow.findOne({
      where: { environmentId: live.id, checkId: liveEqualsStaging.id, outcome: 'cantTell' },
    }));
  if (!open) return;
  if (
    seen === live &&
    ((open.data as JudgedFinding).code !== NOT_COMPARED.code ||
      !(await stagingAudit(live, await getSite(live.siteId))))
  )
    return;
  await reevaluate(live.id, { cause: 'approved state', by });
}

/** Judges the stored evidence of all environments of a site again. */
export async function reevaluateSite(
  siteId: number,
  cause: Cause,
  checklistVersionId?: number,
): Promise<void> {
  for (const e of await environmentsOf(siteId)) await reevaluate(e.id, cause, checklistVersionId);
}
