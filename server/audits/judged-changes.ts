/** Changes of what evidence is judged by: stored first, then the stored evidence is re-evaluated. */
import type { SiteChangeDto } from '#core/entry/site';
import type { Brief } from '#core/facts/brief';
import type { HostProfile } from '#core/facts/host-profile';
import { checklistFor } from '#server/checklists';
import { saveProfile } from '#server/hosts';
import { assertSite, getSite, saveBrief, saveSite, sitesHostedBy } from '#server/sites';
import { reevaluateSite } from './reevaluate';
import { reevaluateHosted } from './reevaluation-jobs';

/** Saves the next version of a brief and judges the stored evidence by it. @throws NotFound, Conflict */
export async function changeBrief(
  siteId: number,
  change: Partial<Brief>,
  by: string,
  from?: number,
): Promise<number> {
  await assertSite(siteId);
  const { version } = await saveBrief(siteId, change, by, from);
  await reevaluateSite(siteId, { cause: 'brief', by });
  return version;
}

/**
 * Changes what is kept of a site; where checks read it, the stored evidence is judged by it.
 * @param from the version that the change was made on, where that matters
 * @returns the version that it made
 * @throws NotFound, Conflict when the client has another site of that name or somebody saved since, Refused
 */
export async function changeSite(
  id: number,
  change: SiteChangeDto,
  by: string,
  from?: number,
): Promise<number> {
  const { judged, version } = await saveSite(id, change, by, from);
  if (!judged.length) return version;
  // another client or host may have another checklist
  const { id: checklistVersionId } = await checklistFor(await getSite(id));
  const cause = judged.includes('hostProfileId') ? 'host profile' : 'stage';
  await reevaluateSite(id, { cause, by }, checklistVersionId);
  return version;
}

/** Saves the next version of a host profile and re-evaluates its sites. @returns the job that does so */
export async function changeProfile(
  id: number,
  profile: HostProfile,
  by: string,
  from: number,
): Promise<{ version: number; job: number | null }> {
  const version = await saveProfile(id, profile, by, from);
  return { version, job: await reevaluateHosted(await sitesHostedBy(id), profile.name, by) };
}
