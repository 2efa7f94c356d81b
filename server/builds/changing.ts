/** Taking and dropping builds, and judging the site by them at once. */
import { reevaluateSite } from '#server/audits';
import { deleteBuild, saveBuild, type BuildLine } from './builds';

/** @throws as `takeBuild` */
export async function changeBuild(siteId: number, name: string, zip: Buffer, by: string): Promise<BuildLine> {
  const line = await saveBuild(siteId, name, zip, by);
  await reevaluateSite(siteId, { cause: 'build', by });
  return line;
}

export async function forgetBuild(siteId: number, by: string): Promise<void> {
  await deleteBuild(siteId);
  await reevaluateSite(siteId, { cause: 'build', by });
}
