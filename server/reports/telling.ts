/** What a client does is told to whoever looks after the site. */
import { keepersOf, tell } from '../people/notifications';
import type { Site } from '../sites/models';

/** The site’s owner, else the owners of the account. */
export async function tellKeepers(site: Site, text: string, environmentId: number): Promise<void> {
  await tell(await keepersOf(site), text, `/sites/${site.id}?environment=${environmentId}&tab=report`);
}
