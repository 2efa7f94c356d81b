/** Connects people to events, hooks and questions of other subjects. */
import { Op } from 'sequelize';
import { subscribe } from '#server/platform/domain-events';
import { NotificationRow } from './models';

export function connectPeople(): void {
  subscribe('SitesDeleted', async ({ siteIds }, transaction) => {
    for (const id of siteIds)
      await NotificationRow.destroy({ where: { link: { [Op.like]: `/sites/${id}?%` } }, transaction });
  });
}
