/** The technical side of a site as one audit saw it. */
import { recordsView, type RecordsView } from '#core/records/records-view';
import type { Brief } from '#core/facts/brief';
import { completeBrief } from '#core/facts/host-records';
import { Audit, AuditEvidence } from '../audits/models';
import { newestProfile } from '../hosts/known-profiles';
import { NotFound } from '../platform/errors';
import { keptEvidence } from '../platform/packed';
import { briefForChecks } from '../sites/briefs';
import { BriefRow, Environment, Site } from '../sites/models';

/** @throws NotFound when the audit has no evidence */
export async function recordsOf(auditId: number): Promise<RecordsView> {
  const [audit, stored] = await Promise.all([Audit.findByPk(auditId), AuditEvidence.findByPk(auditId)]);
  if (!audit || !stored) throw new NotFound('This audit has no evidence, or not any more.');
  const environment = await Environment.findByPk(audit.environmentId, { rejectOnEmpty: true });
  const site = await Site.findByPk(environment.siteId, { rejectOnEmpty: true });
  const row = audit.briefId ? await BriefRow.findByPk(audit.briefId) : null;
  const { brief, liveHost } = await briefForChecks(site, (row?.data as Brief | undefined) ?? {});
  const profile = (await newestProfile(site.hostProfileId ?? null))?.profile;
  const evidence = await keptEvidence(stored.data);
  return recordsView(evidence, completeBrief(brief, profile, liveHost ?? evidence.target.hosts[0] ?? ''));
}
