/**
 * The files a site has beside its pages: robots.txt, sitemaps, the manifest, what should not be there, and
 * what should.
 */
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import { normaliseUrl, parseUrl } from '#core/extract/address';
import { readManifest } from '#core/extract/manifest';
import { parseRobots, ROBOTS_LIMIT } from '#core/extract/robots';
import { SITEMAP_BYTES } from '#core/extract/sitemap';
import type { Brief } from '#core/facts/brief';
import { finalStatus, headerValues, lastAnswer, type Evidence, type PathProbe } from '#core/facts/evidence';
import { readFileHere, type ReadFile } from './file-reader';
import type { Asked, HttpClient } from './http/client';

/** Files that should not be served, and security.txt. */
const PATHS = [
  '/.git/HEAD',
  '/.git/config',
  '/.svn/wc.db',
  '/.hg/requires',
  '/.env',
  '/.env.bak',
  '/.htpasswd',
  '/.DS_Store',
  '/backup.sql',
  '/dump.sql',
  '/backup.zip',
  '/config.php.bak',
  '/wp-config.php.bak',
  '/phpinfo.php',
  '/info.php',
  '/server-status',
  '/error_log',
  '/debug.log',
  '/.well-known/security.txt',
  '/coming-soon/',
  '/under-construction/',
  '/maintenance/',
];
const SITEMAP_FILES = 200;
/** What is kept of all sitemaps together. */
export const SITEMAP_TOTAL_URLS = 100_000;
const SITEMAP_TOTAL_BYTES = 100 * 1024 * 1024;
const FIRST_BYTES = { range: 'bytes=0-4095', 'accept-encoding': 'identity' };
const FOLDERS = 30;
const FORMER = 500;
const unzip = promisify(gunzip);

/** Unpacks a file that is itself packed (a .gz sitemap), within a limit. */
async function unpacked(body: Buffer): Promise<Buffer> {
  return body[0] === 0x1f && body[1] === 0x8b ? unzip(body, { maxOutputLength: SITEMAP_BYTES }) : body;
}

export interface SiteFiles {
  client: HttpClient;
  origin: string;
  ask: Asked;
  readFile?: ReadFile;
}

const sitemapFault = ({ code, message }: Error & { code?: string }): string =>
  code?.startsWith('Z_') || code?.startsWith('ERR_')
    ? 'the packed file is broken, or unpacks to more than the limit of 50 MiB'
    : `it could not be read: ${message.slice(0, 120)}`;

export async function fetchRobots({ client, origin, ask }: SiteFiles): Promise<Evidence['robots']> {
  // other hosts too: crawlers follow at least five redirects to wherever they lead (RFC 9309 2.3.1.2)
  const { chain, body } = await client.followTwice(`${origin}/robots.txt`, { ...ask, own: () => true });
  const contentType = headerValues(lastAnswer(chain), 'content-type')[0];
  const out: Evidence['robots'] = { chain, contentType };
  if (body && finalStatus(chain) === 200) {
    out.bytes = body.length;
    const text = body.toString('utf8').slice(0, ROBOTS_LIMIT);
    out.text = text.slice(0, 20_000);
    out.facts = /^\s*(<!doctype|<html)/i.test(text) ? undefined : parseRobots(text);
  }
  return out;
}

/**
 * Every sitemap that robots.txt names, or the one browsers of the web expect; index files are followed.
 * @param base folder of the environment
 */
export async function fetchSitemaps(
  { client, ask, readFile = readFileHere }: SiteFiles,
  robots: Evidence['robots'],
  base: string,
): Promise<Evidence['sitemaps']> {
  const out: Evidence['sitemaps'] = [];
  let addresses = 0;
  let bytes = 0;
  const seen = new Set<string>();
  const named = (robots.facts?.sitemaps ?? []).map((s) => s.url).filter((u) => parseUrl(u) !== undefined);
  const queue: { url: string; from: 'robots' | 'default' | 'index' }[] = named.length
    ? named.map((url) => ({ url, from: 'robots' }))
    : [{ url: new URL('sitemap.xml', base).href, from: 'default' }];
  while (queue.length && out.length < SITEMAP_FILES && bytes < SITEMAP_TOTAL_BYTES) {
    const { url, from } = queue.shift()!;
    const normal = normaliseUrl(url);
    if (!normal || seen.has(normal)) continue;
    seen.add(normal);
    const { chain, body } = await client.followTwice(normal, { ...ask, maxBytes: SITEMAP_BYTES });
    const contentType = headerValues(lastAnswer(chain), 'content-type')[0];
    const file: Evidence['sitemaps'][number] = { url: normal, from, chain, contentType };
    out.push(file);
    if (!body || finalStatus(chain) !== 200) continue;
    try {
      const plain = await unpacked(body);
      file.bytes = plain.length;
      bytes += plain.length;
      file.facts = await readFile('sitemap', plain, contentType);
      // beyond the total they are counted, and not kept
      const room = Math.max(0, SITEMAP_TOTAL_URLS - addresses);
      if (file.facts.urls.length > room) file.facts.urls.length = room;
      addresses += file.facts.urls.length;
    } catch (error) {
      file.facts = { kind: 'unknown', urls: [], count: 0, error: sitemapFault(error as Error) };
    }
    if (file.facts.kind === 'index')
      queue.push(
        ...file.facts.urls.slice(0, SITEMAP_FILES).map((u) => ({ url: u.loc, from: 'index' as const })),
      );
  }
  return out;
}

const VOUCHING_HOSTS = 5;

/**
 * The robots.txt of each host whose addresses a sitemap on another host names: it alone may vouch for them
 * (sitemaps.org, "sitemaps & cross submits").
 */
export async function fetchVouching(
  { client, origin, ask }: SiteFiles,
  sitemaps: Evidence['sitemaps'],
): Promise<NonNullable<Evidence['vouching']>> {
  const origins = new Set<string>();
  for (const { url, facts } of sitemaps)
    for (const { loc } of facts?.urls ?? []) {
      const entry = parseUrl(loc);
      if (!entry || !/^https?:$/.test(entry.protocol) || entry.origin === origin) continue;
      if (entry.hostname !== new URL(url).hostname && origins.size < VOUCHING_HOSTS)
        origins.add(entry.origin);
    }
  return Promise.all(
    [...origins].map(async (other) => {
      const { chain, facts } = await fetchRobots({ client, origin: other, ask });
      const named = facts?.sitemaps.flatMap((s) => normaliseUrl(s.url) ?? []).slice(0, SITEMAP_FILES);
      return { host: new URL(other).hostname, chain, ...(named ? { sitemaps: named } : {}) };
    }),
  );
}

export async function fetchManifest(
  { client, ask }: SiteFiles,
  address: string | undefined,
): Promise<Evidence['manifest']> {
  const url = address && normaliseUrl(address);
  if (!url) return null;
  const { chain, body } = await client.follow(url, ask);
  const contentType = headerValues(lastAnswer(chain), 'content-type')[0];
  const text = body && finalStatus(chain) === 200 ? body.toString('utf8') : undefined;
  return {
    url,
    chain,
    contentType,
    ...(text === undefined
      ? {}
      : { bytes: body!.length, text: text.slice(0, 20_000), facts: readManifest(text, url) }),
  };
}

/** How much of a file is kept: enough for what tells it apart. */
function sampleLength(path: string): number {
  if (/\.php$|\/server-status$/.test(path)) return 4096;
  return /security\.txt$|\/$/.test(path) ? 2000 : SAMPLE;
}
const SAMPLE = 300;

/** A line of a password file without the hash: its kind is enough to know it by. */
function withoutHash(line: string): string {
  const [, name, hash] = /^([^\s:]{1,64}):(\S+)\s*$/.exec(line) ?? [];
  if (name === undefined || hash === undefined) return line.replace(/:.*$/, ':…');
  const kind = /^(?:\$(?:apr1|2[abxy]|[156])\$|\{SHA\})/.exec(hash)?.[0];
  return `${name}:${kind ?? (/^[./0-9A-Za-z]{13}$/.test(hash) ? '(crypt)' : '')}…`;
}

/**
 * The first bytes of a file, with the values of settings blanked: evidence must not carry somebody's
 * password.
 */
function sampleOf(body: Buffer | undefined, path: string): string | undefined {
  if (!body) return undefined;
  const text = body.subarray(0, sampleLength(path)).toString('utf8');
  if (/\.htpasswd$/.test(path)) return text.split('\n').map(withoutHash).join('\n');
  if (/env|config|\.bak$/.test(path))
    return text
      .replace(/^(\s*(?:export\s+)?[A-Za-z_][\w.]*\s*=).*$/gm, '$1…')
      .replace(/(define\s*\(\s*['"]\w+['"]\s*,).*$/gm, '$1…')
      .replace(/(\/\/)[^/\s@]*@/g, '$1…@');
  return text;
}

/** @param headers none for files that are wanted; for what should not be there the first bytes are enough */
async function fetchPath(
  { client, origin, ask }: SiteFiles,
  path: string,
  headers?: Record<string, string>,
): Promise<PathProbe> {
  const { chain, body } = await client.follow(origin + path, { ...ask, headers });
  return { path, chain, ...(body ? { sample: sampleOf(body, path) } : {}) };
}

/** The title of a page, as far as it can be told without reading the page. */
function titleIn(html: string): { notFoundTitle?: string } {
  const title = /<title[^>]{0,200}>([^<]{1,300})</i.exec(html)?.[1]?.trim();
  return title ? { notFoundTitle: title } : {};
}

/** The made-up address, the exposed paths and the brief's token files. */
export async function probePaths(
  files: SiteFiles,
  brief: Brief,
): Promise<Pick<Evidence, 'notFound' | 'notFoundSample' | 'notFoundTitle' | 'paths' | 'tokenFiles'>> {
  const tokens = (brief.tokens ?? [])
    .filter((t) => t.place === 'file')
    .map((t) => `/${t.kind.replace(/^\//, '')}`);
  const [notFound, paths, tokenFiles] = await Promise.all([
    files.client.follow(`${files.origin}/armband-no-such-page-7f3a`, files.ask),
    Promise.all(
      PATHS.map((p) =>
        fetchPath(files, p, p.startsWith('/.well-known/') || p.endsWith('/') ? undefined : FIRST_BYTES),
      ),
    ),
    Promise.all(tokens.map((p) => fetchPath(files, p))),
  ]);
  const { chain, body } = notFound;
  const isPage = finalStatus(chain) === 200 && body;
  return {
    notFound: chain,
    ...(isPage ? { notFoundSample: body.subarray(0, SAMPLE).toString('utf8') } : {}),
    ...(isPage ? titleIn(body.toString('utf8', 0, 64 * 1024)) : {}),
    paths,
    tokenFiles,
  };
}

/** Paths that the agency's own checks ask for; what they answer, not what they hold. */
export async function askPaths(
  { client, origin, ask }: SiteFiles,
  paths: readonly string[],
): Promise<PathProbe[]> {
  return Promise.all(
    paths.map(async (path) => ({
      path,
      chain: (await client.follow(origin + (path.startsWith('/') ? path : `/${path}`), ask)).chain,
    })),
  );
}

/**
 * Folders that hold something of the site and are no page of it, each with those above it; those named first come first.
 * @param files addresses, normalised
 */
export function foldersOf(files: readonly string[], pages: ReadonlySet<string>, origin: string): string[] {
  const folders = new Set<string>();
  for (const file of files) {
    const url = new URL(file);
    if (url.origin !== origin) continue;
    const parts = url.pathname.split('/').slice(1, -1);
    for (let i = 1; i <= parts.length; i++) folders.add(`/${parts.slice(0, i).join('/')}/`);
  }
  return [...folders].filter((f) => !pages.has(origin + f)).slice(0, FOLDERS);
}

export async function probeFolders(files: SiteFiles, folders: readonly string[]): Promise<PathProbe[]> {
  return Promise.all(folders.map((f) => fetchPath(files, f)));
}

/** Where the brief's former addresses lead now. */
export async function probeFormer(
  { client, origin, ask }: SiteFiles,
  brief: Brief,
): Promise<Evidence['former']> {
  const asked = (brief.formerAddresses ?? []).slice(0, FORMER).flatMap((f) => {
    const url = normaliseUrl(f.from, `${origin}/`);
    return url ? [{ from: f.from, url }] : [];
  });
  return Promise.all(
    asked.map(async ({ from, url }) => ({
      from,
      chain: (await client.follow(url, { ...ask, method: 'GET' })).chain,
    })),
  );
}
