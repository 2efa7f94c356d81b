import { decodeSafely } from '#core/extract/address';
import { foldLoosely } from '#core/text/fold';

/** Titles that page makers leave behind. Common practice, from memory; the host profile adds its own. */
const DEFAULT_TITLES = [
  'home',
  'homepage',
  'home page',
  'untitled',
  'untitled document',
  'untitled page',
  'new page',
  'my site',
  'my website',
  'website',
  'site title',
  'your site title',
  'page title',
  'document',
  'index',
  'welcome',
  'sample page',
  'test',
  'blank page',
];

/** The default titles, folded as titles are compared. */
export const FOLDED_DEFAULTS: readonly string[] = DEFAULT_TITLES.map(foldLoosely);

/** A word for a page from its address, to start a title with. */
export function pageWord(url: string): string {
  const last = new URL(url).pathname.split('/').filter(Boolean).pop() ?? 'Home';
  const word = decodeSafely(last)
    .replace(/\.\w{2,5}$/, '')
    .replace(/[-_+]+/g, ' ')
    .trim();
  return word ? word[0]!.toUpperCase() + word.slice(1) : 'Home';
}
