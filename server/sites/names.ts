import type { Transaction } from 'sequelize';
import { emit } from '#server/platform/domain-events';
import { Site } from './models';

/** A client or host profile has another name: lists find its sites by it, and whoever has one open sees it. */
export async function namesChanged(
  where: { clientId: number } | { hostProfileId: number },
  transaction: Transaction,
): Promise<void> {
  await Site.increment('version', { where, transaction });
  const sites = await Site.findAll({ where, attributes: ['id'], transaction });
  await emit('SitesChanged', { siteIds: sites.map((s) => s.id) }, transaction);
}
