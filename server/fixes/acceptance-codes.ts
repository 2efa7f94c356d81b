/**
 * Acceptances from before findings had codes name the sentence that was found. Once, before an environment is judged
 * anew, the sentences of today find their codes in the evidence that was accepted.
 */
import type { Transaction } from 'sequelize';
import { checkById } from '#core/checks/catalogue/index';
import type { JudgedFinding } from '#core/checks/engine/judge';
import type { AcceptedPlace } from '#core/facts/checklist';
import { quantity } from '#core/text/quantity';
import { lastEvidence, judgeEnvironment } from '#server/audits';
import { checklistVersion } from '#server/checklists';
import { newestProfile } from '#server/hosts';
import { siteOwners, notify } from '#server/people';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { getEnvironment, getSite, type Environment, type Site } from '#server/sites';
import { AcceptanceRow } from './models';

const waiting = (environmentId: number) => ({ environmentId, withdrawnAt: null, byCode: false });

/** Gives the places of old acceptances their codes; what has none is told to the people concerned. */
export async function migrateAcceptances(environmentId: number): Promise<void> {
  if (!(await AcceptanceRow.count({ where: waiting(environmentId) }))) return;
  const environment = await getEnvironment(environmentId);
  const [site, last] = await Promise.all([getSite(environment.siteId), lastEvidence(environment)]);
  if (!last) return;
  const [profile, checklist] = await Promise.all([
    newestProfile(site.hostProfileId ?? null),
    checklistVersion(last.audit.checklistVersionId),
  ]);
  const by = { brief: last.brief?.brief ?? {}, checklist, profile: profile?.profile };
  const { findings } = await judgeEnvironment(environment, site, last.evidence, by, now());
  await inTransaction(async (transaction) => {
    const rows = await AcceptanceRow.findAll({ where: waiting(environmentId), transaction, lock: true });
    for (const row of rows) await carryOver(row, findings, { environment, site }, transaction);
  });
}

type Where = { environment: Environment; site: Site };

async function carryOver(
  row: AcceptanceRow,
  findings: readonly JudgedFinding[],
  { environment, site }: Where,
  transaction: Transaction,
): Promise<void> {
  const seen = findings.find((f) => f.check === row.checkId)?.places ?? [];
  const places = row.places.flatMap((old): AcceptedPlace[] => {
    if ('code' in old) return [old];
    const hit = seen.find((p) => p.place === old.place && (p.found ?? '') === old.found);
    return hit ? [{ place: hit.place, code: hit.code, ...(hit.data ? { data: hit.data } : {}) }] : [];
  });
  const lost = row.places.length - places.length;
  await row.update({ places, byCode: true }, { transaction });
  if (!lost) return;
  const fault = checkById.get(row.checkId)?.fault ?? row.checkId;
  await notify(
    [row.byId, ...(row.secondedById ? [row.secondedById] : []), ...(await siteOwners(site))],
    `${site.name}, ${environment.name}: “${fault}” was accepted, and ${quantity(lost, 'of its places is', 'of its places are')} no longer found as accepted. Look at it again: those places count as faults.`,
    `/sites/${site.id}?environment=${environment.id}&check=${row.checkId}`,
    transaction,
  );
}
