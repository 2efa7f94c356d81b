/** Briefs with their versions. */
import { blank, fieldChanges, type FieldChange } from '#core/compare/fields';
import { asciiHost } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import { withHostRecords } from '#core/facts/host-records';
import type { HostProfile } from '#core/facts/host-profile';
import { applyTake } from '#core/facts/take';
import type { JudgedFinding } from '#core/checks/engine/judge';
import type { Site } from '../platform/db/models';
import { BriefRow, Environment, FindingRow, HostProfileRow } from '../platform/db/models';
import { refuse } from '../platform/http/failure';

export async function newestBrief(
  siteId: number,
): Promise<{ id: number; version: number; brief: Brief; savedBy: string; savedAt: Date } | null> {
  const row = await BriefRow.findOne({ where: { siteId }, order: [['version', 'DESC']] });
  return (
    row && {
      id: row.id,
      version: row.version,
      brief: row.data as Brief,
      savedBy: row.savedBy,
      savedAt: row.savedAt,
    }
  );
}

/** A brief with its hosts as A-labels. */
export function withAsciiHosts<B extends Partial<Brief>>(brief: B): B {
  const out = { ...brief };
  for (const key of [
    'otherHosts',
    'stagingHosts',
    'knownSubdomains',
    'nameServers',
    'allowedScriptHosts',
    'allowedEmailDomains',
  ] as const)
    if (out[key]) out[key] = out[key].map((h) => asciiHost(h) ?? h);
  if (out.preferredHost) out.preferredHost = asciiHost(out.preferredHost) ?? out.preferredHost;
  return out;
}

/**
 * Saves the next version; fields that are not given keep their value, empty ones become unfilled.
 * @param from the version the change was made on; @throws 409 when somebody saved another since
 */
export async function saveBrief(
  siteId: number,
  change: Partial<Brief>,
  by: string,
  from?: number,
): Promise<{ version: number; brief: Brief }> {
  const before = await newestBrief(siteId);
  if (from !== undefined && before && before.version !== from)
    throw refuse(
      409,
      `${before.savedBy} saved version ${before.version} of this brief in the meantime. Look at it under Versions, then save again.`,
    );
  const given = Object.fromEntries(
    Object.entries(withAsciiHosts(change)).filter(([, value]) => value !== undefined),
  );
  const brief = Object.fromEntries(
    Object.entries({ ...before?.brief, ...given }).filter(([, value]) => !blank(value)),
  ) as Brief;
  const version = (before?.version ?? 0) + 1;
  await BriefRow.create({ siteId, version, data: brief, savedBy: by, savedAt: new Date() });
  return { version, brief };
}

export interface BriefVersion {
  version: number;
  savedBy: string;
  savedAt: string;
  changes: FieldChange[];
  data: Brief;
}

/** All versions, newest first, each with what it changed. */
export async function briefVersions(siteId: number): Promise<BriefVersion[]> {
  const rows = await BriefRow.findAll({ where: { siteId }, order: [['version', 'ASC']] });
  return rows
    .map((r, i) => ({
      version: r.version,
      savedBy: r.savedBy,
      savedAt: r.savedAt.toISOString(),
      changes: fieldChanges((rows[i - 1]?.data ?? {}) as object, r.data as object),
      data: r.data as Brief,
    }))
    .reverse();
}

/** The change that makes the newest brief what it was in an older version. @throws 404 */
export async function changeBackTo(siteId: number, version: number): Promise<Partial<Brief>> {
  const [old, now] = await Promise.all([
    BriefRow.findOne({ where: { siteId, version } }),
    newestBrief(siteId),
  ]);
  if (!old) throw refuse(404, `There is no version ${version} of this brief.`);
  return {
    ...Object.fromEntries(Object.keys(now?.brief ?? {}).map((k) => [k, null])),
    ...(old.data as object),
  };
}

/** The change that takes what a finding saw at a place into the brief. @throws 404, 409 */
export async function changeByFinding(
  environmentId: number,
  check: string,
  place: string,
): Promise<{ siteId: number; field: string; change: Partial<Brief> }> {
  const [environment, row] = await Promise.all([
    Environment.findByPk(environmentId),
    FindingRow.findOne({ where: { environmentId, checkId: check } }),
  ]);
  if (!environment || !row) throw refuse(404, 'This finding does not exist, or not any more.');
  const take = (row.data as JudgedFinding).places.find((p) => p.place === place)?.take;
  if (!take) throw refuse(409, 'What was found there is nothing that the brief could take.');
  return {
    siteId: environment.siteId,
    field: take.field,
    change: applyTake((await newestBrief(environment.siteId))?.brief ?? {}, take),
  };
}

/**
 * The brief as checks see it: the hosts of all places before the live one count as staging hosts, the site's
 * launch date is the brief's, and the host's records stand in for the brief's.
 */
export async function briefForChecks(site: Site, brief: Brief): Promise<Brief> {
  const [places, profile] = await Promise.all([
    Environment.findAll({ where: { siteId: site.id } }),
    profileOf(site),
  ]);
  const hosts = places.filter((p) => p.kind === 'before').map((p) => new URL(p.url).hostname);
  const live = places.find((p) => p.kind === 'live');
  const stagingHosts = [...new Set([...(brief.stagingHosts ?? []), ...hosts])];
  const full = {
    ...brief,
    ...(stagingHosts.length ? { stagingHosts } : {}),
    ...(site.launchDate ? { launchDate: site.launchDate } : {}),
  };
  return live ? withHostRecords(full, profile, new URL(live.url).hostname) : full;
}

/** The newest version of a site's host profile. */
export async function profileVersionOf(
  site: Site,
): Promise<{ version: number; profile: HostProfile } | undefined> {
  if (!site.hostProfile) return undefined;
  const row = await HostProfileRow.findOne({
    where: { name: site.hostProfile },
    order: [['version', 'DESC']],
  });
  return row ? { version: row.version, profile: row.data as HostProfile } : undefined;
}

export async function profileOf(site: Site): Promise<HostProfile | undefined> {
  return (await profileVersionOf(site))?.profile;
}
