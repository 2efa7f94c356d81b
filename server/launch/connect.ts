/** The part of launches in what happens elsewhere. */
import { subscribe } from '#server/platform/domain-events';
import { reasonsNotToLaunch } from '#server/sites';
import { Launch, LaunchStep } from './models';

export function connectLaunches(): void {
  reasonsNotToLaunch.answer(async (siteId, transaction) => {
    const launch = await Launch.findOne({ where: { openKey: siteId }, transaction });
    return launch && !launch.wentAt
      ? 'Its launch is under way, and nobody has said go yet: see the run sheet under Launch.'
      : undefined;
  });
  subscribe('ContactLeft', async ({ contactId }, transaction) => {
    await LaunchStep.update({ contactId: null }, { where: { contactId }, transaction });
  });
  subscribe('ContactMerged', async ({ contactId, into }, transaction) => {
    await LaunchStep.update({ contactId: into }, { where: { contactId }, transaction });
  });
}
