/** Reading host profiles. */
import type { Transaction } from 'sequelize';
import type { HostProfile } from '#core/facts/host-profile';
import { Refused } from '#server/platform/errors';
import { HostProfileRow, HostProfileVersion } from './models';

/** The newest version of a profile; undefined for a site without one. */
export async function newestProfile(
  id: number | null,
): Promise<{ version: number; profile: HostProfile } | undefined> {
  if (id === null) return undefined;
  const row = await HostProfileVersion.findOne({
    where: { hostProfileId: id },
    order: [['version', 'DESC']],
  });
  return row ? { version: row.version, profile: row.data } : undefined;
}

/** The number of the profile of that name. @throws Refused when there is none */
export async function profileIdOf(name: string, transaction?: Transaction): Promise<number> {
  const row = await HostProfileRow.findOne({ where: { name }, transaction });
  if (!row) throw new Refused(`There is no host profile named ${name}.`);
  return row.id;
}

export const profilesByIds = (ids: readonly number[]): Promise<HostProfileRow[]> =>
  HostProfileRow.findAll({ where: { id: [...ids] } });

/** All by name. */
export const allProfiles = (): Promise<HostProfileRow[]> =>
  HostProfileRow.findAll({ order: [['name', 'ASC']] });
