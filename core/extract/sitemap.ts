/** Sitemaps by the sitemaps.org protocol 0.9: url sets, index files and the plain text form. */
import { SaxesParser } from 'saxes';

export interface SitemapFacts {
  kind: 'urlset' | 'index' | 'text' | 'unknown';
  urls: { loc: string; lastmod?: string }[];
  /** The namespace of an XML file's root; empty where it names none. */
  namespace?: string;
  /** Entries beyond the cap are counted, not kept. */
  count: number;
  error?: string;
}

/** Longest text of an entry that is kept; an address has to be shorter than 2,048 characters. */
const LONGEST = 4000;
/** The protocol's own limit of addresses in one file. */
export const SITEMAP_URLS = 50_000;
/** The namespace that the protocol's files are in. */
export const SITEMAP_NAMESPACE = 'http://www.sitemaps.org/schemas/sitemap/0.9';
/** And of bytes in one file, unpacked. */
export const SITEMAP_BYTES = 52_428_800;

/** Reads a sitemap. Entities beyond XML's five are an error in saxes, so expansion bombs end here. */
export function parseSitemap(source: string, contentType = ''): SitemapFacts {
  const trimmed = source.replace(/^\ufeff/, '').trimStart();
  if (!trimmed.startsWith('<') && (contentType.startsWith('text/plain') || /^https?:\/\//.test(trimmed)))
    return plain(trimmed);
  const facts: SitemapFacts = { kind: 'unknown', urls: [], count: 0 };
  const parser = new SaxesParser({ xmlns: false });
  let path: string[] = [];
  let text = '';
  let entry: { loc?: string; lastmod?: string } = {};
  // the first error ends the reading: what came before it counts, and a file of nonsense costs nothing
  parser.on('error', (e) => {
    throw e;
  });
  parser.on('opentag', (tag) => {
    const name = tag.name.replace(/^.*:/, '');
    path.push(name);
    if (path.length === 1) {
      facts.kind = name === 'urlset' ? 'urlset' : name === 'sitemapindex' ? 'index' : 'unknown';
      const prefix = tag.name.includes(':') ? `xmlns:${tag.name.split(':')[0]}` : 'xmlns';
      facts.namespace = String(tag.attributes[prefix] ?? '').slice(0, 200);
    }
    if (path.length === 2) entry = {};
    text = '';
  });
  const add = (t: string) => {
    if (text.length < LONGEST) text = (text + t).slice(0, LONGEST);
  };
  parser.on('text', add);
  parser.on('cdata', add);
  parser.on('closetag', () => {
    const name = path.pop();
    if (path.length === 2 && name === 'loc') entry.loc = text.trim();
    if (path.length === 2 && name === 'lastmod') entry.lastmod = text.trim();
    if (path.length === 1 && entry.loc !== undefined) {
      facts.count++;
      if (facts.urls.length < SITEMAP_URLS)
        facts.urls.push({
          loc: entry.loc,
          ...(entry.lastmod !== undefined ? { lastmod: entry.lastmod } : {}),
        });
      entry = {};
    }
    text = '';
  });
  try {
    parser.write(trimmed).close();
  } catch (error) {
    facts.error ??= (error as Error).message.slice(0, 200);
  }
  if (facts.kind === 'unknown') facts.error ??= 'neither urlset nor sitemapindex';
  path = [];
  return facts;
}

/** The text form: addresses, one a line, and nothing else (sitemaps.org, "text file"). */
function plain(source: string): SitemapFacts {
  const lines = source
    .split(/\r?\n/)
    .map((l) => l.trim())
    .filter(Boolean);
  if (!lines.some((line) => /^https?:\/\/[^\s<>"]+$/i.test(line)))
    return { kind: 'unknown', urls: [], count: 0, error: 'neither XML nor a list of addresses' };
  return {
    kind: 'text',
    urls: lines.slice(0, SITEMAP_URLS).map((loc) => ({ loc: loc.slice(0, 4000) })),
    count: lines.length,
  };
}
