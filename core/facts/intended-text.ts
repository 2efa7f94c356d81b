/** The title and description that the agency wants a page to have. */
import { insideBase } from '#core/extract/address';

export interface IntendedText {
  /** The page, by its path below the environment’s address: the same before and after the launch. */
  path: string;
  /** Undefined where only the other is written. */
  title?: string;
  description?: string;
  /** When an audit saw that the page has it; undefined until then. ISO 8601. */
  seenAt?: string;
}

/** The most characters of each. */
export const TEXT_LIMITS = { path: 700, title: 500, description: 1000 } as const;

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
