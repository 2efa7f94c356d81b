/** What belongs to a site or a client and goes with it: said beforehand, deleted together. */
import { Op, type Transaction } from 'sequelize';
import { Audit } from '../audits/models';
import { AssignmentRow, AttestationRow } from '../checklists/models';
import { Fix } from '../fixes/models';
import { Launch } from '../launch/models';
import { NotificationRow } from '../people/models';
import { inTransaction } from '../platform/db/transaction';
import { announce } from '../platform/events';
import { Conflict, NotFound } from '../platform/errors';
import { Client, Environment, Site } from './models';
import { endStanding } from './standing';
import { FileRow } from '../platform/files/files';
import { ApprovalRow, ReportEdition } from '../reports/models';

/** How many of each thing go with what is deleted. */
export interface Contents {
  sites: number;
  environments: number;
  audits: number;
  fixes: number;
  attestations: number;
  files: number;
  /** Reports that clients were shown, and yeses that they gave. */
  reports: number;
  yeses: number;
  /** Launches with their run sheets and logs. */
  launches: number;
}

async function contentsOf(siteIds: readonly number[]): Promise<Contents> {
  const environments = await Environment.findAll({ where: { siteId: [...siteIds] }, attributes: ['id'] });
  const where = { environmentId: environments.map((e) => e.id) };
  const ofSites = { siteId: [...siteIds] };
  const [audits, fixes, attestations, files, reports, yeses, launches] = await Promise.all([
    Audit.count({ where }),
    Fix.count({ where }),
    AttestationRow.count({ where }),
    FileRow.count({ where }),
    ReportEdition.count({ where: ofSites }),
    ApprovalRow.count({ where: ofSites }),
    Launch.count({ where: ofSites }),
  ]);
  return {
    sites: siteIds.length,
    environments: environments.length,
    audits,
    fixes,
    attestations,
    files,
    reports,
    yeses,
    launches,
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
  await endStanding(ids, transaction);
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
    announce([['clients'], ['checklists']], { transaction });
  });
}
