/** Connects launches to events, hooks and questions of other subjects. */
import { subscribe, subscribeLater } from '#server/platform/domain-events';
import { reasonsNotToLaunch } from '#server/sites';
import { settle } from './launches';
import { Launch, LaunchStep } from './models';

export function connectLaunches(): void {
  reasonsNotToLaunch.answer(async (siteId, transaction) => {
    const launch = await Launch.findOne({ where: { openKey: siteId }, transaction });
    return launch && !launch.wentAt
      ? 'Its launch is under way, and nobody has said go yet: see the run sheet under Launch.'
      : undefined;
  });
  // what evidence, brief, accounts or a yes have proven or refuted since
  subscribeLater('launch', ['SitesChanged', 'SiteTouched', 'LaunchChanged'], async (data, transaction) => {
    for (const siteId of 'siteIds' in data ? data.siteIds : [data.siteId]) await settle(siteId, transaction);
  });
  subscribe('ContactLeft', async ({ contactId }, transaction) => {
    await LaunchStep.update({ contactId: null }, { where: { contactId }, transaction });
  });
  subscribe('ContactMerged', async ({ contactId, into }, transaction) => {
    await LaunchStep.update({ contactId: into }, { where: { contactId }, transaction });
  });
}
