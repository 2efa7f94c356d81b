/** The technical side of a site as one audit saw it. */
import type { Brief } from '#core/facts/brief';
import { completeBrief } from '#core/facts/host-records';
import { recordsView, type RecordsView } from '#core/records/records-view';
import { findAudit, findEvidence } from '#server/audits';
import { newestProfile } from '#server/hosts';
import { NotFound } from '#server/platform/errors';
import { readEvidence } from '#server/platform/packed';
import { getEnvironment, getSite, findBrief, briefForChecks } from '#server/sites';

/** @throws NotFound when the audit has no evidence */
export async function recordsOf(auditId: number): Promise<RecordsView> {
  const [audit, stored] = await Promise.all([findAudit(auditId), findEvidence(auditId)]);
  if (!audit || !stored) throw new NotFound('This audit has no evidence, or not any more.');
  const environment = await getEnvironment(audit.environmentId);
  const site = await getSite(environment.siteId);
  const row = audit.briefId ? await findBrief(audit.briefId) : null;
  const { brief, liveHost } = await briefForChecks(site, (row?.data as Brief | undefined) ?? {});
  const profile = (await newestProfile(site.hostProfileId ?? null))?.profile;
  const evidence = await readEvidence(stored.data);
  return recordsView(evidence, completeBrief(brief, profile, liveHost ?? evidence.target.hosts[0] ?? ''));
}
