/** Whether a text fits where a listing shows it. */
import { isEastAsian, lineFit, type LineLimits } from '#core/text/width';
import type { LineText, TextFit } from './page-line';

/** What a listing holds of a text, at which size of type. */
export interface TextRoom extends LineLimits {
  /** CSS pixels. */
  size: number;
}
/** How a text stands in the room that there is. */
export function textFit(
  text: string | undefined,
  room: TextRoom,
): Pick<LineText, 'text' | 'count' | 'px' | 'fit'> {
  if (!text) return { text: '', count: 0, px: 0, fit: 'missing' };
  const { count, px, fits } = lineFit(text, room.size, room);
  const isShort = !isEastAsian(text) && count < room.least;
  const fit: TextFit = fits ? 'fits' : isShort ? 'short' : 'long';
  return { text, count, px, fit };
}
