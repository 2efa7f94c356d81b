/** What belongs to a site or a client and goes with it: said beforehand, deleted together. */
import { Op, QueryTypes, type Transaction } from 'sequelize';
import { Audit } from '../audits/models';
import { AssignmentRow } from '../checklists/models';
import { NotificationRow } from '../people/models';
import { database } from '../platform/db/connection';
import { inTransaction } from '../platform/db/transaction';
import { Conflict, NotFound } from '../platform/errors';
import { Client, Environment, Site } from './models';

/** How many of each thing go with what is deleted. */
export interface Contents {
  sites: number;
  environments: number;
  audits: number;
  fixes: number;
  attestations: number;
  files: number;
}

const TABLES = { audits: 'audit', fixes: 'fix', attestations: 'attestation', files: 'attachment' } as const;

async function contentsOf(siteIds: readonly number[]): Promise<Contents> {
  const environments = await Environment.findAll({ where: { siteId: [...siteIds] }, attributes: ['id'] });
  const ids = environments.map((e) => e.id);
  const count = async (table: string): Promise<number> => {
    if (!ids.length) return 0;
    const [row] = await database().query<{ n: number }>(
      `SELECT COUNT(*) AS n FROM ${table} WHERE environment_id IN (:ids)`,
      { type: QueryTypes.SELECT, replacements: { ids } },
    );
    return Number(row!.n);
  };
  const [audits, fixes, attestations, files] = await Promise.all(
    [TABLES.audits, TABLES.fixes, TABLES.attestations, TABLES.files].map(count),
  );
  return {
    sites: siteIds.length,
    environments: ids.length,
    audits: audits!,
    fixes: fixes!,
    attestations: attestations!,
    files: files!,
  };
}

const NO_SITE = 'This site does not exist, or not any more.';
const NO_CLIENT = 'This client does not exist, or not any more.';

/** @throws NotFound */
export async function siteContents(id: number): Promise<Contents> {
  if (!(await Site.count({ where: { id } }))) throw new NotFound(NO_SITE);
  return contentsOf([id]);
}

const sitesOf = async (clientId: number, transaction?: Transaction): Promise<Site[]> =>
  Site.findAll({ where: { clientId }, ...(transaction ? { transaction, lock: true } : {}) });

/** @throws NotFound */
export async function clientContents(id: number): Promise<Contents> {
  if (!(await Client.count({ where: { id } }))) throw new NotFound(NO_CLIENT);
  return contentsOf((await sitesOf(id)).map((s) => s.id));
}

/** Deletes sites with all that belongs to them, and what names them elsewhere. */
async function destroySites(sites: readonly Site[], transaction: Transaction): Promise<void> {
  const ids = sites.map((s) => s.id);
  const environments = await Environment.findAll({ where: { siteId: ids }, attributes: ['id'], transaction });
  const running = await Audit.count({
    where: { runningKey: environments.map((e) => e.id) },
    transaction,
  });
  if (running) throw new Conflict('An audit of it is running. Wait for it or stop it.');
  for (const id of ids) {
    await AssignmentRow.destroy({ where: { kind: 'site', target: String(id) }, transaction });
    await NotificationRow.destroy({ where: { link: { [Op.like]: `/sites/${id}?%` } }, transaction });
  }
  await Site.destroy({ where: { id: ids }, transaction });
}

/** Deletes a site with all that belongs to it. @throws NotFound, Conflict while it is being audited */
export function deleteSite(id: number): Promise<void> {
  return inTransaction(async (transaction) => {
    const site = await Site.findByPk(id, { transaction, lock: true });
    if (!site) throw new NotFound(NO_SITE);
    await destroySites([site], transaction);
  });
}

/** Deletes a client with its sites. @throws NotFound, Conflict while one of them is being audited */
export function deleteClient(id: number): Promise<void> {
  return inTransaction(async (transaction) => {
    const client = await Client.findByPk(id, { transaction, lock: true });
    if (!client) throw new NotFound(NO_CLIENT);
    const sites = await sitesOf(id, transaction);
    if (sites.length) await destroySites(sites, transaction);
    await AssignmentRow.destroy({ where: { kind: 'client', target: String(id) }, transaction });
    await client.destroy({ transaction });
  });
}
