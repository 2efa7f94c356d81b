/** What a client does is told to whoever looks after the site. */
import { siteOwners, notify } from '#server/people';
import type { Site } from '#server/sites';

/** The site’s owner, else the owners of the account. */
export async function notifyOwners(site: Site, text: string, environmentId: number): Promise<void> {
  await notify(await siteOwners(site), text, `/sites/${site.id}?environment=${environmentId}&tab=report`);
}
