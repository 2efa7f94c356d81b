/** The pages of a live site that search engines are meant to list: home, required and sitemap pages, less the brief's hidden ones. */
import { normaliseUrl } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import type { ReadPage, SiteView } from '../site-view';

/** Whether a page is one that must be listed. */
export function mustBeListed(page: ReadPage, brief: Brief, inSitemap: Set<string>): boolean {
  if (brief.hiddenPaths?.length) {
    const path = new URL(page.url).pathname;
    if (brief.hiddenPaths.some(h => path === h || path.startsWith(h.endsWith('/') ? h : `${h}/`))) return false;
  }
  return page.evidence.via === 'home' || page.evidence.via === 'brief' || inSitemap.has(page.url);
}

/** Addresses that the sitemaps name, normalised. */
export function sitemapAddresses(view: SiteView): Set<string> {
  const out = new Set<string>();
  for (const map of view.evidence.sitemaps) {
    if (map.facts?.kind === 'index') continue;
    for (const { loc } of map.facts?.urls ?? []) { const url = normaliseUrl(loc); if (url) out.add(url); }
  }
  return out;
}
