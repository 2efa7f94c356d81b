/**
 * What a client says yes to: the content of a site as a visitor meets it, without dates, TTLs and timings; and what
 * of it has changed since. Pure.
 */
import { parseUrl } from '#core/extract/address';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js';
import type { SiteView } from '#core/checks/view/site-view';
import type { ReadPage } from '#core/checks/view/read-page';
import type { Message } from '#core/facts/message';
import { defineMessages } from '#core/text/messages';
import { faceOf, pathBelow, plainAddress, type Compared, type Ground } from '#core/compare/sites/page-face';

/** What is read, and so approved word by word. */
const READ = ['title', 'description', 'headings', 'text'] as const satisfies Compared[];
/** What stands around it. */
const AROUND = ['links', 'forms', 'sharing'] as const satisfies Compared[];
const msg = defineMessages('approval.content', {
  title: 'title',
  description: 'description',
  headings: 'headings',
  text: 'text',
  links: 'links',
  forms: 'forms',
  sharing: 'sharing',
  pictures: 'pictures',
  parts: '{all}',
  'new-page': 'a new page',
  gone: 'the page is gone',
  'only-figures': 'only figures or dates differ, which may move by themselves',
  across: 'servers of two environments may give it differently',
  'not-shown': 'it was not among the pages that the client was shown',
  unreadable: 'it could not be read this time',
  partial: 'not all pages were read this time',
  'not-found-here': 'no link and no sitemap leads to it here',
});

type Read = (typeof READ)[number];
type Around = (typeof AROUND)[number];

/** One page as it was met. */
interface PageContent {
  url: string;
  lines: Record<Read | Around, string[]>;
  /** Digests of the pictures by their addresses; empty where a picture was not read whole. */
  pictures: ReadonlyMap<string, string>;
}

export interface Content {
  /** Pages by their paths, the same on every environment. */
  pages: ReadonlyMap<string, PageContent>;
  /** Paths that answered, but not with a page that can be read. */
  refused: ReadonlySet<string>;
  /** Paths that are not there: they answered 4xx. */
  missing: ReadonlySet<string>;
  /** Whether there are pages that were not read. */
  isPartial: boolean;
}

function pageContent(page: ReadPage, ground: Ground, digests: ReadonlyMap<string, string>): PageContent {
  const face = faceOf(page.facts, ground, page.url);
  const pictures = new Map(
    page.facts.images.flatMap(({ src }) => {
      const url = parseUrl(src, page.url)?.href;
      if (url === undefined) return [];
      return [[plainAddress(url, ground), digests.get(url) ?? ''] as [string, string]];
    }),
  );
  const lines = Object.fromEntries([...READ, ...AROUND].map((what) => [what, face[what]]));
  return { url: page.url, lines: lines as PageContent['lines'], pictures };
}

/** @param hosts all that are the site’s own, on every environment that is compared */
export function contentOf(view: SiteView, hosts: ReadonlySet<string> = view.siteHosts): Content {
  const ground: Ground = { base: view.home?.url ?? view.evidence.target.url, hosts };
  const digests = new Map(
    view.evidence.assets.flatMap((a) => (a.sha256 ? [[a.url, a.sha256] as const] : [])),
  );
  const pages = new Map<string, PageContent>();
  const refused = new Set<string>(view.refusals.map(({ url }) => pathBelow(url, ground.base)));
  for (const page of view.pages) {
    const path = pathBelow(page.url, ground.base);
    if (page.shell) refused.add(path);
    else if (!pages.has(path)) pages.set(path, pageContent(page, ground, digests));
  }
  const missing = new Set<string>();
  for (const { url, chain } of view.evidence.pages) {
    const path = pathBelow(url, ground.base);
    const status = chain.hops.at(-1)?.status;
    if (pages.has(path) || refused.has(path)) continue;
    if (status !== undefined && status >= 400 && status < 500) missing.add(path);
    else refused.add(path);
  }
  return { pages, refused, missing, isPartial: view.evidence.unread.length > 0 };
}

/** SHA-256 of what can be read of a site, as hexadecimal: equal where nothing has changed. */
export function fingerprintOf({ pages }: Content): string {
  const all = [...pages]
    .map(([path, { lines, pictures }]) => [
      path,
      ...[...READ, ...AROUND].map((what) => lines[what]),
      [...pictures].map(([name, digest]) => `${name} ${digest}`).sort(),
    ])
    .sort(([a], [b]) => (a! < b! ? -1 : 1));
  return bytesToHex(sha256(utf8ToBytes(JSON.stringify(all))));
}

/** Names of months and days in the languages that sites are most often written in. */
const DATE_WORDS = (() => {
  const words = new Set<string>();
  for (const language of ['en', 'de', 'fr', 'es', 'it', 'nl', 'pt', 'pl', 'sv', 'da'])
    for (const form of ['long', 'short'] as const) {
      const month = new Intl.DateTimeFormat(language, { month: form, timeZone: 'UTC' });
      const weekday = new Intl.DateTimeFormat(language, { weekday: form, timeZone: 'UTC' });
      for (let i = 0; i < 12; i++) {
        words.add(month.format(Date.UTC(2024, i, 1 + i)).toLowerCase());
        words.add(weekday.format(Date.UTC(2024, 0, 1 + i)).toLowerCase());
      }
    }
  return words;
})();

/** A text with its figures and the names of days and months taken out, such as a date that moves by itself. */
const withoutFigures = (lines: readonly string[]): string =>
  lines
    .join('\n')
    .replace(/\p{L}+\.?/gu, (word) => (DATE_WORDS.has(word.toLowerCase()) ? '' : word))
    .replace(/\p{N}+(?:\p{N}|[.,:/–-](?=\p{N}))*(?:st|nd|rd|th)?/gu, '')
    .replace(/\s+/g, ' ');

/** What became of one page since the yes. */
export interface ContentChange {
  path: string;
  url: string;
  /** Such as “title, text”. */
  what: Message;
  /** Whether it is certain that a visitor meets something else than what was approved. */
  isSure: boolean;
  /** Why it is not, where it is not. */
  why?: Message;
  /** What was approved, and what is there, of the first thing that differs. */
  before?: string;
  after?: string;
}

const LONGEST = 300;
const isSame = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((line, i) => line === b[i]);

/** Other names of pictures, and other bytes under the same name where both were read. */
function picturesDiffer(before: PageContent, after: PageContent): 'names' | 'bytes' | undefined {
  const names = (page: PageContent): string[] => [...page.pictures.keys()].sort();
  if (!isSame(names(before), names(after))) return 'names';
  const differs = [...before.pictures].some(([name, digest]) => {
    const now = after.pictures.get(name);
    return digest && now && digest !== now;
  });
  return differs ? 'bytes' : undefined;
}

const ONLY_FIGURES = msg('only-figures');
const ACROSS = msg('across');

/** @param across the two stand on different environments */
function pageChange(
  path: string,
  before: PageContent,
  after: PageContent,
  across: boolean,
): ContentChange | undefined {
  const differing = [...READ, ...AROUND].filter((what) => !isSame(before.lines[what], after.lines[what]));
  const pictures = picturesDiffer(before, after);
  if (!differing.length && !pictures) return undefined;
  const parts = [...differing, ...(pictures ? (['pictures'] as const) : [])];
  const what = msg('parts', { all: parts.map((part) => msg(part)) });
  const read = READ.filter((r) => differing.includes(r));
  const inWords = read.filter((r) => withoutFigures(before.lines[r]) !== withoutFigures(after.lines[r]));
  const around = differing.length > read.length || pictures !== undefined;
  const [first] = inWords.length ? inWords : differing;
  const shown = first && {
    before: firstDifference(before.lines[first], after.lines[first]),
    after: firstDifference(after.lines[first], before.lines[first]),
  };
  const isSure = inWords.length > 0 || (around && !across);
  const why = isSure ? undefined : around ? ACROSS : ONLY_FIGURES;
  return { path, url: after.url, what, isSure, ...(why ? { why } : {}), ...shown };
}

/** The part of a text around where it begins to differ from another. */
function firstDifference(own: readonly string[], other: readonly string[]): string {
  const [a, b] = [own.join('\n'), other.join('\n')];
  let at = 0;
  while (at < a.length && a[at] === b[at]) at++;
  const from = at < 60 ? 0 : a.lastIndexOf(' ', at - 30) + 1;
  return `${from ? '… ' : ''}${a.slice(from, from + LONGEST)}`;
}

/**
 * What has changed since the yes, page by page: sure changes first. A page that could not be read, and one that only
 * one of two environments shows, is no change but a doubt.
 * @param across the two stand on different environments: hosts differ by nature, and servers write around texts
 */
export function changesSince(approved: Content, now: Content, across: boolean): ContentChange[] {
  const out: ContentChange[] = [];
  for (const [path, before] of approved.pages) {
    const after = now.pages.get(path);
    if (after) {
      const change = pageChange(path, before, after, across);
      if (change) out.push(change);
    } else out.push(gonePage(path, before, now, across));
  }
  for (const [path, { url }] of now.pages) {
    if (approved.pages.has(path) || approved.refused.has(path)) continue;
    const isSure = !across && !approved.isPartial;
    const why = msg('not-shown');
    out.push({ path, url, what: msg('new-page'), isSure, ...(isSure ? {} : { why }) });
  }
  return out.sort((a, b) => Number(b.isSure) - Number(a.isSure));
}

function gonePage(path: string, { url }: PageContent, now: Content, across: boolean): ContentChange {
  const gone: ContentChange = { path, url, what: msg('gone'), isSure: true };
  if (now.missing.has(path)) return gone;
  if (now.refused.has(path)) return { ...gone, isSure: false, why: msg('unreadable') };
  if (now.isPartial) return { ...gone, isSure: false, why: msg('partial') };
  return across ? { ...gone, isSure: false, why: msg('not-found-here') } : gone;
}
