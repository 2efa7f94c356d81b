/** What is known of a site on its way to the launch, and its cut-over plan: from what its live names serve to what is asked for. */
import { completeBrief } from '#core/facts/host-records';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import { hostOf } from '#core/extract/address';
import { nsTtlOf, planCutOver, servedBy, type CutOver } from '#core/launch/cut-over';
import { hostsOf } from '#probe/plan';
import { AuditEvidence } from '../audits/models';
import { newestProfile } from '../hosts/known-profiles';
import { Conflict, NotFound } from '../platform/errors';
import { keptEvidence } from '../platform/packed';
import { newestBrief } from '../sites/briefs';
import { Environment, Site } from '../sites/models';
import { Launch } from './models';

export interface SiteCutOver extends CutOver {
  /** When the records were looked at, ISO 8601. */
  at: string;
  /** Of the client, where the brief says it. */
  timeZone: string | null;
  /** The records as they were before a launch that is under way, as lines to paste. */
  kept: string | null;
  /** Why there is no plan of records, where there is none. */
  without: string | null;
}

/** A site with its live environment as it was seen last. */
export interface LaunchedFrom {
  site: Site;
  live: Environment | null;
  evidence: Evidence | null;
  /** With the host’s records, where it names none. */
  brief: Brief;
  profile?: HostProfile;
}

/** @throws NotFound */
export async function launchedFrom(siteId: number): Promise<LaunchedFrom> {
  const site = await Site.findByPk(siteId);
  if (!site) throw new NotFound('This site does not exist, or not any more.');
  const [live, brief, profile] = await Promise.all([
    Environment.findOne({ where: { siteId, kind: 'live' } }),
    newestBrief(siteId),
    newestProfile(site.hostProfileId ?? null),
  ]);
  const stored = live?.lastAuditId ? await AuditEvidence.findByPk(live.lastAuditId) : null;
  return {
    site,
    live,
    evidence: stored ? await keptEvidence(stored.data) : null,
    brief: completeBrief(brief?.brief ?? {}, profile?.profile, (live && hostOf(live.url)) ?? ''),
    profile: profile?.profile,
  };
}

/** The plan; null where the live address was never looked at. */
export function planFrom({ evidence, brief, profile, live }: LaunchedFrom): Omit<SiteCutOver, 'kept'> | null {
  if (!evidence || !live) return null;
  const { dns } = evidence;
  const hosts = hostsOf(live.url, 'live', brief);
  return {
    ...planCutOver({
      ...servedBy(evidence.dns),
      wanted: brief.records ?? [],
      issuer: profile?.issuer,
      ranges: profile?.addressRanges,
      nameServers: {
        today: dns.nameServers.map((s) => s.name),
        wanted: brief.nameServers ?? [],
        nsTtl: nsTtlOf(dns),
      },
      ...(brief.reachedBy === 'forwarding' ? { forwarding: { hosts, to: brief.forwardTo ?? live.url } } : {}),
    }),
    at: evidence.times?.dns ?? evidence.finishedAt,
    timeZone: brief.timeZone ?? null,
    without: withoutRecords(brief),
  };
}

/** @throws NotFound; Conflict where the live address was never looked at */
export async function siteCutOver(siteId: number): Promise<SiteCutOver> {
  const [from, launch] = await Promise.all([
    launchedFrom(siteId),
    Launch.findOne({ where: { openKey: siteId } }),
  ]);
  const plan = planFrom(from);
  if (!plan)
    throw new Conflict('The live address was not looked at yet: an audit of it says what is served now.');
  return { ...plan, kept: launch?.backLines || null };
}

function withoutRecords({ records, reachedBy }: Brief): string | null {
  if (reachedBy === 'forwarding') return 'The brief says that the address is reached by forwarding.';
  return records?.length ? null : 'Neither the brief nor the host profile names records.';
}
