/** Linked addresses that are no pages: files of the site, and, where asked for, addresses outside. Asked for their status only. */
import { normaliseUrl } from '#core/extract/address';
import { finalStatus, type Evidence, type PageEvidence } from '#core/facts/evidence';
import { HAS_EFFECT } from './crawl';
import type { HttpClient } from './http/client';

const OWN = 1000;
const OUTSIDE = 300;

export interface LinkOptions { within: (url: string) => boolean; own: (host: string) => boolean; outside: boolean }

/** @returns linked addresses that are not among the pages and not yet asked, in the order of the pages */
export function linksToAsk(pages: readonly PageEvidence[], unread: readonly string[], { within, own, outside }: LinkOptions): { url: string; own: boolean }[] {
  const known = new Set([...pages.flatMap(p => [p.url, p.requested, ...p.chain.hops.map(h => h.url)]), ...unread]);
  const out: { url: string; own: boolean }[] = [];
  let mine = 0, others = 0;
  for (const page of pages) {
    for (const anchor of page.facts?.anchors ?? []) {
      const url = normaliseUrl(anchor.href);
      if (!url || known.has(url)) continue;
      known.add(url);
      const u = new URL(url);
      if (own(u.hostname)) {
        if (!within(url) || HAS_EFFECT.test(u.pathname + u.search) || ++mine > OWN) continue;
        out.push({ url, own: true });
      } else if (outside && ++others <= OUTSIDE) out.push({ url, own: false });
    }
  }
  return out;
}

/** Asks for the head; for the whole where the site's own server takes no HEAD (RFC 9110 9.3.2: it must, and some do not). */
export async function askLinks(client: HttpClient, links: readonly { url: string; own: boolean }[], own: (host: string) => boolean): Promise<Evidence['links']> {
  return Promise.all(links.map(async (link) => {
    let { chain } = await client.follow(link.url, { own, method: 'HEAD' });
    const status = finalStatus(chain);
    if (link.own && (status === undefined ? chain.error?.code === 'protocol' || chain.error?.code === 'reset' : status === 405 || status === 501 || status === 403 || status === 404)) ({ chain } = await client.follow(link.url, { own, headers: { range: 'bytes=0-1023' } }));
    return { ...link, chain };
  }));
}
