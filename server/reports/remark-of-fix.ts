/** What a client said, for the fix that came of it. */
import { contactsByIds } from '#server/sites';
import type { RemarkRegion } from './dto';
import { Remark } from './models';

export interface RemarkOfFix {
  id: number;
  by: string;
  at: string;
  text: string;
  page: string | null;
  screen: 'desktop' | 'phone' | null;
  region: RemarkRegion | null;
}

export async function remarkOfFix(fixId: number): Promise<RemarkOfFix | null> {
  const row = await Remark.findOne({ where: { fixId } });
  const [contact] = row ? await contactsByIds([row.contactId]) : [];
  if (!row) return null;
  const { id, text, page, screen, region } = row;
  return { id, by: contact?.name ?? '', at: row.at.toISOString(), text, page, screen, region };
}
