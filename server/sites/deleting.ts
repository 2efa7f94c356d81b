/** Deleting sites and clients, with all that belongs to them. */
import type { Transaction } from 'sequelize';
import { inTransaction } from '#server/platform/db/transaction';
import { emit } from '#server/platform/domain-events';
import { Conflict, NotFound } from '#server/platform/errors';
import { whyBusy } from './environments';
import { CLIENT_GONE, SITE_GONE } from './find';
import { Client, Environment, Site } from './models';

/** Deletes sites with all that belongs to them, and what names them elsewhere. */
async function destroySites(sites: readonly Site[], transaction: Transaction): Promise<void> {
  const ids = sites.map((s) => s.id);
  const environments = await Environment.findAll({ where: { siteId: ids }, attributes: ['id'], transaction });
  for (const e of environments) {
    const [why] = await whyBusy.ask(e.id);
    if (why) throw new Conflict('An audit of it is running. Wait for it or stop it.');
  }
  await emit('SitesDeleted', { siteIds: ids }, transaction);
  await Site.destroy({ where: { id: ids }, transaction });
}

/** Deletes a site with all that belongs to it. @throws NotFound, Conflict while it is being audited */
export function deleteSite(id: number): Promise<void> {
  return inTransaction(async (transaction) => {
    const site = await Site.findByPk(id, { transaction, lock: true });
    if (!site) throw new NotFound(SITE_GONE);
    await destroySites([site], transaction);
  });
}

/** Deletes a client with its sites. @throws NotFound, Conflict while one of them is being audited */
export function deleteClient(id: number): Promise<void> {
  return inTransaction(async (transaction) => {
    const client = await Client.findByPk(id, { transaction, lock: true });
    if (!client) throw new NotFound(CLIENT_GONE);
    const sites = await Site.findAll({ where: { clientId: id }, transaction, lock: true });
    if (sites.length) await destroySites(sites, transaction);
    await emit('ClientDeleted', { clientId: id }, transaction);
    await client.destroy({ transaction });
  });
}
