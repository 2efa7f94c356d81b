/** Connects checklists to events, hooks and questions of other subjects. */
import { subscribe } from '#server/platform/domain-events';
import { endAssignments } from './assignments';

export function connectChecklists(): void {
  subscribe('SitesDeleted', async ({ siteIds }, transaction) => {
    for (const id of siteIds) await endAssignments('site', id, transaction);
  });
  subscribe('ClientDeleted', ({ clientId }, transaction) => endAssignments('client', clientId, transaction));
  subscribe('ClientMerged', ({ clientId, into }, transaction) =>
    endAssignments('client', clientId, transaction, into),
  );
  subscribe('HostProfileDeleted', ({ hostProfileId }, transaction) =>
    endAssignments('host', hostProfileId, transaction),
  );
}
