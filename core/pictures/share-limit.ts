/** How heavy a share picture may be. */
import { imageWeight } from '#core/checks/catalogue/sharing/image-weight';
import { parametersOf } from '#core/checks/engine/checklist';
import type { Checklist } from '#core/facts/checklist';
import type { HostProfile } from '#core/facts/host-profile';

/** The most bytes, and whose rule that is: the host’s, else that of the checklist that the site is judged by. */
export function shareLimit(
  profile: HostProfile | undefined,
  { items }: Pick<Checklist, 'items'>,
): { bytes: number; of: 'host' | 'checklist' } {
  if (profile?.sharePictureBytes) return { bytes: profile.sharePictureBytes, of: 'host' };
  const item = items.find((i) => i.check === imageWeight.id) ?? { check: imageWeight.id };
  return { bytes: parametersOf(imageWeight, item).bytes!, of: 'checklist' };
}
