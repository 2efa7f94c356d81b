/**
 * Evidence made from a HAR file that was recorded elsewhere: behind a firewall, with a browser, by somebody
 * else.
 */
import { normaliseUrl, registrableDomain } from '#core/extract/address';
import { extractPage } from '#core/extract/html';
import { readCss } from '#core/extract/css';
import { parseRobots } from '#core/extract/robots';
import { parseSitemap } from '#core/extract/sitemap';
import {
  EVIDENCE_VERSION,
  finalStatus,
  headerValues,
  lastAnswer,
  type AssetEvidence,
  type Chain,
  type DnsAnswer,
  type Evidence,
  type HostEvidence,
  type PageEvidence,
} from '#core/facts/evidence';
import type { EnvironmentKind } from '#core/facts/situation';
import { fromHar, type ArchivedChain } from './har';

export interface FromHar {
  url: string;
  kind: EnvironmentKind;
  hosts: string[];
  at: string;
  answers?: DnsAnswer[];
}

const NOT_RECORDED = { code: 'stopped', message: 'not recorded in the HAR file' } as const;
/** A page whose body was not kept cannot be judged. */
const NO_BODY = { code: 'stopped', message: 'the HAR file has no body of this page' } as const;
const silent = (start: string): Chain => ({ start, hops: [], end: 'error', error: NOT_RECORDED });

function textOf({ body }: ArchivedChain): string | undefined {
  if (!body) return undefined;
  if (!body.base64) return body.text;
  try {
    return new TextDecoder().decode(Uint8Array.from(atob(body.text), (c) => c.charCodeAt(0)));
  } catch {
    return undefined;
  }
}

const typeOf = (chain: Chain): string | undefined => headerValues(lastAnswer(chain), 'content-type')[0];

/**
 * Puts archived requests where they belong in an evidence. What an archive cannot hold (TLS, registration) is
 * said to be missing, so that its checks cannot tell.
 * @throws Error when the source is no HAR file, or has nothing of the site
 */
export function evidenceFromHar(source: string, { url, kind, hosts, at, answers = [] }: FromHar): Evidence {
  const base = normaliseUrl(url)!;
  const own = new Set(hosts);
  const chains = fromHar(source).filter((c) => own.has(new URL(c.chain.start).hostname));
  if (!chains.length) throw new Error(`the HAR file has no request to ${hosts.join(', ')}`);
  const find = (address: string): Chain | undefined => chains.find((c) => c.chain.start === address)?.chain;
  const pages: PageEvidence[] = [];
  const assets: AssetEvidence[] = [];
  let robots: Evidence['robots'] | undefined;
  const sitemaps: Evidence['sitemaps'] = [];
  const seen = new Set<string>();
  for (const archived of chains) {
    const { chain } = archived;
    const end = normaliseUrl(lastAnswer(chain)?.url ?? chain.start)!;
    const { pathname } = new URL(chain.start);
    const type = typeOf(chain);
    const text = textOf(archived);
    if (pathname === '/robots.txt') {
      robots ??= {
        chain,
        contentType: type,
        ...(text !== undefined && finalStatus(chain) === 200
          ? {
              text: text.slice(0, 20_000),
              facts: /^\s*<(?:!doctype|html)/i.test(text) ? undefined : parseRobots(text),
            }
          : {}),
      };
      continue;
    }
    if (/sitemap[^/]*\.(?:xml|txt)$/.test(pathname)) {
      sitemaps.push({
        url: chain.start,
        from: 'default',
        chain,
        contentType: type,
        ...(text !== undefined && finalStatus(chain) === 200 ? { facts: parseSitemap(text, type) } : {}),
      });
      continue;
    }
    if (seen.has(end)) continue;
    seen.add(end);
    if (/^text\/html|^application\/xhtml/i.test(type ?? '')) {
      const home = end === base || chain.start === base;
      pages.push({
        url: end,
        requested: chain.start,
        from: null,
        via: home && !pages.some((p) => p.via === 'home') ? 'home' : 'link',
        depth: home ? 0 : 1,
        chain:
          text === undefined && chain.end === 'answer' ? { ...chain, end: 'error', error: NO_BODY } : chain,
        contentType: type,
        ...(text !== undefined ? { facts: extractPage(text, end) } : {}),
      });
    } else if (type) {
      const role = /css/.test(type)
        ? 'style'
        : /javascript|ecmascript/.test(type)
          ? 'script'
          : /font/.test(type)
            ? 'font'
            : 'picture';
      assets.push({
        url: end,
        roles: [role],
        chain,
        contentType: type,
        ...(lastAnswer(chain)?.bytes ? { size: lastAnswer(chain)!.bytes!.decoded } : {}),
        ...(role === 'style' && text !== undefined ? { css: readCss(text) } : {}),
      });
    }
  }
  const hostEvidence = hosts.map((host, i): HostEvidence => {
    const chainOf = (start: string): Chain => find(start) ?? silent(start);
    return {
      host,
      role: kind === 'before' ? 'environment' : i ? 'other' : 'preferred',
      tls: { host, chain: [], trusted: false, error: NOT_RECORDED },
      http: chainOf(`http://${host}/`),
      https: chainOf(`https://${host}/`),
      httpPath: silent(`http://${host}/`),
      httpsPath: silent(`https://${host}/`),
      addresses: [],
    };
  });
  return {
    version: EVIDENCE_VERSION,
    agent: 'HAR file',
    target: { url: base, hosts, registrable: registrableDomain(hosts[0]!), kind, wayIn: 'open' },
    startedAt: at,
    finishedAt: at,
    dns: { resolvers: [], zone: null, nameServers: [], parent: null, randomLabel: '', answers },
    hosts: hostEvidence,
    subdomains: [],
    robots: robots ?? { chain: silent(new URL('/robots.txt', base).href) },
    sitemaps,
    pages: pages.sort((a, b) => a.depth - b.depth),
    unread: [],
    assets,
    links: [],
    notFound: null,
    paths: [],
    folders: [],
    tokenFiles: [],
    former: [],
    variants: [],
    freshness: [],
    manifest: null,
    bypass: null,
    registration: null,
    notes: ['Made from a HAR file: certificates, name servers and registration were not looked at.'],
  };
}
