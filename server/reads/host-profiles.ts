/** Host profiles with the sites that use them. */
import { QueryTypes } from 'sequelize';
import { allProfiles, newestVersions } from '#server/hosts';
import { database } from '#server/platform/db/connection';
import { NotFound } from '#server/platform/errors';
import { SITES_NAMED } from '#server/platform/windows';

const select = <T extends object>(sql: string, replacements: object): Promise<T[]> =>
  database().query<T>(sql, { type: QueryTypes.SELECT, replacements: { ...replacements } });

/** Newest version of each, with how many sites use it. */
export async function listProfiles() {
  const [profiles, newest, counts] = await Promise.all([
    allProfiles(),
    newestVersions(),
    select<{ id: number; count: number }>(
      'SELECT host_profile_id AS id, COUNT(*) AS count FROM site WHERE host_profile_id IS NOT NULL GROUP BY host_profile_id',
      {},
    ),
  ]);
  const used = new Map(counts.map((s) => [s.id, s.count]));
  return profiles.map(({ id, name }) => {
    const { version, savedBy, createdAt, data } = newest.get(id)!;
    return {
      id,
      name,
      version,
      savedBy,
      savedAt: createdAt.toISOString(),
      sites: used.get(id) ?? 0,
      profile: data,
    };
  });
}

/** @throws NotFound */
export async function profileDetail(id: number) {
  const one = (await listProfiles()).find((p) => p.id === id);
  if (!one) throw new NotFound('This host profile does not exist, or not any more.');
  const some = await select<{ id: number; name: string }>(
    'SELECT id, name FROM site WHERE host_profile_id = :id ORDER BY name LIMIT :most',
    { id, most: SITES_NAMED },
  );
  const { name, version, profile, sites: count } = one;
  return { id, name, version, profile, sites: { count, some } };
}
