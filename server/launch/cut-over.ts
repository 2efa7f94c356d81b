/** What is known of a site on its way to the launch, and its cut-over plan: from what its live names serve to what is asked for. */
import { hostOf } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import { completeBrief } from '#core/facts/host-records';
import { servedBy } from '#core/launch/cut-over';
import { FIRST_TTL, nsTtlOf, planCutOver, type CutOver, type Timing } from '#core/launch/cut-over';
import { recordsOfShares, sharesOf, type Share, type ShareAnswer } from '#core/launch/shared-address';
import { LOWERING } from '#core/launch/sheet';
import { hostsOf } from '#probe/plan';
import { findEvidence } from '#server/audits';
import { newestProfile } from '#server/hosts';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound, Refused } from '#server/platform/errors';
import { readEvidence } from '#server/platform/packed';
import {
  findSite,
  liveEnvironmentOf,
  lockSite,
  newestBrief,
  type Environment,
  type Site,
  SITE_GONE,
} from '#server/sites';
import { Launch, LaunchStep, WatchRow } from './models';

export interface SiteCutOver extends CutOver {
  /** When the records were looked at, ISO 8601. */
  at: string;
  /** Of the client, where the brief says it. */
  timeZone: string | null;
  /** The records as they were before a launch that is under way, as lines to paste. */
  kept: string | null;
  /** Why there is no plan of records, where there is none. */
  without: string | null;
  /** What shares an address that moves. */
  shares: Share[];
  /** Of a launch that is under way: when the change was or is to be made, and when TTLs were lowered. */
  timing: { changedAt: number; lowered: Timing['lowered'] | null } | null;
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
  const site = await findSite(siteId);
  if (!site) throw new NotFound(SITE_GONE);
  const [live, brief, profile] = await Promise.all([
    liveEnvironmentOf(siteId),
    newestBrief(siteId),
    newestProfile(site.hostProfileId ?? null),
  ]);
  const stored = live?.lastAuditId ? await findEvidence(live.lastAuditId) : null;
  return {
    site,
    live,
    evidence: stored ? await readEvidence(stored.data) : null,
    brief: completeBrief(brief?.brief ?? {}, profile?.profile, (live && hostOf(live.url)) ?? ''),
    profile: profile?.profile,
  };
}

/** The plan; null where the live address was never looked at. */
export function planFrom({
  site,
  evidence,
  brief,
  profile,
  live,
}: LaunchedFrom): Omit<SiteCutOver, 'kept' | 'timing'> | null {
  if (!evidence || !live) return null;
  const { dns } = evidence;
  const hosts = hostsOf(live.url, 'live', brief);
  const wanted = brief.records ?? [];
  const planOf = (records: typeof wanted): CutOver =>
    planCutOver({
      ...servedBy(evidence.dns),
      wanted: records,
      issuer: profile?.issuer,
      ranges: profile?.addressRanges,
      nameServers: {
        today: dns.nameServers.map((s) => s.name),
        wanted: brief.nameServers ?? [],
        nsTtl: nsTtlOf(dns),
      },
      ...(brief.reachedBy === 'forwarding' ? { forwarding: { hosts, to: brief.forwardTo ?? live.url } } : {}),
    });
  const first = planOf(wanted);
  const shared = {
    answered: dns.answers,
    zone: dns.zone ?? '',
    hosts,
    answers: site.shares ?? {},
  };
  const asked = sharesOf({ ...shared, lines: first.lines });
  const more = recordsOfShares(asked, { lines: first.lines, hosts });
  const plan = more.length ? planOf([...wanted, ...more]) : first;
  // what SPF says afterwards follows from all that moves
  const shares = more.length ? sharesOf({ ...shared, lines: plan.lines }) : asked;
  return {
    ...plan,
    shares,
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
  return { ...plan, kept: launch?.backLines || null, timing: launch && (await timingOf(launch)) };
}

async function timingOf(launch: Launch): Promise<SiteCutOver['timing']> {
  const [rows, watch] = await Promise.all([
    LaunchStep.findAll({ where: { launchId: launch.id, stepId: LOWERING } }),
    WatchRow.findOne({ where: { siteId: launch.siteId }, order: [['id', 'DESC']] }),
  ]);
  const seen = watch && watch.begunAt >= launch.begunAt ? watch.standing?.changedAt : null;
  return {
    changedAt: seen ?? (launch.wentAt ?? launch.plannedAt).getTime(),
    lowered: loweredBy(launch, rows) ?? null,
  };
}

/** When the TTLs were lowered, as far as that is proven or somebody said so. */
export function loweredBy(
  { oldTtl }: Launch,
  rows: readonly Pick<LaunchStep, 'stepId' | 'provenAt' | 'saidAt'>[],
): Timing['lowered'] {
  const row = rows.find((r) => r.stepId === LOWERING);
  const at = row?.provenAt ?? row?.saidAt;
  return at ? { at: at.getTime(), ttl: FIRST_TTL, oldTtl } : undefined;
}

/** Says of something that shares the site’s address whether it moves. @throws NotFound, Refused */
export async function answerShare(siteId: number, id: string, answer: ShareAnswer | null): Promise<void> {
  const plan = await siteCutOver(siteId);
  if (!plan.shares.some((s) => s.id === id))
    throw new Refused('This does not lead to an address that moves, or not any more.');
  await inTransaction(async (transaction) => {
    const site = await lockSite(siteId, transaction);
    const { [id]: _, ...others } = site.shares ?? {};
    await site.update({ shares: answer ? { ...others, [id]: answer } : others }, { transaction });
    await emit('SiteTouched', { siteId }, transaction);
  });
}

function withoutRecords({ records, reachedBy }: Brief): string | null {
  if (reachedBy === 'forwarding') return 'The brief says that the address is reached by forwarding.';
  return records?.length ? null : 'Neither the brief nor the host profile names records.';
}
