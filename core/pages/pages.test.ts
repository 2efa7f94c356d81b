/** Pages as a table, where their texts come from, and one of them opened. */
import { describe, expect, it } from 'vitest';
import { judge } from '#core/checks/engine/judge';
import { fullChecklist } from '#core/checks/engine/checklist';
import { AT, brief, chain, evidence, HOME, page, withPages } from '#core/checks/example-evidence';
import { SiteView } from '#core/checks/view/site-view';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import { facetCounts, pageFacet } from './facets';
import { pageDetail } from './page-detail';
import type { PageLine } from './page-line';
import { textFit } from './fit';
import { pageTable, roomsOf, type PagesInput } from './page-table';
import { Origins, type OriginField } from './provenance';
import { liesIn, structureOf } from './structure';

function inputOf(
  e: Evidence,
  more: Partial<Brief> = {},
  profile: HostProfile = { name: 'Host' },
): PagesInput {
  const b = { ...brief(), ...more };
  const checklist = fullChecklist();
  const findings = judge({
    evidence: e,
    brief: b,
    profile,
    checklist,
    situation: 'live',
    at: AT,
    skipManual: true,
  });
  return { view: new SiteView(e, b, profile, 'live'), findings, rooms: roomsOf(checklist) };
}
const lines = (e: Evidence, more?: Partial<Brief>, profile?: HostProfile): Map<string, PageLine> =>
  new Map(pageTable(inputOf(e, more, profile)).map((p) => [p.url.slice(HOME.length), p]));

describe('the table of pages', () => {
  const home = (body = ''): ReturnType<typeof page> =>
    page({ url: HOME, via: 'home', title: 'Marsh Choir – songs by the water', body });

  it('counts links in and out, words and depth, and knows what the sitemap names', () => {
    const found = lines(evidence());
    expect(found.get('')).toMatchObject({ status: 200, depth: 0, inSitemap: true, linksOut: 3 });
    expect(found.get('about/')).toMatchObject({ depth: 1, linksIn: found.size - 1 });
    expect(found.get('about/')!.words).toBeGreaterThan(15);
    expect(found.get('about/')!.orphan).toBeUndefined();
  });

  it.each([
    ['noindex in a meta tag', { head: '<meta name="robots" content="noindex">' }, 'noindex in a meta tag'],
    [
      'noindex in a header',
      {
        headers: [
          ['X-Robots-Tag', 'none'],
          ['content-type', 'text/html'],
        ],
      },
      'none in a header',
    ],
    ['another canonical', { head: `<link rel="canonical" href="${HOME}">` }, `canonical is ${HOME}`],
    ['an error', { status: 404 }, 'it answers 404'],
    ['nothing', {}, undefined],
  ] as const)('says why a page is not listed: %s', (_, parts, why) => {
    const e = withPages(home(), page({ url: `${HOME}a`, ...(parts as object) }));
    expect(lines(e).get('a')!.keptOut).toBe(why);
  });

  it('says which line of robots.txt keeps a page out', () => {
    const e = withPages(home(), page({ url: `${HOME}a` }));
    e.robots.facts!.groups = [
      { agents: ['*'], rules: [{ allow: false, pattern: '/a', line: 3, raw: 'Disallow: /a' }] },
    ];
    expect(lines(e).get('a')!.keptOut).toBe('robots.txt, line 3: Disallow: /a');
  });

  it('shares no text with copies, and counts a text that two pages have on both', () => {
    const found = lines(
      withPages(
        home(),
        page({ url: `${HOME}a`, title: 'Same' }),
        page({ url: `${HOME}b`, title: 'Same' }),
        page({ url: `${HOME}c`, title: 'Same', head: `<link rel="canonical" href="${HOME}a">` }),
      ),
    );
    expect([...found].filter(([, p]) => p.title.shared).map(([url]) => url)).toEqual(['a', 'b']);
    expect(found.get('c')!.copyOf).toBe(true);
  });

  it('charges a broken link to the page that carries it, and a fault to its page with the gravest severity', () => {
    const e = withPages(
      home('<a href="/gone/">gone</a>'),
      page({ url: `${HOME}gone/`, status: 404 }),
      page({ url: `${HOME}a`, title: null, head: '<meta name="robots" content="noindex">' }),
    );
    const found = lines(e);
    expect(found.get('')!.broken).toBe(1);
    expect(found.get('a')!.broken).toBe(0);
    expect(found.get('a')).toMatchObject({ worst: 'major' });
    expect(found.get('a')!.faults).toBeGreaterThan(1);
  });

  it('names pages that nothing links to, and what was asked for under another address', () => {
    const moved = {
      ...page({ url: `${HOME}new/` }),
      requested: `${HOME}old/`,
      chain: chain([`${HOME}old/`, `${HOME}new/`]),
    };
    const found = lines(withPages(home(), moved));
    expect(found.get('new/')).toMatchObject({ asked: `${HOME}old/`, orphan: true, depth: null });
    expect(found.get('')!.orphan).toBeUndefined();
  });

  it('a page that is linked under its old address alone is no orphan', () => {
    const moved = {
      ...page({ url: `${HOME}new/` }),
      requested: `${HOME}old/`,
      chain: chain([`${HOME}old/`, `${HOME}new/`]),
    };
    const found = lines(withPages(home('<a href="/old/">old</a>'), moved)).get('new/')!;
    expect(found).toMatchObject({ linksIn: 1, depth: 1 });
    expect(found.orphan).toBeUndefined();
  });

  it('takes what a listing holds from the checklist', () => {
    const items = [{ check: 'metadata.title-length', parameters: { least: 5, most: 20, width: 300 } }];
    const { title, description } = roomsOf({ items });
    expect(title).toEqual({ least: 5, most: 20, width: 300, size: 20 });
    expect(description).toEqual({ least: 80, most: 150, width: 900, size: 14 });
    expect(['', 'abc', 'abcdef', 'abcdefghijklmnopqrstuv'].map((t) => textFit(t, title).fit)).toEqual([
      'missing',
      'short',
      'fits',
      'long',
    ]);
  });
});

describe('facets', () => {
  it('counts those that have pages, and finds them', () => {
    const all = [
      ...lines(
        withPages(
          page({ url: HOME, via: 'home', title: 'Marsh Choir – songs by the water' }),
          page({ url: `${HOME}a`, title: 'Short', description: null }),
        ),
      ).values(),
    ];
    const counts = Object.fromEntries(facetCounts(all).map((f) => [f.key, f.count]));
    expect(counts).toMatchObject({ missing: 1, short: 1, orphan: 1, 'not-in-sitemap': 1 });
    expect(counts).not.toHaveProperty('broken-link');
    expect(all.filter(pageFacet('missing')!.of).map((p) => p.url)).toEqual([`${HOME}a`]);
  });
});

describe('where a text comes from', () => {
  const profile: HostProfile = {
    name: 'Host',
    defaults: { titles: ['My new site'], texts: ['Made with us'] },
  };
  const many = (title: (n: number) => string, description?: (n: number) => string): Evidence =>
    withPages(
      page({ url: HOME, via: 'home', title: 'Marsh Choir – songs by the water' }),
      ...Array.from({ length: 9 }, (_, n) =>
        page({
          url: `${HOME}p${n}`,
          title: title(n),
          ...(description ? { description: description(n) } : {}),
        }),
      ),
    );
  const origin = (e: Evidence, at: string, field: OriginField, b: Partial<Brief> = {}) => {
    const { view } = inputOf(e, b, profile);
    return new Origins(view).of(view.byUrl.get(HOME + at)!).find((o) => o.field === field)!;
  };

  it.each([
    ['its own', (n: number) => `Page ${n} of the choir`, {}, 'page', 'said'],
    ['the host’s, by its profile', () => 'My new  site', {}, 'host', 'said'],
    [
      'the site’s, as the brief says',
      () => 'All our songs',
      { defaultTitle: 'All our songs' },
      'site',
      'said',
    ],
    ['the site’s name alone', () => 'MARSH CHOIR', {}, 'site', 'said'],
    ['likely the site’s, since most pages carry it', () => 'Songs for everyone', {}, 'site', 'likely'],
    ['none', () => '', {}, 'nothing', 'said'],
  ] as const)('a title that is %s', (_, title, b, of, sure) => {
    expect(origin(many(title), 'p1', 'title', b)).toMatchObject({ of, sure });
  });

  it('says what the others would give', () => {
    expect(
      origin(
        many((n) => `Page ${n}`),
        'p1',
        'title',
        { defaultTitle: 'All our songs' },
      ).others,
    ).toEqual([
      { of: 'site', value: 'All our songs' },
      { of: 'host', value: 'My new site' },
    ]);
  });

  it('two pages that share a text do not make it the site’s', () => {
    expect(
      origin(
        many((n) => (n < 2 ? 'Twice here' : `Page ${n}`)),
        'p1',
        'title',
      ).of,
    ).toBe('page');
  });

  it('reads robots and the canonical too', () => {
    const e = withPages(
      page({ url: HOME, via: 'home', head: '<meta name="robots" content="nofollow, noimageindex">' }),
    );
    expect(origin(e, '', 'robots').value).toBe('nofollow, noimageindex');
    expect(origin(e, '', 'canonical').value).toBe(HOME);
  });
});

describe('a page opened', () => {
  const then = withPages(
    page({ url: HOME, via: 'home', title: 'Marsh Choir – songs by the water' }),
    page({ url: `${HOME}a`, title: 'Old title', description: 'The same' }),
  );
  const now = withPages(
    page({
      url: HOME,
      via: 'home',
      title: 'Marsh Choir – songs by the water',
      body: '<a href="/a">To A</a>',
    }),
    page({
      url: `${HOME}a`,
      title: 'New title',
      description: 'The same',
      head: `<link rel="alternate" hreflang="cy" href="${HOME}"><script type="application/ld+json">{"@type":</script>`,
    }),
  );
  const opened = (url: string) => pageDetail(url, inputOf(now), inputOf(then).view);

  it('shows where a tag stands, who links to it and what it links to', () => {
    const found = opened(`${HOME}a`)!;
    expect(found.snippets.find((s) => s.label === 'title')).toMatchObject({
      raw: '<title>New title',
      line: 1,
    });
    expect(found.linksIn).toEqual({ count: 1, list: [{ url: HOME, text: 'To A', line: 1 }] });
    expect(found.linksOut.list.find((l) => l.text === 'Home')).toMatchObject({ url: HOME, status: 200 });
    expect(found.outline).toEqual([{ level: 1, text: '/a', line: 1 }]);
  });

  it('says that the other side of hreflang does not return it, and that a JSON-LD block does not parse', () => {
    const found = opened(`${HOME}a`)!;
    expect(found.alternates).toEqual([{ language: 'cy', url: HOME, returned: false }]);
    expect(found.jsonLd[0]!.error).toBeTruthy();
  });

  it('says what changed since the audit before, and nothing of what did not', () => {
    expect(opened(`${HOME}a`)!.changes).toEqual([{ what: 'title', before: 'Old title', now: 'New title' }]);
    expect(pageDetail(`${HOME}a`, inputOf(now))!.changes).toBeNull();
  });

  it('names the findings of this page and no other', () => {
    const found = opened(`${HOME}a`)!;
    expect(found.findings.map((f) => f.check)).toContain('metadata.title-length');
    expect(found.findings).toHaveLength(
      found.page.faults + found.findings.filter((f) => f.outcome !== 'failed').length,
    );
  });

  it('knows no page that the audit did not see', () => {
    expect(opened(`${HOME}nowhere`)).toBeUndefined();
  });
});

describe('structure', () => {
  const line = (url: string, more: Partial<PageLine> = {}): PageLine =>
    ({ url: HOME + url, bytes: 100, faults: 0, ...more }) as PageLine;

  it('counts pages, bytes and the gravest fault into every folder above', () => {
    const [root] = structureOf([
      line(''),
      line('songs/'),
      line('songs/old/a', { faults: 2, worst: 'minor' }),
      line('songs/old/b', { faults: 1, worst: 'major', bytes: 300 }),
    ]);
    expect(root).toMatchObject({
      name: 'marsh-choir.example',
      pages: 4,
      bytes: 600,
      faults: 3,
      worst: 'major',
    });
    const songs = root!.children[0]!;
    expect(songs).toMatchObject({ name: 'songs', page: `${HOME}songs/`, pages: 3, worst: 'major' });
    expect(songs.children[0]).toMatchObject({ name: 'old', pages: 2, bytes: 400 });
    expect(songs.children[0]!.page).toBeUndefined();
  });

  it('the host with most pages comes first, and an endless path is cut', () => {
    const deep = `${'x/'.repeat(400)}end`;
    const trees = structureOf([line(deep), line('a'), { ...line(''), url: 'https://other.example/' }]);
    expect(trees.map((t) => t.name)).toEqual(['marsh-choir.example', 'other.example']);
    let depth = 0;
    for (let at = trees[0]!.children[0]; at; at = at.children[0]) depth++;
    expect(depth).toBe(12);
  });

  it.each([
    ['songs/a', 'songs/', true],
    ['songs/', 'songs/', true],
    ['songs', 'songs/', true],
    ['songs?page=2', 'songs/', true],
    ['songsheet', 'songs/', false],
  ])('%s lies in %s: %s', (url, folder, is) => {
    expect(liesIn(HOME + url, HOME + folder)).toBe(is);
  });
});
