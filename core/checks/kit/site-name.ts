/** Whether a text names the site. */
import { foldLoosely } from '#core/text/fold';

/** Case, accents and white space do not matter. */
export const namesSite = (text: string, name: string): boolean =>
  foldLoosely(text).includes(foldLoosely(name));
