/**
 * The pages of a live site that search engines are meant to list: home, required and sitemap pages, less the
 * brief's hidden ones.
 */
import type { Brief } from '#core/facts/brief';
import type { SiteView } from '#core/checks/view/site-view';
import type { ReadPage } from '#core/checks/view/read-page';
import { isAside } from './aside';

/** Whether a crawler that a directive names matters: everyone, and those that the brief names. */
export function isHeeded(agent: string, brief: Brief): boolean {
  return agent === '*' || Boolean(brief.crawlers?.some((c) => c.toLowerCase() === agent));
}

/** Whether a page is one that must be listed. */
export function mustBeListed(page: ReadPage, brief: Brief, inSitemap: ReadonlySet<string>): boolean {
  if (isHidden(page, brief)) return false;
  return page.evidence.via === 'home' || page.evidence.via === 'brief' || inSitemap.has(page.url);
}

/** Whether the brief wants a page kept out of listings. */
export function isHidden(page: ReadPage, brief: Brief): boolean {
  return Boolean(brief.hiddenPaths?.some((h) => isBelow(page.path, h)));
}

/** Whether a path is another one, with or without its last slash, or lies below it. */
export function isBelow(path: string, top: string): boolean {
  const bare = top.endsWith('/') ? top.slice(0, -1) : top;
  return path === bare || path.startsWith(`${bare}/`);
}

/** Whether the brief or a page's kind says why it is kept out: a search, a cart, thanks, an archive. */
export function isExplained(page: ReadPage, brief: Brief): boolean {
  return isAside(page.url) || isHidden(page, brief);
}

/** The check that a page's noindex is charged to; undefined where it is meant. */
export function noIndexCharge(
  page: ReadPage,
  brief: Brief,
  inSitemap: ReadonlySet<string>,
): string | undefined {
  if (mustBeListed(page, brief, inSitemap)) return 'indexing.let-in';
  return isExplained(page, brief) ? undefined : 'indexing.unexpected-noindex';
}

/** Pages that a sitemap is to name: those that may be listed, and those whose noindex is a mistake. */
export function listable(view: SiteView, brief: Brief): ReadPage[] {
  const { inSitemap } = view;
  return view.pages.filter((p) => {
    const isItself = !p.canonical || p.canonical === p.url;
    if (!isItself || isExplained(p, brief)) return false;
    return !p.keptOut || noIndexCharge(p, brief, inSitemap) !== undefined;
  });
}
