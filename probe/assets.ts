/** Icons, share pictures, scripts, styles, fonts, pictures and media that pages name. */
import { decodeSafely, hostOf, normaliseUrl, parseUrl } from '#core/extract/address';
import { shownFacts } from '#core/extract/shell';
import {
  finalStatus,
  headerValues,
  lastAnswer,
  type AssetEvidence,
  type AssetRole,
  type Chain,
  type Exchange,
  type PageEvidence,
} from '#core/facts/evidence';
import { sha256 } from './digest';
import { readFileHere, type ReadFile } from './file-reader';
import type { HttpClient } from './http/client';

/** How many of each kind are looked at. */
const LIMITS: Partial<Record<AssetRole, number>> = {
  'share-picture': 60,
  script: 60,
  style: 40,
  picture: 200,
  font: 40,
  media: 20,
  'third-party': 60,
};
/** Fetched whole; of all others the first bytes tell enough. */
const WHOLE: ReadonlySet<AssetRole> = new Set<AssetRole>([
  'icon',
  'touch-icon',
  'share-picture',
  'script',
  'style',
  'manifest-icon',
]);
const FIRST_BYTES = 'bytes=0-4095';
const KINDS: Record<string, AssetRole> = {
  script: 'script',
  style: 'style',
  img: 'picture',
  srcset: 'picture',
  media: 'media',
  font: 'font',
  css: 'picture',
};
const FONT_FILE = /\.(?:woff2?|ttf|otf|eot)(?:$|\?)/i;

/** What to fetch, and as what. */
export class AssetList {
  readonly wanted = new Map<string, Set<AssetRole>>();
  private readonly counts = new Map<AssetRole, number>();

  add(address: string | undefined, role: AssetRole, from?: string): void {
    const isInline = role.endsWith('icon') && /^data:/i.test(address ?? '');
    const url = address === undefined || isInline ? address : normaliseUrl(address, from);
    if (!url) return;
    const roles = this.wanted.get(url);
    if (roles?.has(role)) return;
    const count = (this.counts.get(role) ?? 0) + 1;
    if (count > (LIMITS[role] ?? 60)) return;
    this.counts.set(role, count);
    if (roles) roles.add(role);
    else this.wanted.set(url, new Set([role]));
  }
}

/** The icons that the home page names; where it names none, the addresses that browsers look at. */
function addIcons(list: AssetList, home: PageEvidence | undefined, base: string): void {
  const { origin } = new URL(home?.url ?? base);
  const links = (home && shownFacts(home)?.links) ?? [];
  const icons = links.filter((l) => l.rel.includes('icon'));
  const touchIcons = links.filter((l) => l.rel.some((r) => r.startsWith('apple-touch-icon')));
  for (const { href } of icons) list.add(href, 'icon', home!.url);
  for (const { href } of touchIcons) list.add(href, 'touch-icon', home!.url);
  if (!icons.length) list.add(`${origin}/favicon.ico`, 'icon');
  if (!touchIcons.length) list.add(`${origin}/apple-touch-icon.png`, 'touch-icon');
}

const LOGOS = 5;

/** What the home page's structured data name as a logo. */
function addLogos(list: AssetList, home: PageEvidence | undefined): void {
  const nodes = (home && shownFacts(home)?.jsonLd.flatMap((block) => block.nodes)) ?? [];
  for (const { logo } of nodes.filter((n) => n.logo).slice(0, LOGOS)) list.add(logo, 'logo', home!.url);
}

/** The share picture of a page, where it is named by a whole address. */
function sharePictureOf(page: PageEvidence): string | undefined {
  const meta = shownFacts(page)?.metas.find((m) => m.property === 'og:image' || m.name === 'og:image');
  const address = meta?.content.trim();
  return address && parseUrl(address) ? address : undefined;
}

/**
 * The home page's icons (and the addresses browsers look at), every share picture, and what pages load from
 * the site's own hosts.
 * @param thirdParty whether files of other hosts are asked for as well (their head only)
 */
export function assetsToFetch(
  pages: readonly PageEvidence[],
  hosts: ReadonlySet<string>,
  base: string,
  thirdParty = false,
): AssetList {
  const list = new AssetList();
  const home = pages.find((p) => p.via === 'home');
  addIcons(list, home, base);
  addLogos(list, home);
  for (const page of pages) {
    list.add(sharePictureOf(page), 'share-picture');
    for (const { url, kind } of shownFacts(page)?.resources ?? []) {
      const role = FONT_FILE.test(url) ? 'font' : KINDS[kind];
      const host = role && hostOf(url);
      if (!host) continue;
      if (hosts.has(host)) list.add(url, role);
      else if (thirdParty) list.add(url, 'third-party');
    }
  }
  return list;
}

/** Fonts and pictures that style sheets load. */
export function addFromStyles(
  list: AssetList,
  styles: readonly AssetEvidence[],
  hosts: ReadonlySet<string>,
): string[] {
  const before = new Set(list.wanted.keys());
  for (const { css, chain } of styles) {
    const base = lastAnswer(chain)?.url;
    const fonts = new Set((css?.fontFaces ?? []).flatMap((f) => f.sources).map((s) => normaliseUrl(s, base)));
    for (const address of css?.urls ?? []) {
      const url = normaliseUrl(address, base);
      if (url && hosts.has(new URL(url).hostname))
        list.add(
          url,
          fonts.has(url) || FONT_FILE.test(url) ? 'font' : /\.css(?:$|\?)/i.test(url) ? 'style' : 'picture',
        );
    }
  }
  return [...list.wanted.keys()].filter((u) => !before.has(u));
}

/** Addresses in page facts are cut there. */
const LONGEST_ADDRESS = 2000;

/** A picture that stands in the page itself (RFC 2397); shown by its head, since it may be long. */
async function inlineAsset(url: string, roles: AssetRole[], readFile: ReadFile): Promise<AssetEvidence> {
  const shown = url.slice(0, 120);
  const chain: Chain = { start: shown, hops: [], end: 'error' };
  const comma = url.indexOf(',');
  const head = comma < 0 ? '' : url.slice('data:'.length, comma);
  const data = comma < 0 ? '' : decodeSafely(url.slice(comma + 1));
  const type = head.split(';')[0] || 'text/plain';
  const body = /;\s*base64\s*$/i.test(head) ? Buffer.from(data, 'base64') : Buffer.from(data);
  if (!body.length)
    return {
      url: shown,
      roles,
      chain: { ...chain, error: { code: 'bad-url', message: 'a data: address without data' } },
    };
  const timing = { total: 0 };
  const hop: Exchange = { url: shown, method: 'GET', status: 200, headers: [['content-type', type]], timing };
  const asset: AssetEvidence = {
    url: shown,
    roles,
    chain: { start: shown, hops: [hop], end: 'answer' },
    contentType: type.slice(0, 200),
  };
  // facts keep the head of a long address; that is enough to tell kind and size of a picture
  if (url.length < LONGEST_ADDRESS) {
    asset.size = body.length;
    asset.sha256 = await sha256(body);
  }
  await readPicture(asset, body, { whole: url.length < LONGEST_ADDRESS, readFile });
  return asset;
}

/** No coding for pictures and fonts: the ranges are of the file itself (RFC 9110 14.1.2). */
const FIRST_PART = { headers: { range: FIRST_BYTES, 'accept-encoding': 'identity' } };
const HEAD_ONLY = { method: 'HEAD' as const };
const NO_PICTURE: ReadonlySet<AssetRole> = new Set<AssetRole>(['script', 'style', 'font', 'media']);

/** Fetches one asset and reads its picture or style sheet. */
export async function fetchAsset(
  client: HttpClient,
  url: string,
  roleSet: ReadonlySet<AssetRole>,
  readFile: ReadFile = readFileHere,
  { isBuilt = false }: { isBuilt?: boolean } = {},
): Promise<AssetEvidence> {
  const roles = [...roleSet];
  if (/^data:/i.test(url)) return inlineAsset(url, roles, readFile);
  // a file of the uploaded build is compared by its digest
  const whole = isBuilt || roles.some((r) => WHOLE.has(r));
  const outside = !whole && roles.includes('third-party');
  const partial = outside ? HEAD_ONLY : FIRST_PART;
  const { chain, body } = await client.follow(url, whole ? {} : partial);
  const last = lastAnswer(chain);
  const contentType = headerValues(last, 'content-type')[0];
  const status = finalStatus(chain);
  const asset: AssetEvidence = { url, roles, chain };
  if (contentType) asset.contentType = contentType.slice(0, 200);
  const size = sizeOf(
    status,
    body,
    headerValues(last, 'content-range')[0],
    headerValues(last, 'content-length')[0],
    outside,
  );
  if (size !== undefined) asset.size = size;
  if (body && !outside) await readBody(asset, body, { whole, readFile });
  return asset;
}

async function readBody(
  asset: AssetEvidence,
  body: Buffer,
  how: { whole: boolean; readFile: ReadFile },
): Promise<void> {
  const status = finalStatus(asset.chain);
  if (status === 200) await readWhole(asset, body, how.readFile);
  if (asset.roles.some((r) => !NO_PICTURE.has(r)) && (status === 200 || status === 206))
    await readPicture(asset, body, how);
}

async function readWhole(asset: AssetEvidence, body: Buffer, readFile: ReadFile): Promise<void> {
  asset.sha256 = await sha256(body);
  if (asset.roles.includes('style')) await readStyle(asset, body, readFile);
}

/** A sheet that cannot be read in time is left unread. */
async function readStyle(asset: AssetEvidence, body: Buffer, readFile: ReadFile): Promise<void> {
  try {
    asset.css = await readFile('style', body);
  } catch {
    // what rests on it has nothing to look at
  }
}

/** Kind and sizes of a picture. A part of one may be too short to tell; that is no fault of the file. */
async function readPicture(
  asset: AssetEvidence,
  body: Buffer,
  { whole, readFile }: { whole: boolean; readFile: ReadFile },
): Promise<void> {
  try {
    const { image, imageError } = await readFile('picture', body);
    if (image) asset.image = image;
    else if (whole && imageError) asset.imageError = imageError;
  } catch (error) {
    asset.imageError = `a picture that cannot be read (${(error as Error).message.slice(0, 120)})`;
  }
}

/** Bytes of the whole file. */
function sizeOf(
  status: number | undefined,
  body: Buffer | undefined,
  range: string | undefined,
  length: string | undefined,
  head: boolean,
): number | undefined {
  if (status === 206) {
    const total = /\/(\d+)\s*$/.exec(range ?? '')?.[1];
    return total === undefined ? undefined : Number(total);
  }
  if (status !== 200) return undefined;
  if (head) return length !== undefined && /^\d+$/.test(length) ? Number(length) : undefined;
  return body?.length;
}
