/** Addresses that lead to pages read under another one, sitemaps of other hosts, noindex charged once. */
import { describe, expect, it } from 'vitest';
import { readManifest } from '#core/extract/manifest';
import { parseSitemap } from '#core/extract/sitemap';
import type { Brief } from '#core/facts/brief';
import type { Chain, Evidence } from '#core/facts/evidence';
import {
  ask,
  brief,
  chain,
  evidence,
  HEAD,
  HOME as home,
  page,
  withHome,
  withPages,
} from '#core/checks/example-evidence';

const XMLNS = 'http://www.sitemaps.org/schemas/sitemap/0.9';
const urlset = (...urls: string[]) =>
  parseSitemap(`<urlset xmlns="${XMLNS}">${urls.map((u) => `<url><loc>${u}</loc></url>`).join('')}</urlset>`);
const judged = (check: string, e: Evidence, b: Partial<Brief> = {}) =>
  ask(check, { evidence: e, brief: { ...brief(), ...b } });

describe('an address that leads to a page already read was read', () => {
  const withDetour = (from: string, to: string): Evidence => {
    const e = evidence();
    return { ...e, links: [{ url: home + from, own: true, chain: chain([home + from, home + to]) }] };
  };
  it('in the sitemap', () => {
    const e = withDetour('songs', 'songs/');
    e.sitemaps[0]!.facts = urlset(home, `${home}songs`);
    expect(judged('indexing.sitemap-pages', e)).toMatchObject({
      outcome: 'failed',
      found: expect.stringContaining('leads to https://marsh-choir.example/songs/') as string,
    });
  });
  it('as a required page', () => {
    expect(
      judged('identity.required-pages', withDetour('songs', 'songs/'), { requiredPages: ['/songs'] }),
    ).toMatchObject({ outcome: 'passed', found: 'linked, 200, leads to https://marsh-choir.example/songs/' });
    expect(
      judged('identity.required-pages', withDetour('imprint', ''), { requiredPages: ['/imprint'] }),
    ).toMatchObject({ outcome: 'failed', found: 'leads to the home page' });
  });
  it.each<[string, string[], number | undefined, string]>([
    ['through its new address on', ['old', 'songs', 'songs/'], undefined, 'passed'],
    ['through it to the home page', ['old', 'songs', ''], undefined, 'failed'],
    ['through it, but not for good', ['old', 'songs', 'songs/'], 302, 'failed'],
    ['past it', ['old', 'songs/'], undefined, 'failed'],
  ])('a former address that leads %s', (_, urls, redirect, wanted) => {
    const former: { from: string; chain: Chain }[] = [
      {
        from: '/old',
        chain: chain(
          urls.map((u) => home + u),
          200,
          undefined,
          redirect,
        ),
      },
    ];
    const b = { formerAddresses: [{ from: '/old', to: '/songs' }] };
    expect(judged('indexing.old-addresses', evidence({ former }), b).outcome).toBe(wanted);
  });
});

describe('what a sitemap says of other hosts (sitemaps.org, "sitemaps & cross submits")', () => {
  const other = 'https://shop.marsh-choir.example/';
  const file = `${home}sitemap.xml`;
  const with_ = (sitemaps: string[] | undefined, status = 200): Evidence => {
    const e = evidence();
    e.sitemaps[0] = { ...e.sitemaps[0]!, from: 'robots', facts: urlset(home, `${other}songs/`) };
    const robots = chain([`${other}robots.txt`], status);
    return {
      ...e,
      vouching: [{ host: 'shop.marsh-choir.example', chain: robots, ...(sitemaps ? { sitemaps } : {}) }],
    };
  };
  it.each<[string, Evidence, string]>([
    ['its robots.txt names the sitemap', with_([file]), 'passed'],
    ['its robots.txt names another', with_([`${other}sitemap.xml`]), 'failed'],
    ['it has no robots.txt', with_(undefined, 404), 'failed'],
    ['its robots.txt was not asked for', { ...with_([]), vouching: undefined }, 'cantTell'],
  ])('%s', (_, e, wanted) => {
    expect(judged('indexing.sitemap-limits', e).outcome).toBe(wanted);
  });
  it('a sitemap elsewhere that our own robots.txt names', () => {
    const e = evidence();
    e.sitemaps[0] = { ...e.sitemaps[0]!, url: 'https://files.example/s.xml', from: 'robots' };
    e.sitemaps[0].facts = urlset(home);
    expect(judged('indexing.sitemap-limits', e).outcome).toBe('passed');
  });
  it('an index that lists an index', () => {
    const index = (url: string, ...lists: string[]) => ({
      url,
      from: 'robots' as const,
      chain: chain([url]),
      facts: parseSitemap(
        `<sitemapindex xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${lists.map((l) => `<sitemap><loc>${l}</loc></sitemap>`).join('')}</sitemapindex>`,
      ),
    });
    const [a, b] = [`${home}a.xml`, `${home}b.xml`];
    const outcomeOf = (e: Evidence): string => judged('indexing.sitemap-limits', e).outcome;
    const own = evidence().sitemaps[0]!;
    expect(outcomeOf({ ...evidence(), sitemaps: [index(a, own.url), own] })).toBe('passed');
    expect(outcomeOf({ ...evidence(), sitemaps: [index(a, b), index(b, own.url), own] })).toBe('failed');
  });
  it('a namespace of its own', () => {
    const e = evidence();
    e.sitemaps[0]!.facts = parseSitemap(`<urlset xmlns="urn:x"><url><loc>${home}</loc></url></urlset>`);
    expect(judged('indexing.sitemap-limits', e).found).toContain('urn:x');
  });
});

describe('one noindex is charged once (rule 3)', () => {
  const NOINDEX = '<meta name="robots" content="noindex">';
  const kept = (via: 'sitemap' | 'link', path = 'songs/', name = 'robots'): Evidence => {
    const e = evidence();
    const url = home + path;
    e.pages[2] = page({ url, via, head: HEAD + NOINDEX.replace('robots', name) });
    if (via === 'link') e.sitemaps[0]!.facts = urlset(home, `${home}about/`);
    return e;
  };
  const failing = (e: Evidence, b: Partial<Brief> = {}) =>
    [
      'indexing.let-in',
      'indexing.unexpected-noindex',
      'indexing.sitemap-pages',
      'indexing.canonical-agrees',
    ].filter((check) => judged(check, e, b).outcome === 'failed');
  it.each<[string, Evidence, Partial<Brief>, string[]]>([
    ['a page in the sitemap', kept('sitemap'), {}, ['indexing.let-in']],
    ['a page reached by links alone', kept('link'), {}, ['indexing.unexpected-noindex']],
    ['one that the brief hides', kept('link'), { hiddenPaths: ['/songs'] }, []],
    ['a search', kept('link', 'search/'), {}, []],
    ['thanks', kept('link', 'thank-you/'), {}, []],
    ['for a crawler that nobody named', kept('link', 'songs/', 'tidebot'), {}, []],
    [
      'for one that the brief names',
      kept('link', 'songs/', 'tidebot'),
      { crawlers: ['TideBot'] },
      ['indexing.unexpected-noindex'],
    ],
    [
      'hidden, and named in the sitemap',
      kept('sitemap'),
      { hiddenPaths: ['/songs'] },
      ['indexing.sitemap-pages'],
    ],
  ])('%s', (_, e, b, wanted) => {
    expect(failing(e, b)).toEqual(wanted);
  });
  it('a canonical that leads to it rests on it', () => {
    const e = kept('link');
    e.pages[1] = page({
      url: `${home}about/`,
      via: 'brief',
      head: `${HEAD}<link rel="canonical" href="${home}songs/">`,
    });
    const found = judged('indexing.canonical-agrees', e);
    expect(found.outcome).toBe('passed');
    expect(found.places.map((p) => p.place)).toEqual([home]);
  });
});

describe('nothing points back at staging', () => {
  const draft = 'https://draft.host.example/';
  const of = (head: string, manifest: Evidence['manifest'] = null) =>
    judged('indexing.no-staging-links', { ...withHome({ head: HEAD + head }), manifest }).outcome;
  it.each([
    ['og:image', `<meta property="og:image" content="${draft}a.png">`],
    ['twitter:image', `<meta name="twitter:image" content="${draft}a.png">`],
    ['an icon', `<link rel="icon" href="${draft}a.png">`],
    ['hreflang', `<link rel="alternate" hreflang="de" href="${draft}de/">`],
    ['the manifest', `<link rel="manifest" href="${draft}m.json">`],
    [
      'JSON-LD, however deep',
      `<script type="application/ld+json">{"@type":"A","b":{"c":["${draft}"]}}</script>`,
    ],
    ['a refresh', `<meta http-equiv="refresh" content="9; url=${draft}">`],
  ])('%s', (_, head) => {
    expect(of(head)).toBe('failed');
  });
  it('what the manifest names', () => {
    const url = `${home}m.json`;
    const facts = readManifest(JSON.stringify({ icons: [{ src: `${draft}i.png` }] }), url);
    expect(of('', { url, chain: chain([url]), facts })).toBe('failed');
    expect(of('', { url, chain: chain([url]), facts: readManifest('{"start_url":"/"}', url) })).toBe(
      'passed',
    );
  });
  it('its own addresses', () => {
    expect(of(`<meta property="og:image" content="${home}a.png">`)).toBe('passed');
  });
});

describe('alternates', () => {
  it.each([
    [404, 'failed'],
    [403, 'cantTell'],
    [200, 'failed'],
  ])('one that answers %s', (status, wanted) => {
    const url = `${home}de/`;
    const e = withHome({ head: `${HEAD}<link rel="alternate" hreflang="de" href="${url}">` });
    e.pages.push({ ...page({ url, status }), via: 'named' });
    expect(judged('indexing.alternates', e).outcome).toBe(wanted);
  });
});

it('the recipe for hreflang gives the whole set, with x-default', () => {
  const line = (tag: string, path: string): string =>
    `<link rel="alternate" hreflang="${tag}" href="${home}${path}">`;
  const english = page({ url: `${home}songs/`, head: line('de', 'de/lieder/') });
  const german = page({ url: `${home}de/lieder/` });
  german.facts!.lang!.value = 'de';
  const b = { ...brief(), languages: ['en', 'de'] };
  const { outcome, recipe } = ask('indexing.alternates', { evidence: withPages(english, german), brief: b });
  expect(outcome).toBe('failed');
  expect(recipe!.paste).toEqual([
    {
      label: `Tags for ${home}songs/`,
      text: [line('de', 'de/lieder/'), line('en-GB', 'songs/'), line('x-default', 'songs/')].join('\n'),
    },
  ]);
});
