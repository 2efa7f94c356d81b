/** The cut-over plan of a site: from what its live names serve to what brief and host ask for. */
import { completeBrief } from '#core/facts/host-records';
import type { Evidence } from '#core/facts/evidence';
import { hostOf } from '#core/extract/address';
import { planCutOver, servedBy, type CutOver } from '#core/launch/cut-over';
import { AuditEvidence } from '../audits/models';
import { newestProfile } from '../hosts/known-profiles';
import { Conflict, NotFound } from '../platform/errors';
import { keptEvidence } from '../platform/packed';
import { newestBrief } from '../sites/briefs';
import { Environment, Site } from '../sites/models';

export interface SiteCutOver extends CutOver {
  /** When the records were looked at, ISO 8601. */
  at: string;
  /** Of the client, where the brief says it. */
  timeZone: string | null;
  /** Why there is no plan of records, where there is none. */
  without: string | null;
}

/** The live environment with its newest evidence. @throws NotFound, Conflict where it was never looked at */
async function liveOf(siteId: number): Promise<{ site: Site; url: string; evidence: Evidence }> {
  const site = await Site.findByPk(siteId);
  if (!site) throw new NotFound('This site does not exist, or not any more.');
  const live = await Environment.findOne({ where: { siteId, kind: 'live' } });
  const stored = live?.lastAuditId ? await AuditEvidence.findByPk(live.lastAuditId) : null;
  if (!live || !stored)
    throw new Conflict('The live address was not looked at yet: an audit of it says what is served now.');
  return { site, url: live.url, evidence: await keptEvidence(stored.data) };
}

/** @throws NotFound; Conflict where the live address was never looked at */
export async function siteCutOver(siteId: number): Promise<SiteCutOver> {
  const { site, url, evidence } = await liveOf(siteId);
  const brief = (await newestBrief(siteId))?.brief ?? {};
  const profile = (await newestProfile(site.hostProfileId ?? null))?.profile;
  const whole = completeBrief(brief, profile, hostOf(url) ?? '');
  return {
    ...planCutOver({ ...servedBy(evidence.dns), wanted: whole.records ?? [], issuer: profile?.issuer }),
    at: evidence.times?.dns ?? evidence.finishedAt,
    timeZone: whole.timeZone ?? null,
    without: withoutRecords(whole),
  };
}

function withoutRecords({ records, reachedBy }: ReturnType<typeof completeBrief>): string | null {
  if (reachedBy === 'forwarding') return 'The brief says that the address is reached by forwarding.';
  return records?.length ? null : 'Neither the brief nor the host profile names records.';
}
