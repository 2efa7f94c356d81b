/** The title and description that the agency wants a page to have. */
import { insideBase } from '#core/extract/address';
import { foldSpace } from '#core/text/fold';

export interface IntendedText {
  /** The page, by its path below the environment’s address: the same before and after the launch. */
  path: string;
  /** Undefined where only the other is written. */
  title?: string;
  description?: string;
  /** When an audit saw that the page has it; undefined until then. ISO 8601. */
  seenAt?: string;
}

/** Pages of a site that can have texts, and those that one request may change. */
export const MOST_TEXTS = 5000;
export const TEXTS_AT_ONCE = 1000;

/** The most characters of each. */
export const TEXT_LIMITS = { path: 700, title: 500, description: 1000 } as const;

/** How what a page shows stands to what it should. */
export type IntendedState = 'live' | 'not yet' | 'changed since';

/** Texts that are written and differ; nothing where the page has them all. @param live with folded white space */
export const differing = (
  wanted: IntendedText,
  live: Record<'title' | 'description', string>,
): ('title' | 'description')[] =>
  (['title', 'description'] as const).filter(
    (field) => wanted[field] !== undefined && foldSpace(wanted[field]) !== live[field],
  );

export function intendedState(
  wanted: IntendedText,
  live: Record<'title' | 'description', string>,
): IntendedState {
  if (!differing(wanted, live).length) return 'live';
  return wanted.seenAt ? 'changed since' : 'not yet';
}

/**
 * The path by which a page is known in all environments of its site.
 * @param base the environment’s address, which may have a path
 * @returns undefined for a page outside it
 */
export function pagePath(url: string, base: string): string | undefined {
  const page = new URL(url);
  const { pathname } = new URL(base);
  const below = pathname.replace(/[^/]*$/, '');
  if (!insideBase(`${new URL(base).origin}${page.pathname}`, base)) return undefined;
  return `/${page.pathname.slice(below.length)}${page.search}`;
}
