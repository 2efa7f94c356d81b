/** Connects audits to events, hooks and questions of other subjects. */
import { reasonsToKeepChecklist } from '#server/checklists';
import { subscribe } from '#server/platform/domain-events';
import { reasonsToKeepEnvironment, whyBusy } from '#server/sites';
import { reasonsToKeepAudits } from './audits';
import { isAuditing } from './find';
import { auditAfterLaunch } from './launch-audit';
import { Audit } from './models';

export function connectAudits(): void {
  whyBusy.answer(async (environmentId) =>
    (await isAuditing(environmentId))
      ? 'This environment is being audited. Wait for it or stop it.'
      : undefined,
  );
  reasonsToKeepEnvironment.answer(async (environmentId) => {
    const audits = await Audit.findAll({ where: { environmentId }, attributes: ['id'] });
    const [why] = await reasonsToKeepAudits.ask(audits.map((a) => a.id));
    return why;
  });
  reasonsToKeepChecklist.answer(async (checklistVersionId, transaction) =>
    (await Audit.count({ where: { checklistVersionId: [...checklistVersionId] }, transaction }))
      ? 'Audits were made by this checklist, and their history needs it. Assign its sites elsewhere instead.'
      : undefined,
  );
  subscribe('SiteLaunched', ({ siteId, name, by }, transaction) =>
    auditAfterLaunch({ id: siteId, name }, by, transaction),
  );
}
