/**
 * Page facts against the full tree that cheerio builds, over real pages from npm packages and Debian's
 * documentation.
 */
import { load, type CheerioAPI } from 'cheerio';
import { describe, expect, it } from 'vitest';
import { parseUrl } from '#core/extract/address';
import { decodeText } from '#core/extract/charset';
import { extractPage } from '#core/extract/html';
import { realPages } from '../real-pages';

const BASE = 'https://docs.example/folder/page.html';
const pages = realPages(500).map(({ file, bytes }) => {
  const { text } = decodeText(bytes, 'text/html');
  return { file, text };
});
/** Text as both sides fold it: HTML's white space runs. */
const fold = (t: string): string => t.replace(/[\s\u00a0]+/g, ' ').trim();
const inHtml = ($: CheerioAPI, selector: string) =>
  $(selector).filter(
    (_, el) =>
      (el as unknown as { namespace?: string }).namespace !== 'http://www.w3.org/2000/svg' &&
      !$(el).closest('svg, template, noscript').length,
  );

describe(`${pages.length} real pages`, () => {
  it('are at least three hundred', () => {
    expect(pages.length).toBeGreaterThanOrEqual(300);
  });
  it.each([
    [
      'titles',
      (f: ReturnType<typeof extractPage>) => f.titles.map((t) => fold(t.text)),
      ($: CheerioAPI) =>
        inHtml($, 'title')
          .toArray()
          .map((el) => fold($(el).text())),
    ],
    [
      'metas',
      (f: ReturnType<typeof extractPage>) =>
        f.metas.map((m) => `${m.name ?? ''}|${m.property ?? ''}|${m.content}`),
      ($: CheerioAPI) =>
        inHtml($, 'meta')
          .toArray()
          .map(
            (el) =>
              `${($(el).attr('name') ?? '').trim().toLowerCase()}|${($(el).attr('property') ?? '').trim().toLowerCase()}|${$(el).attr('content') ?? ''}`,
          ),
    ],
    [
      'link elements',
      (f: ReturnType<typeof extractPage>) => f.links.map((l) => l.rel.join(' ')),
      ($: CheerioAPI) =>
        inHtml($, 'link[href]')
          .toArray()
          .map((el) => ($(el).attr('rel') ?? '').toLowerCase().split(/\s+/).filter(Boolean).join(' ')),
    ],
    [
      'headings',
      (f: ReturnType<typeof extractPage>) => f.headings.map((h) => h.level),
      ($: CheerioAPI) =>
        inHtml($, ':is(h1, h2, h3, h4, h5, h6):not([role]), [role=heading]')
          .toArray()
          .map((el) => {
            const own = /^h([1-6])$/.exec((el as { name: string }).name)?.[1] ?? '2';
            const isByRole = $(el).attr('role') !== undefined;
            return Number((isByRole ? $(el).attr('aria-level') : undefined) ?? own);
          }),
    ],
    [
      'pictures',
      (f: ReturnType<typeof extractPage>) => f.images.map((i) => i.alt),
      ($: CheerioAPI) =>
        inHtml($, 'img')
          .toArray()
          .map((el) => $(el).attr('alt') ?? null),
    ],
    [
      'the language',
      (f: ReturnType<typeof extractPage>) => f.lang?.value ?? null,
      ($: CheerioAPI) => $('html').attr('lang') ?? null,
    ],
    [
      'scripts',
      (f: ReturnType<typeof extractPage>) => f.scripts.length,
      ($: CheerioAPI) =>
        inHtml($, 'script').filter((_, el) => !/ld\+json/.test($(el).attr('type') ?? '')).length,
    ],
  ] as const)('have the same %s', (_, ours, theirs) => {
    const differing: string[] = [];
    for (const { file, text } of pages) {
      const facts = extractPage(text, BASE);
      if (facts.cut.length) continue;
      const [a, b] = [JSON.stringify(ours(facts)), JSON.stringify(theirs(load(text)))];
      if (a !== b) differing.push(`${file}\n  ours   ${a.slice(0, 300)}\n  theirs ${b.slice(0, 300)}`);
    }
    expect(differing.slice(0, 5).join('\n')).toBe('');
  });
  it('have the same links, resolved against the base', () => {
    const differing: string[] = [];
    for (const { file, text } of pages) {
      const facts = extractPage(text, BASE);
      if (facts.cut.length) continue;
      const $ = load(text);
      const first = $('base[href]').first().attr('href');
      let base = BASE;
      try {
        if (first !== undefined) base = new URL(first, BASE).href;
      } catch {
        /* a base that is none does not count */
      }
      const plain = (hrefs: string[]): string[] => [
        ...new Set(
          hrefs.flatMap((href) => {
            const u = parseUrl(href, base);
            if (!u) return [];
            u.hash = '';
            return [u.href];
          }),
        ),
      ];
      // each address once, whatever its fragment: that is how ours are kept
      const theirs = plain(
        inHtml($, 'a[href], area[href]')
          .toArray()
          .map((el) => $(el).attr('href')!),
      );
      const ours = plain(facts.anchors.map((a) => a.href));
      if (JSON.stringify(ours) !== JSON.stringify(theirs))
        differing.push(
          `${file}\n  ours   ${JSON.stringify(ours.filter((u) => !theirs.includes(u))).slice(0, 300)}\n  theirs ${JSON.stringify(theirs.filter((u) => !ours.includes(u))).slice(0, 300)}`,
        );
    }
    expect(differing.slice(0, 5).join('\n')).toBe('');
  });
});
