/** Briefs with their versions. */
import { Op, type Transaction } from 'sequelize';
import { blank } from '#core/compare/fields';
import { hostOf } from '#core/extract/address';
import { withALabels } from '#core/facts/a-labels';
import type { Brief } from '#core/facts/brief';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { NotFound } from '#server/platform/errors';
import { refuseOverwriting } from '#server/platform/overwriting';
import { VERSIONS_READ, versionsWindow } from '#server/platform/versions';
import { BriefRow, Environment, type Site } from './models';

export async function newestBrief(
  siteId: number,
  transaction?: Transaction,
): Promise<{ id: number; version: number; brief: Brief; savedBy: string; savedAt: Date } | null> {
  const row = await BriefRow.findOne({ where: { siteId }, order: [['version', 'DESC']], transaction });
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

/**
 * Saves the next version; fields that are not given keep their value, empty ones become unfilled.
 * @param from the version the change was made on; @throws Conflict when somebody saved another since
 */
export async function saveBrief(
  siteId: number,
  change: Partial<Brief>,
  by: string,
  from?: number,
): Promise<{ version: number; brief: Brief }> {
  return inTransaction(async (transaction) => {
    const before = await newestBrief(siteId, transaction);
    const given = Object.fromEntries(
      Object.entries(withALabels(change)).filter(([, value]) => value !== undefined),
    );
    const brief = Object.fromEntries(
      Object.entries({ ...before?.brief, ...given }).filter(([, value]) => !blank(value)),
    ) as Brief;
    if (before) refuseOverwriting(from, { ...before, data: before.brief }, brief);
    const version = (before?.version ?? 0) + 1;
    await BriefRow.create({ siteId, version, data: brief, savedBy: by, savedAt: now() }, { transaction });
    // a site that was never audited has nothing that is judged anew and would tell of it
    await emit('SiteTouched', { siteId }, transaction);
    return { version, brief };
  });
}

/** One window of the versions, newest first, each with what it changed. */
export async function briefVersions(siteId: number, after?: number) {
  const rows = await BriefRow.findAll({
    where: { siteId, ...(after === undefined ? {} : { version: { [Op.lt]: after } }) },
    order: [['version', 'DESC']],
    limit: VERSIONS_READ,
  });
  return versionsWindow(
    rows.map(({ version, savedBy, savedAt, data }) => ({ version, savedBy, savedAt, data: data as Brief })),
  );
}

/** The change that makes the newest brief what it was in an older version. @throws NotFound */
export async function changeBackTo(siteId: number, version: number): Promise<Partial<Brief>> {
  const [old, now] = await Promise.all([
    BriefRow.findOne({ where: { siteId, version } }),
    newestBrief(siteId),
  ]);
  if (!old) throw new NotFound(`There is no version ${version} of this brief.`);
  return {
    ...Object.fromEntries(Object.keys(now?.brief ?? {}).map((k) => [k, null])),
    ...(old.data as object),
  };
}

/** A brief as audits take it. */
export interface BriefForChecks {
  brief: Brief;
  /** Where the site is or will be live. */
  liveHost?: string;
}

/**
 * The brief as checks see it: the hosts of all environments before the live one count as staging hosts, and the
 * site's launch date is the brief's.
 */
export async function briefForChecks(site: Site, brief: Brief): Promise<BriefForChecks> {
  const environments = await Environment.findAll({ where: { siteId: site.id } });
  const hosts = environments.filter((p) => p.kind === 'before').flatMap((p) => hostOf(p.url) ?? []);
  const live = environments.find((p) => p.kind === 'live');
  const stagingHosts = [...new Set([...(brief.stagingHosts ?? []), ...hosts])];
  return {
    brief: {
      ...brief,
      ...(stagingHosts.length ? { stagingHosts } : {}),
      ...(site.launchDate ? { launchDate: site.launchDate } : {}),
    },
    ...(live ? { liveHost: hostOf(live.url) ?? live.url } : {}),
  };
}
