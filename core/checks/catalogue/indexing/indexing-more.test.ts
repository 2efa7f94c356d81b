/** robots.txt, sitemaps, canonicals, old addresses, duplicates. */
import { describe, expect, it } from 'vitest';
import { parseRobots } from '#core/extract/robots';
import { parseSitemap } from '#core/extract/sitemap';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import {
  ask,
  AT,
  brief,
  brokenChain,
  chain,
  evidence,
  host,
  HEAD,
  page,
  withHome,
  withPages,
} from '#core/checks/example-evidence';
import { addressFault } from './readable-addresses';
import { dateFault } from './sitemap-limits';

const home = 'https://marsh-choir.example/';
const robots = (text: string, more: Partial<Evidence['robots']> = {}): Evidence =>
  evidence({ robots: { ...evidence().robots, text, facts: parseRobots(text), bytes: text.length, ...more } });
const map = (...urls: string[]) => ({
  url: `${home}sitemap.xml`,
  from: 'default' as const,
  chain: chain([`${home}sitemap.xml`]),
  bytes: 100,
  facts: parseSitemap(
    `<urlset>${urls.map((u) => `<url>${u.includes('<') ? u : `<loc>${u}</loc>`}</url>`).join('')}</urlset>`,
  ),
});
const out = (check: string, e: Evidence, b: Partial<Brief> = {}, more: object = {}) =>
  ask(check, { evidence: e, brief: { ...brief(), ...b }, ...more }).outcome;

describe('robots.txt', () => {
  it.each([
    ['User-agent: *\nDisallow: /x', 'passed'],
    ['Disallow: /x\nUser-agent: *', 'failed'],
    ['User-agent: *\nDissallow: /x', 'failed'],
    ['User-agent: *\nHost: a.example', 'passed'],
    ['', 'passed'],
  ])('well formed: %j: %s (RFC 9309 2.2)', (text, outcome) => {
    expect(out('indexing.robots-well-formed', robots(text))).toBe(outcome);
  });
  it('500 KiB are read (RFC 9309 2.5)', () => {
    expect([
      out('indexing.robots-well-formed', robots('User-agent: *', { bytes: 512_000 })),
      out('indexing.robots-well-formed', robots('User-agent: *', { bytes: 512_001 })),
      out('indexing.robots-well-formed', robots('', { facts: undefined })),
    ]).toEqual(['passed', 'failed', 'inapplicable']);
  });
  it('scripts and styles of the own host may be fetched', () => {
    const asset = (url: string) => ({ url, roles: ['style' as const], chain: chain([url]) });
    const judged = (text: string, url = `${home}s.css`) =>
      out('indexing.robots-assets', { ...robots(text), assets: [asset(url)] });
    expect([
      judged('User-agent: *\nDisallow: /s'),
      judged('User-agent: *\nDisallow: /s\nAllow: /*.css$'),
      judged('User-agent: a\nDisallow: /'),
      judged('User-agent: *\nDisallow: /', 'https://cdn.example/s.css'),
    ]).toEqual(['failed', 'passed', 'passed', 'inapplicable']);
  });
  it('names no staging host and no private path', () => {
    expect([
      out('indexing.robots-no-secrets', robots('# draft.host.example\n')),
      out('indexing.robots-no-secrets', robots('User-agent: *\nDisallow: /board/'), {
        hiddenPaths: ['/board/'],
      }),
      out('indexing.robots-no-secrets', robots('User-agent: *\nDisallow: /cart/')),
      out('indexing.robots-no-secrets', robots('x: y'), { stagingHosts: [], hiddenPaths: [] }),
    ]).toEqual(['failed', 'failed', 'passed', 'untested']);
  });
});

describe('sitemaps', () => {
  const limits = (...urls: string[]) =>
    out('indexing.sitemap-limits', evidence({ sitemaps: [map(...urls)] }));
  it('absolute, own host, dates that are over (sitemaps.org 0.9)', () => {
    expect([
      limits(home),
      limits('/about/'),
      limits('https://other.example/'),
      limits(`<loc>${home}</loc><lastmod>2026-11-24</lastmod>`),
      limits(`<loc>${home}</loc><lastmod>2026-11-27</lastmod>`),
      limits(`<loc>${home}</loc><lastmod>24.11.2026</lastmod>`),
      limits(`${home}${'a'.repeat(2048)}`),
    ]).toEqual(['passed', 'failed', 'failed', 'passed', 'failed', 'failed', 'failed']);
  });
  it('50,000 addresses and 52,428,800 bytes', () => {
    const m = map(home);
    const judged = (change: (x: typeof m) => void) => {
      const x = map(home);
      change(x);
      return out('indexing.sitemap-limits', evidence({ sitemaps: [x] }));
    };
    expect([
      judged((x) => {
        x.facts.count = 50_000;
      }),
      judged((x) => {
        x.facts.count = 50_001;
      }),
      judged((x) => {
        x.bytes = 52_428_800;
      }),
      judged((x) => {
        x.bytes = 52_428_801;
      }),
    ]).toEqual(['passed', 'failed', 'passed', 'failed']);
  });
  // W3C Datetime: the forms its note prints
  it.each([
    ['1997', undefined],
    ['1997-07', undefined],
    ['1997-07-16', undefined],
    ['1997-07-16T19:20+01:00', undefined],
    ['1997-07-16T19:20:30+01:00', undefined],
    ['1997-07-16T19:20:30.45+01:00', undefined],
    ['1997-7-16', 'no W3C date'],
    ['1997-13', 'no W3C date'],
    ['1997-07-16T19:20', 'no W3C date'],
    ['2027-01-01', 'in the future'],
  ])('%s: %s', (text, fault) => {
    expect(dateFault(text, AT)).toBe(fault);
  });
  it('names pages that answer, may be listed and are their own canonical', () => {
    const judged = (p: ReturnType<typeof page>) =>
      out('indexing.sitemap-pages', {
        ...withPages(page({ url: home, via: 'home' }), p),
        sitemaps: [map(`${home}x/`)],
      });
    expect([
      judged(page({ url: `${home}x/`, via: 'sitemap' })),
      judged(page({ url: `${home}x/`, status: 404 })),
      judged(page({ url: `${home}x/`, head: '<meta name="robots" content="noindex">' })),
      judged(page({ url: `${home}x/`, head: `<link rel="canonical" href="${home}">` })),
      judged({ ...page({ url: `${home}y/` }), requested: `${home}x/` }),
      judged(page({ url: `${home}x/`, status: 500 })),
      judged(page({ url: `${home}x/`, status: 403 })),
    ]).toEqual(['passed', 'failed', 'failed', 'failed', 'failed', 'cantTell', 'cantTell']);
  });
  it('knows the pages that links know, less search and the like', () => {
    const judged = (...pages: ReturnType<typeof page>[]) =>
      out('indexing.sitemap-complete', {
        ...withPages(page({ url: home, via: 'home' }), ...pages),
        sitemaps: [map(home)],
      });
    expect([
      judged(),
      judged(page({ url: `${home}songs/` })),
      judged(page({ url: `${home}?s=x` })),
      judged(page({ url: `${home}tag/water/` })),
      judged(page({ url: `${home}songs/`, head: '<meta name="robots" content="noindex">' })),
    ]).toEqual(['passed', 'failed', 'passed', 'passed', 'passed']);
    expect(
      out('indexing.sitemap-complete', {
        ...withPages(page({ url: home, via: 'home' }), page({ url: `${home}island/`, via: 'sitemap' })),
        sitemaps: [map(home, `${home}island/`)],
      }),
    ).toBe('failed');
  });
});

describe('canonicals (RFC 6596)', () => {
  const to = (url: string) => `<link rel="canonical" href="${url}">`;
  const agrees = (a: string, ...others: ReturnType<typeof page>[]) =>
    out(
      'indexing.canonical-agrees',
      withPages(page({ url: home, via: 'home' }), page({ url: `${home}a/`, head: to(a) }), ...others),
    );
  it('lead to a page that answers, may be listed and names itself', () => {
    expect([
      agrees(`${home}a/`),
      agrees(`${home}b/`, page({ url: `${home}b/` })),
      agrees(`${home}b/`, page({ url: `${home}b/`, status: 404 })),
      agrees(`${home}b/`, page({ url: `${home}b/`, head: to(home) })),
      agrees(`${home}b/`, page({ url: `${home}b/`, head: '<meta name="robots" content="noindex">' })),
      agrees(`${home}b/`),
    ]).toEqual(['passed', 'passed', 'failed', 'failed', 'failed', 'cantTell']);
  });
  it('are not the home page, unless the page is a copy of it', () => {
    expect([
      out(
        'indexing.canonical-own',
        withPages(page({ url: home, via: 'home' }), page({ url: `${home}a/`, head: to(home) })),
      ),
      out('indexing.canonical-own', withPages(page({ url: home, via: 'home' }), page({ url: `${home}a/` }))),
    ]).toEqual(['failed', 'passed']);
  });
});

describe('indexing.old-addresses', () => {
  const judged = (hops: string[], status = 301, end = 200) =>
    out(
      'indexing.old-addresses',
      evidence({
        former: [
          {
            from: '/old.html',
            chain: chain(
              hops.map((p) => home + p),
              end,
              undefined,
              status,
            ),
          },
        ],
      }),
      { formerAddresses: [{ from: '/old.html', to: '/about/' }] },
    );
  it('permanently, to the new address and not to the home page', () => {
    expect([
      judged(['old.html', 'about/']),
      judged(['old.html', 'about/'], 308),
      judged(['old.html', 'about/'], 302),
      judged(['old.html', '']),
      judged(['old.html'], 301, 404),
      judged(['old.html', 'about/'], 301, 404),
    ]).toEqual(['passed', 'passed', 'failed', 'failed', 'failed', 'failed']);
  });
  it('untested, not wanted, not asked', () => {
    expect([
      out('indexing.old-addresses', evidence()),
      out('indexing.old-addresses', evidence(), { notWanted: { formerAddresses: 'new' } }),
      out('indexing.old-addresses', evidence(), { formerAddresses: [{ from: '/x', to: '/' }] }),
    ]).toEqual(['untested', 'inapplicable', 'cantTell']);
  });
});

describe('indexing.readable-addresses', () => {
  it.each([
    ['about-us/', undefined],
    ['news/2026/11/', undefined],
    ['news/page/2/', undefined],
    ['news/2026/', undefined],
    ['shows/17/', 'told apart by a number alone'],
    ['?p=17', 'told apart by a number alone'],
    ['item.php?id=4', 'told apart by a number alone'],
    ['About/', 'capital letters'],
    ['a%20b/', 'a space'],
    ['x;jsessionid=1', 'a session id'],
    ['x?PHPSESSID=2', 'a session id'],
    ['b%C3%BCcher/', undefined],
    ['search?q=water', undefined],
  ])('%s: %s', (path, fault) => {
    expect(addressFault(home + path)).toBe(fault);
  });
});

describe('after the launch', () => {
  const holding = (more: object) =>
    page({ url: `${home}soon/`, body: '<p>Something is being built here</p>', ...more });
  it('the holding page is gone, or out of sight', () => {
    const b = { holding: { mark: 'Something is being built here' } };
    expect([
      out('indexing.holding-page-gone', evidence(), b),
      out('indexing.holding-page-gone', withPages(page({ url: home, via: 'home' }), holding({})), b),
      out(
        'indexing.holding-page-gone',
        {
          ...withPages(
            page({ url: home, via: 'home' }),
            holding({ head: '<meta name="robots" content="noindex">' }),
          ),
          sitemaps: [],
        },
        b,
      ),
      out('indexing.holding-page-gone', evidence()),
    ]).toEqual(['passed', 'failed', 'passed', 'inapplicable']);
    const probed = (sample: string) =>
      out(
        'indexing.holding-page-gone',
        evidence({ paths: [{ path: '/coming-soon/', chain: chain([`${home}coming-soon/`]), sample }] }),
        b,
      );
    expect([
      probed('<h1>Something is being built here</h1>'),
      probed('<meta name=robots content=noindex><h1>Something is being built here</h1>'),
      probed('<h1>Our songs</h1>'),
    ]).toEqual(['failed', 'passed', 'passed']);
  });
  it('staging is locked, gone, or leads to the live site; and then nothing more is asked of it', () => {
    const url = 'https://draft.host.example/';
    const staging = (more: Partial<Evidence>) =>
      evidence({
        target: {
          url,
          hosts: ['draft.host.example'],
          registrable: 'host.example',
          kind: 'before',
          wayIn: 'open',
        },
        hosts: [host('draft.host.example', { role: 'environment' })],
        ...more,
      });
    const judged = (e: Evidence, launched?: boolean) =>
      ask('indexing.staging-closed', { evidence: e, situation: 'staging', launched }).outcome;
    const at = (status: number) => staging({ pages: [page({ url, via: 'home', status })] });
    expect([
      judged(at(200), true),
      judged(at(401), true),
      judged(at(404), true),
      judged(at(410), true),
      judged(
        staging({
          pages: [{ ...page({ url: home, via: 'home' }), requested: url, chain: chain([url, home]) }],
        }),
        true,
      ),
      judged(
        staging({
          pages: [{ ...page({ url, via: 'home' }), chain: brokenChain(url, 'no-name'), facts: undefined }],
        }),
        true,
      ),
      judged(at(200), false),
      judged(at(200)),
    ]).toEqual(['failed', 'passed', 'passed', 'passed', 'passed', 'passed', 'inapplicable', 'untested']);
    expect(
      ask('metadata.title-present', { evidence: at(401), situation: 'staging', launched: true }),
    ).toMatchObject({
      outcome: 'inapplicable',
      reason: expect.stringContaining('closed after the launch') as string,
    });
  });
});

describe('links and languages', () => {
  it('links that answer, are dead, refused, or only a fault of the server', () => {
    const judged = (status: number) =>
      out(
        'indexing.links-answer',
        withPages(
          page({ url: home, via: 'home', body: '<a href="/x/">x</a>' }),
          page({ url: `${home}x/`, status }),
        ),
      );
    expect([judged(200), judged(399), judged(404), judged(403), judged(500)]).toEqual([
      'passed',
      'passed',
      'failed',
      'cantTell',
      'passed',
    ]);
    const file = (status: number) =>
      out('indexing.links-answer', {
        ...withPages(page({ url: home, via: 'home', body: '<a href="/x.pdf">x</a>' })),
        links: [{ url: `${home}x.pdf`, own: true, chain: chain([`${home}x.pdf`], status) }],
      });
    expect([file(200), file(404)]).toEqual(['passed', 'failed']);
  });
  it('alternates: valid tags, absolute, returned (BCP 47)', () => {
    const alt = (lang: string, href: string) => `<link rel="alternate" hreflang="${lang}" href="${href}">`;
    const judged = (head: string, other = '') =>
      out(
        'indexing.alternates',
        withPages(page({ url: home, via: 'home', head }), page({ url: `${home}cy/`, head: other })),
      );
    expect([
      judged(''),
      judged(alt('en-UK', home)),
      judged(alt('cy', '/cy/')),
      judged(alt('cy', `${home}cy/`)),
      judged(alt('cy', `${home}cy/`), alt('en', home)),
      judged(alt('x-default', home)),
    ]).toEqual(['inapplicable', 'failed', 'failed', 'failed', 'passed', 'passed']);
  });
});

describe('indexing.no-duplicates', () => {
  const twin = (url: string, head = '') => {
    const p = page({ url: home + url, head });
    p.facts = { ...p.facts!, text: 'the same words on two pages', textLength: 27 };
    return p;
  };
  it('the same text at two addresses, unless one canonical or language ties them', () => {
    const judged = (...pages: ReturnType<typeof page>[]) =>
      out('indexing.no-duplicates', {
        ...withPages(page({ url: home, via: 'home' }), ...pages),
        variants: [],
      });
    expect([
      judged(twin('a/'), twin('b/')),
      judged(twin('a/'), twin('b/', `<link rel="canonical" href="${home}a/">`)),
      judged(twin('a/'), twin('b/', `<link rel="alternate" hreflang="cy" href="${home}a/">`)),
      judged(twin('a/'), twin('a/page/2/')),
    ]).toEqual(['failed', 'passed', 'failed', 'passed']);
  });
  it('the other slash form, where no canonical says which counts', () => {
    const judged = (head: string, urls: string[]) =>
      out('indexing.no-duplicates', {
        ...withPages(page({ url: home, via: 'home' }), { ...page({ url: `${home}a/`, head }) }),
        variants: [{ url: `${home}a`, of: `${home}a/`, chain: chain(urls.map((u) => home + u)), text: 'x' }],
      });
    expect([judged('<link rel="x canonical-not" href="/">', ['a', 'a/']), judged('', ['a'])]).toEqual([
      'passed',
      'passed',
    ]);
    const bare = withPages(page({ url: home, via: 'home' }), page({ url: `${home}a/` }));
    bare.pages[1]!.facts!.links = [];
    expect(
      out('indexing.no-duplicates', {
        ...bare,
        variants: [{ url: `${home}a`, of: `${home}a/`, chain: chain([`${home}a`]), text: 'x' }],
      }),
    ).toBe('failed');
  });
  it('nearly the same long text, from the likeness on that is set', () => {
    const words = Array.from({ length: 300 }, (_, i) => `word${(i * 37) % 211}`).join(' ');
    const long = (url: string, text: string) => {
      const p = page({ url: home + url, head: HEAD });
      p.facts = { ...p.facts!, text, textLength: text.length };
      return p;
    };
    const e = {
      ...withHome({}),
      pages: [page({ url: home, via: 'home' }), long('a/', words), long('b/', `${words} end`)],
      variants: [],
    };
    expect([
      ask('indexing.no-duplicates', { evidence: e, parameters: { likeness: 95 } }).outcome,
      ask('indexing.no-duplicates', { evidence: e, parameters: { likeness: 100 } }).outcome,
    ]).toEqual(['failed', 'passed']);
  });
});
