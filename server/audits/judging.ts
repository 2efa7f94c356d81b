/** Judging stored evidence again, when something else than the site has changed. */
import { Op } from 'sequelize';
import { liveEqualsStaging, NOT_COMPARED } from '#core/checks/catalogue/delivery/live-equals-staging';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { Environment, Site } from '../sites/models';
import { stagingEvidence } from './beside';
import { lastEvidence } from './last-evidence';
import { migrateAcceptances } from './acceptance-codes';
import { inTurn, keepVerdict, type Cause } from './keeping';
import { FindingRow } from './models';

/**
 * Judges the stored evidence of an environment's last audit again.
 * @param checklistVersionId another checklist than the audit's own
 */
export async function reevaluate(
  environmentId: number,
  cause: Cause,
  checklistVersionId?: number,
): Promise<void> {
  await migrateAcceptances(environmentId);
  const { siteId } = await Environment.findByPk(environmentId, {
    rejectOnEmpty: true,
    attributes: ['siteId'],
  });
  await inTurn(siteId, async (transaction) => {
    const environment = await Environment.findByPk(environmentId, { rejectOnEmpty: true });
    const last = await lastEvidence(environment);
    if (!last) return;
    const site = await Site.findByPk(siteId, { rejectOnEmpty: true });
    const { audit, evidence, brief } = last;
    audit.briefId = brief?.id ?? null;
    if (checklistVersionId) audit.checklistVersionId = checklistVersionId;
    await keepVerdict(audit, { environment, site, evidence, brief: brief?.brief ?? {}, cause }, transaction);
  });
}

/**
 * A live environment that could not be compared with what was approved, since that had not been audited yet, is
 * re-evaluated once it has been.
 * Both may be audited at once: whichever is kept last finds the other here.
 * @param seen the environment whose audit was kept just now
 */
export async function reevaluateCompared(seen: Environment, by: string): Promise<void> {
  const live =
    seen.kind === 'live'
      ? seen
      : await Environment.findOne({
          where: { siteId: seen.siteId, kind: 'live', lastAuditId: { [Op.ne]: null } },
        });
  const open =
    live &&
    (await FindingRow.findOne({
      where: { environmentId: live.id, checkId: liveEqualsStaging.id, outcome: 'cantTell' },
    }));
  if (!open) return;
  if (
    seen === live &&
    ((open.data as JudgedFinding).code !== NOT_COMPARED.code ||
      !(await stagingEvidence(live, await Site.findByPk(live.siteId, { rejectOnEmpty: true }))))
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
  for (const e of await Environment.findAll({ where: { siteId }, attributes: ['id'] }))
    await reevaluate(e.id, cause, checklistVersionId);
}
