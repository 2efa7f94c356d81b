/** What a check looked at, as people call it. */
import type { Scope } from '#core/facts/finding';
import { inNumber, quantity, share } from './quantity';

/** What one place is called, scope by scope. */
export const SCOPE_WORDS = {
  site: 'place',
  page: 'page',
  host: 'host',
  record: 'record',
  domain: 'domain',
  token: 'token',
  image: 'picture',
  path: 'path',
  asset: 'file',
  link: 'link',
  line: 'line',
  file: 'file',
  font: 'font',
  form: 'form',
  hand: 'place',
} as const satisfies Record<Scope, string>;

/** The word people count by; none for what is of the site as a whole. */
const nounOf = (scope: string): string | undefined =>
  scope === 'site' || scope === 'hand' ? undefined : (SCOPE_WORDS as Record<string, string>)[scope];

/** "11 of 12 pages" that fail, "12 pages" that were looked at; empty for what is of the site as a whole. */
export function placesText(scope: string, failing: number, all: number): string {
  const noun = nounOf(scope);
  if (!noun || !all) return '';
  return failing ? share(failing, all, noun) : quantity(all, noun);
}

/** "Pages" as the heading of a list of them; "Looked at" where they have no name of their own. */
export function placesTitle(scope: string, all: number): string {
  const noun = nounOf(scope);
  if (!noun) return 'Looked at';
  const word = inNumber(all, noun);
  return word.charAt(0).toUpperCase() + word.slice(1);
}
