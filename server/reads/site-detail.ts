import { NotFound } from '#server/platform/errors';
import { accessName, environmentsOf, newestBrief, SITE_GONE } from '#server/sites';
import { siteWithEnvironments } from './roster';

/** Everything the site's head and brief need. @throws NotFound */
export async function siteDetail(id: number) {
  const row = await siteWithEnvironments(id);
  if (!row) throw new NotFound(SITE_GONE);
  const brief = await newestBrief(id);
  const ways = new Map(
    (await environmentsOf(id)).map((e) => [
      e.id,
      {
        access: e.access,
        accessName: accessName(e),
        setUpOn: e.setUpOn ?? null,
        changedOn: e.changedOn ?? null,
        endsOn: e.endsOn ?? null,
      },
    ]),
  );
  return {
    ...row,
    environments: row.environments.map((p) => ({ ...p, ...ways.get(p.id) })),
    brief: brief
      ? {
          version: brief.version,
          data: brief.brief,
          savedBy: brief.savedBy,
          savedAt: brief.savedAt.toISOString(),
        }
      : null,
  };
}
