/** Finding sites, environments, briefs and clients. */
import { Op, type Transaction } from 'sequelize';
import { NotFound } from '#server/platform/errors';
import { BriefRow, Client, Environment, Site } from './models';

export const SITE_GONE = 'This site does not exist, or not any more.';
export const CLIENT_GONE = 'This client does not exist, or not any more.';

export const findSite = (id: number, transaction?: Transaction): Promise<Site | null> =>
  Site.findByPk(id, { transaction });

/** One that is known to exist. @throws Error where it does not */
export const getSite = (id: number, transaction?: Transaction): Promise<Site> =>
  Site.findByPk(id, { transaction, rejectOnEmpty: true });

/** Holds a site until the transaction ends. */
export const findSiteLocked = (id: number, transaction: Transaction): Promise<Site | null> =>
  Site.findByPk(id, { transaction, lock: true });

/** Holds a site that is known to exist until the transaction ends. @throws Error where it does not */
export const lockSite = (id: number, transaction: Transaction): Promise<Site> =>
  Site.findByPk(id, { transaction, lock: true, rejectOnEmpty: true });

/**
 * Holds sites until the transaction ends, so that each reads what the one before has written. Whoever writes fixes or
 * findings first takes this: two who take the same in another order wait for each other.
 */
export async function lockSites(siteIds: readonly number[], transaction: Transaction): Promise<void> {
  await Site.findAll({
    where: { id: [...siteIds] },
    attributes: ['id'],
    order: [['id', 'ASC']],
    lock: true,
    transaction,
  });
}

/** @throws NotFound */
export async function assertSite(id: number, transaction?: Transaction): Promise<void> {
  if (!(await Site.count({ where: { id }, transaction }))) throw new NotFound(SITE_GONE);
}

/** @throws NotFound */
export async function assertClient(id: number): Promise<void> {
  if (!(await Client.count({ where: { id } }))) throw new NotFound(CLIENT_GONE);
}

export const findEnvironment = (id: number, transaction?: Transaction): Promise<Environment | null> =>
  Environment.findByPk(id, { transaction });

/** One that is known to exist. @throws Error where it does not */
export const getEnvironment = (id: number, transaction?: Transaction): Promise<Environment> =>
  Environment.findByPk(id, { transaction, rejectOnEmpty: true });

export const liveEnvironmentOf = (siteId: number): Promise<Environment | null> =>
  Environment.findOne({ where: { siteId, kind: 'live' } });

/** All of a site, those before the live one first. */
export const environmentsOf = (siteId: number): Promise<Environment[]> =>
  Environment.findAll({ where: { siteId }, order: [['position', 'ASC']] });

/** One version of a brief by its number. */
export const findBrief = (id: number): Promise<BriefRow | null> => BriefRow.findByPk(id);

/** One that is known to exist. @throws Error where it does not */
export const getClient = (id: number): Promise<Client> => Client.findByPk(id, { rejectOnEmpty: true });

export const sitesByIds = (ids: readonly number[]): Promise<Site[]> =>
  Site.findAll({ where: { id: [...ids] }, order: [['name', 'ASC']] });

/** All sites by name, without their own settings. */
export const allSites = (): Promise<Pick<Site, 'id' | 'name' | 'clientId' | 'hostProfileId'>[]> =>
  Site.findAll({ attributes: ['id', 'name', 'clientId', 'hostProfileId'], order: [['name', 'ASC']] });

export const clientsByIds = (ids: readonly number[]): Promise<Client[]> =>
  Client.findAll({ where: { id: [...ids] } });

export const environmentsByIds = (ids: readonly number[]): Promise<Environment[]> =>
  Environment.findAll({ where: { id: [...ids] } });

/** An environment, where it is one of this site. */
export const environmentIn = (siteId: number, id: number): Promise<Environment | null> =>
  Environment.findOne({ where: { id, siteId } });

const AUDITED = { lastAuditId: { [Op.ne]: null } };

/** The last environment before the live one that was audited. */
export const lastAuditedBefore = (siteId: number): Promise<Environment | null> =>
  Environment.findOne({ where: { siteId, kind: 'before', ...AUDITED }, order: [['position', 'DESC']] });

/** The live environment, where it was audited. */
export const auditedLive = (siteId: number): Promise<Environment | null> =>
  Environment.findOne({ where: { siteId, kind: 'live', ...AUDITED } });

/** The audited environments of these sites, or of all. */
export async function auditedEnvironments(siteIds?: readonly number[]): Promise<number[]> {
  const rows = await Environment.findAll({
    where: { ...AUDITED, ...(siteIds ? { siteId: [...siteIds] } : {}) },
    attributes: ['id'],
    order: [
      ['siteId', 'ASC'],
      ['position', 'ASC'],
    ],
  });
  return rows.map((r) => r.id);
}

/** Notes which audit is an environment's newest. */
export async function setLastAudit(id: number, auditId: number, transaction: Transaction): Promise<void> {
  await Environment.update({ lastAuditId: auditId }, { where: { id }, transaction });
}

/** The sites that are hosted by a profile, without retired ones. */
export async function sitesHostedBy(hostProfileId: number): Promise<number[]> {
  const sites = await Site.findAll({
    where: { hostProfileId, stage: { [Op.ne]: 'retired' } },
    attributes: ['id'],
  });
  return sites.map((s) => s.id);
}

export const hasSites = async (): Promise<boolean> => (await Site.count()) > 0;

export const allEnvironments = (): Promise<Environment[]> => Environment.findAll();
