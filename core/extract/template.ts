/** Pages made from one template: told by the pattern of their addresses and by how they are built. Common practice. */
import type { PageFacts } from './html';

const NUMBERS = /\d+/g;

/**
 * The pattern of an address: its folders as they are, the last segment for any (with its ending), the names of its query
 * without their values. `/shop/blue-mug.html?size=2` and `/shop/tin-42.html?size=1` have the same one. Top-level pages
 * are told apart, unless a number tells them apart.
 */
export function addressPattern(address: string): string {
  const url = new URL(address);
  const segments = url.pathname.split('/').filter(Boolean);
  const last = segments.pop() ?? '';
  const ending = /\.[a-z0-9]{1,5}$/i.exec(last)?.[0] ?? '';
  const name = segments.length ? '*' : last.slice(0, last.length - ending.length).replace(NUMBERS, '#');
  const folders = segments.map((s) => s.replace(NUMBERS, '#'));
  const query = [...new Set(url.searchParams.keys())].sort().join('&');
  return `${url.host}/${[...folders, name].join('/')}${ending}${query && `?${query}`}`;
}

/** How a page is built, as a short text: the levels of its headings, and which other parts it has. */
export const structureOf = ({ headings, forms, images, jsonLd }: PageFacts): string =>
  [
    headings
      .map((h) => h.level)
      .filter((level, i, all) => level !== all[i - 1])
      .slice(0, 20)
      .join(''),
    forms.length ? 'form' : '',
    images.length ? 'picture' : '',
    jsonLd.length ? 'data' : '',
  ].join(' ');
