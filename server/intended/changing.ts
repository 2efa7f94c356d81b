/** Changing intended texts, and judging the site by them at once. */
import { reevaluateSite } from '#server/audits';
import type { TextDto } from './dto';
import { saveTexts } from './texts';

/** @returns how many were changed; @throws as `saveTexts` */
export async function changeTexts(siteId: number, texts: readonly TextDto[], by: string): Promise<number> {
  const changed = await saveTexts(siteId, texts, by);
  if (changed) await reevaluateSite(siteId, { cause: 'intended texts', by });
  return changed;
}
