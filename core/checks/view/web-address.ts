/**
 * Addresses and hosts of what pages link to and load. The pages of a site name the same few, so each is read
 * once.
 */
import { hostOf, normaliseUrl } from '#core/extract/address';
import { memoize } from '#core/remembering';

export interface WebAddress {
  url: string;
  host: string;
}

/** The normalised form and the host of an http(s) address; null for anything else. */
export const webAddress = memoize((href: string): WebAddress | null => {
  const url = normaliseUrl(href);
  return url === undefined ? null : { url, host: hostOf(url)! };
}, 20_000);
