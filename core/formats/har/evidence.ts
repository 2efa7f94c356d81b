/**
 * Evidence made from a HAR file that was recorded elsewhere: behind a firewall, with a browser, by somebody
 * else.
 */
import { blankEvidence } from '#core/facts/blank-evidence';
import { normaliseUrl, registrableDomain } from '#core/extract/address';
import { extractPage } from '#core/extract/html';
import { readCss } from '#core/extract/css';
import { parseRobots } from '#core/extract/robots';
import { parseSitemap } from '#core/extract/sitemap';
import {
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
import { fromHar, type ArchivedChain } from './read';

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

/** What an archive has of a site, sorted by what it is. */
class Recorded {
  robots: Evidence['robots'] | undefined;
  readonly sitemaps: Evidence['sitemaps'] = [];
  readonly pages: PageEvidence[] = [];
  readonly assets: AssetEvidence[] = [];
  private readonly seen = new Set<string>();

  /** @param base the address of the home page */
  constructor(private readonly base: string) {}

  add(archived: ArchivedChain): void {
    const { chain } = archived;
    const { pathname } = new URL(chain.start);
    if (pathname === '/robots.txt') this.robots ??= robotsOf(archived);
    else if (/sitemap[^/]*\.(?:xml|txt)$/.test(pathname)) this.sitemaps.push(sitemapOf(archived));
    else this.addFile(archived);
  }

  /** A page or what pages load, each once. */
  private addFile(archived: ArchivedChain): void {
    const { chain } = archived;
    const url = normaliseUrl(lastAnswer(chain)?.url ?? chain.start)!;
    if (this.seen.has(url)) return;
    this.seen.add(url);
    const type = typeOf(chain);
    if (/^text\/html|^application\/xhtml/i.test(type ?? '')) this.pages.push(this.pageOf(archived, url));
    else if (type) this.assets.push(assetOf(archived, url, type));
  }

  private pageOf(archived: ArchivedChain, url: string): PageEvidence {
    const { chain } = archived;
    const text = textOf(archived);
    const isHome = url === this.base || chain.start === this.base;
    const isFirstHome = isHome && !this.pages.some((p) => p.via === 'home');
    const isEmpty = text === undefined && chain.end === 'answer';
    return {
      url,
      requested: chain.start,
      from: null,
      via: isFirstHome ? 'home' : 'link',
      depth: isHome ? 0 : 1,
      chain: isEmpty ? { ...chain, end: 'error', error: NO_BODY } : chain,
      contentType: typeOf(chain),
      ...(text === undefined ? {} : { facts: extractPage(text, url) }),
    };
  }
}

function robotsOf(archived: ArchivedChain): Evidence['robots'] {
  const { chain } = archived;
  const text = textOf(archived);
  const contentType = typeOf(chain);
  if (text === undefined || finalStatus(chain) !== 200) return { chain, contentType };
  const isHtml = /^\s*<(?:!doctype|html)/i.test(text);
  return { chain, contentType, text: text.slice(0, 20_000), facts: isHtml ? undefined : parseRobots(text) };
}

function sitemapOf(archived: ArchivedChain): Evidence['sitemaps'][number] {
  const { chain } = archived;
  const text = textOf(archived);
  const contentType = typeOf(chain);
  const isRead = text !== undefined && finalStatus(chain) === 200;
  return {
    url: chain.start,
    from: 'default',
    chain,
    contentType,
    ...(isRead ? { facts: parseSitemap(text, contentType) } : {}),
  };
}

function roleOf(type: string): AssetEvidence['roles'][number] {
  if (/css/.test(type)) return 'style';
  if (/javascript|ecmascript/.test(type)) return 'script';
  return /font/.test(type) ? 'font' : 'picture';
}

function assetOf(archived: ArchivedChain, url: string, contentType: string): AssetEvidence {
  const { chain } = archived;
  const role = roleOf(contentType);
  const text = textOf(archived);
  const size = lastAnswer(chain)?.bytes?.decoded;
  return {
    url,
    roles: [role],
    chain,
    contentType,
    ...(size === undefined ? {} : { size }),
    ...(role === 'style' && text !== undefined ? { css: readCss(text) } : {}),
  };
}

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
  const recorded = new Recorded(base);
  for (const archived of chains) recorded.add(archived);
  const chainOf = (start: string): Chain =>
    chains.find((c) => c.chain.start === start)?.chain ?? silent(start);
  const hostEvidence = hosts.map((host, i): HostEvidence => ({
    host,
    role: kind === 'before' ? 'environment' : i ? 'other' : 'preferred',
    tls: { host, chain: [], trusted: false, error: NOT_RECORDED },
    http: chainOf(`http://${host}/`),
    https: chainOf(`https://${host}/`),
    httpPath: silent(`http://${host}/`),
    httpsPath: silent(`https://${host}/`),
    addresses: [],
  }));
  const target = {
    url: base,
    hosts,
    registrable: registrableDomain(hosts[0]!),
    kind,
    wayIn: 'open' as const,
  };
  const blank = blankEvidence(target, at);
  return {
    ...blank,
    agent: 'HAR file',
    dns: { ...blank.dns, answers },
    hosts: hostEvidence,
    robots: recorded.robots ?? blank.robots,
    sitemaps: recorded.sitemaps,
    pages: recorded.pages.sort((a, b) => a.depth - b.depth),
    assets: recorded.assets,
    notes: ['Made from a HAR file: certificates, name servers and registration were not looked at.'],
  };
}
