/** The agency’s run sheet, in versions. Version 0 is built in, until somebody saves another. */
import { Op } from 'sequelize';
import type { Version } from '#core/compare/fields';
import type { LaunchTemplate } from '#core/facts/launch';
import { BUILT_IN_TEMPLATE } from '#core/launch/built-in-template';
import { templateFaults } from '#core/launch/template-faults';
import { now } from '#server/platform/clock';
import { inTransaction } from '#server/platform/db/transaction';
import { Refused } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { refuseOverwriting } from '#server/platform/overwriting';
import { VERSIONS_READ, versionsWindow } from '#server/platform/versions';
import { LaunchTemplateRow } from './models';

export interface KeptTemplate {
  version: number;
  template: LaunchTemplate;
  savedBy: string | null;
}

export async function launchTemplate(): Promise<KeptTemplate> {
  const row = await LaunchTemplateRow.findOne({ order: [['version', 'DESC']] });
  return row
    ? { version: row.version, template: row.data, savedBy: row.savedBy }
    : { version: 0, template: BUILT_IN_TEMPLATE, savedBy: null };
}

/** @param from the version that was changed; @throws Refused, Conflict */
export async function saveLaunchTemplate(
  template: LaunchTemplate,
  from: number,
  by: string,
): Promise<{ version: number }> {
  const faults = templateFaults(template);
  if (faults.length) throw new Refused(faults.slice(0, 3).join(' '));
  return inTransaction(async (transaction) => {
    const row = await LaunchTemplateRow.findOne({ order: [['version', 'DESC']], transaction, lock: true });
    const version = row?.version ?? 0;
    refuseOverwriting(
      from,
      { version, savedBy: row?.savedBy, data: row?.data ?? BUILT_IN_TEMPLATE },
      template,
    );
    await LaunchTemplateRow.create(
      { version: version + 1, data: template, savedBy: by, savedAt: now() },
      { transaction },
    );
    announce('LaunchTemplateChanged', {}, { transaction });
    return { version: version + 1 };
  });
}

export async function launchTemplateVersions(
  after?: number,
): Promise<{ rows: Version<LaunchTemplate>[]; next: number | null }> {
  const kept = await LaunchTemplateRow.findAll({
    where: after ? { version: { [Op.lt]: after } } : {},
    order: [['version', 'DESC']],
    limit: VERSIONS_READ,
  });
  return versionsWindow(kept);
}
