/** What a table of pages is narrowed down by. */
import type { PageLine } from './page-line';

export interface PageFacet {
  key: string;
  label: string;
  /** What it means, in a sentence. */
  hint: string;
  of: (page: PageLine) => boolean;
}

const isPage = (p: PageLine): boolean => p.status !== null && p.status >= 200 && p.status < 300;

/** In the order in which they cost most. */
const PAGE_FACETS: readonly PageFacet[] = [
  {
    key: 'faults',
    label: 'with faults',
    hint: 'A check fails on this page.',
    of: (p) => p.faults > 0,
  },
  {
    key: 'missing',
    label: 'text missing',
    hint: 'No title, or no description.',
    of: (p) => isPage(p) && (p.title.fit === 'missing' || p.description.fit === 'missing'),
  },
  {
    key: 'long',
    label: 'too long',
    hint: 'A listing would cut the title or the description.',
    of: (p) => p.title.fit === 'long' || p.description.fit === 'long',
  },
  {
    key: 'short',
    label: 'too short',
    hint: 'Title or description say less than there is room for.',
    of: (p) => p.title.fit === 'short' || p.description.fit === 'short',
  },
  {
    key: 'duplicate',
    label: 'duplicate',
    hint: 'Another page has the same title or description.',
    of: (p) => Boolean(p.title.shared ?? p.description.shared),
  },
  {
    key: 'inherited',
    label: 'inherited',
    hint: 'The site’s or the host’s default shows through.',
    of: (p) => Boolean(p.title.from ?? p.description.from),
  },
  {
    key: 'not-in-sitemap',
    label: 'not in sitemap',
    hint: 'It may be listed, and no sitemap names it.',
    of: (p) => isPage(p) && !p.keptOut && !p.inSitemap,
  },
  {
    key: 'kept-out',
    label: 'kept out',
    hint: 'A search engine does not list it.',
    of: (p) => isPage(p) && p.keptOut !== undefined,
  },
  {
    key: 'orphan',
    label: 'orphan',
    hint: 'No page links to it, among those that were read.',
    of: (p) => isPage(p) && Boolean(p.orphan),
  },
  {
    key: 'redirected',
    label: 'redirected',
    hint: 'Asked for under another address.',
    of: (p) => p.asked !== undefined,
  },
  {
    key: 'broken-link',
    label: 'broken link on it',
    hint: 'A link on it leads to nothing.',
    of: (p) => p.broken > 0,
  },
  {
    key: 'no-page',
    label: 'no page',
    hint: 'It answers with an error, or not at all.',
    of: (p) => !isPage(p),
  },
];

export const pageFacet = (key: string): PageFacet | undefined => PAGE_FACETS.find((f) => f.key === key);

/** How many pages each facet has; those with none are left out. */
export function facetCounts(
  pages: readonly PageLine[],
): { key: string; label: string; hint: string; count: number }[] {
  return PAGE_FACETS.map(({ key, label, hint, of }) => ({
    key,
    label,
    hint,
    count: pages.filter(of).length,
  })).filter((f) => f.count > 0);
}
