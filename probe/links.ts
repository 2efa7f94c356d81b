/**
 * Linked addresses that are no pages: files of the site, and, where asked for, addresses outside. Asked for
 * their status only.
 */
import { normaliseUrl } from '#core/extract/address';
import { shownFacts } from '#core/extract/shell';
import { finalStatus, type Evidence, type PageEvidence } from '#core/facts/evidence';
import { HAS_EFFECT } from './crawl';
import type { HttpClient } from './http/client';

const OWN = 1000;
const OUTSIDE = 300;

export interface LinkOptions {
  within: (url: string) => boolean;
  own: (host: string) => boolean;
  outside: boolean;
  /** Asked already, on the way to other pages. */ asked: readonly string[];
}

/** @returns linked addresses that are not among the pages and not yet asked, in the order of the pages */
export function linksToAsk(
  pages: readonly PageEvidence[],
  unread: readonly string[],
  { within, own, outside, asked }: LinkOptions,
): { url: string; own: boolean }[] {
  const known = new Set([
    ...pages.flatMap((p) => [p.url, p.requested, ...p.chain.hops.map((h) => h.url)]),
    ...unread,
    ...asked,
  ]);
  const out: { url: string; own: boolean }[] = [];
  let mine = 0,
    others = 0;
  for (const page of pages) {
    for (const anchor of shownFacts(page)?.anchors ?? []) {
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

/**
 * Asks for the head; for the beginning of the whole where a server takes no HEAD or does not know the address
 * by it (RFC 9110 9.3.2: it must, and some do not).
 * Other people's servers are asked a second time only where the first answer would make the link a dead one.
 */
export async function askLinks(
  client: HttpClient,
  links: readonly { url: string; own: boolean }[],
  own: (host: string) => boolean,
): Promise<Evidence['links']> {
  return Promise.all(
    links.map(async (link) => {
      let { chain } = await client.follow(link.url, { own, method: 'HEAD', lean: true });
      const status = finalStatus(chain);
      const again =
        status === undefined
          ? link.own && (chain.error?.code === 'protocol' || chain.error?.code === 'reset')
          : status === 404 || (link.own && (status === 405 || status === 501 || status === 403));
      // only the site's own hosts are asked for more than a head otherwise
      if (again)
        ({ chain } = await client.follow(link.url, {
          own: (host) => own(host) || host === new URL(link.url).hostname,
          lean: true,
          maxBytes: 65_536,
          headers: { range: 'bytes=0-1023' },
        }));
      return { ...link, chain };
    }),
  );
}
