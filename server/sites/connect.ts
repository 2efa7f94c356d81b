/** Connects sites to events, hooks and questions of other subjects. */
import { usesOfProfile } from '#server/hosts';
import { subscribe } from '#server/platform/domain-events';
import { Site } from './models';
import { namesChanged } from './names';

export function connectSites(): void {
  usesOfProfile.answer((hostProfileId, transaction) => Site.count({ where: { hostProfileId }, transaction }));
  subscribe('HostProfileRenamed', namesChanged);
}
