/** robots.txt, sitemaps, canonicals, old addresses, duplicates. */
import { describe, expect, it } from 'vitest';
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge } from '#core/checks/engine/judge';
import { extractPage } from '#core/extract/html';
import { mayFetch, parseRobots } from '#core/extract/robots';
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
import type { Message } from '#core/facts/message';
import { formatMessage } from '#core/text/messages';

const words = (said: Message | undefined): string | undefined => said && formatMessage(said);

const home = 'https://marsh-choir.example/';
const robots = (text: string, more: Partial<Evidence['robots']> = {}): Evidence =>
  evidence({ robots: { ...evidence().robots, text, facts: parseRobots(text), bytes: text.length, ...more } });
const map = (...urls: string[]) => ({
  url: `${home}sitemap.xml`,
  from: 'default' as const,
  chain: chain([`${home}sitemap.xml`]),
  bytes: 100,
  facts: parseSitemap(
    `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${urls.map((u) => `<url>${u.includes('<') ? u : `<loc>${u}</loc>`}</url>`).join('')}</urlset>`,
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
  describe('500 KiB are read (RFC 9309 2.5)', () => {
    it.each([
      ["robots('User-agent: *', { bytes: 512_000 })", robots('User-agent: *', { bytes: 512_000 }), 'passed'],
      ["robots('User-agent: *', { bytes: 512_001 })", robots('User-agent: *', { bytes: 512_001 }), 'failed'],
      ["robots('', { facts: undefined })", robots('', { facts: undefined }), 'inapplicable'],
    ])('%s', (_, e, wanted) => {
      expect(out('indexing.robots-well-formed', e)).toBe(wanted);
    });
  });
  describe('scripts and styles of the own host may be fetched', () => {
    const asset = (url: string) => ({ url, roles: ['style' as const], chain: chain([url]) });
    const judged = (text: string, url = `${home}s.css`) =>
      out('indexing.robots-assets', { ...robots(text), assets: [asset(url)] });
    it.each([
      ['User-agent: *\nDisallow: /s', undefined, 'failed'],
      ['User-agent: *\nDisallow: /s\nAllow: /*.css$', undefined, 'passed'],
      ['User-agent: a\nDisallow: /', undefined, 'passed'],
      ['User-agent: *\nDisallow: /', 'https://cdn.example/s.css', 'inapplicable'],
    ])('%s, %s: %s', (text, url, wanted) => {
      expect(judged(text, url)).toBe(wanted);
    });
  });
  describe('names no staging host and no private path', () => {
    it.each([
      ["robots('# draft.host.example\\n')", robots('# draft.host.example\n'), undefined, 'failed'],
      [
        "robots('User-agent: *\\nDisallow: /board/'), { hiddenPaths: ['/board/']",
        robots('User-agent: *\nDisallow: /board/'),
        {
          hiddenPaths: ['/board/'],
        },
        'failed',
      ],
      [
        "robots('User-agent: *\\nDisallow: /cart/')",
        robots('User-agent: *\nDisallow: /cart/'),
        undefined,
        'passed',
      ],
      [
        "robots('x: y'), { stagingHosts: [], hiddenPaths: [] }",
        robots('x: y'),
        { stagingHosts: [], hiddenPaths: [] },
        'untested',
      ],
    ])('%s', (_, e, b, wanted) => {
      expect(out('indexing.robots-no-secrets', e, b)).toBe(wanted);
    });
  });
});

describe('sitemaps', () => {
  const limits = (...urls: string[]) =>
    out('indexing.sitemap-limits', evidence({ sitemaps: [map(...urls)] }));
  describe('absolute, own host, dates that are over (sitemaps.org 0.9)', () => {
    it.each([
      ['home', home, 'passed'],
      ["'/about/'", '/about/', 'failed'],
      ["'https://other.example/'", 'https://other.example/', 'cantTell'],
      [
        '`<loc>${home}</loc><lastmod>2026-11-24</lastmod>`',
        `<loc>${home}</loc><lastmod>2026-11-24</lastmod>`,
        'passed',
      ],
      [
        '`<loc>${home}</loc><lastmod>2026-11-27</lastmod>`',
        `<loc>${home}</loc><lastmod>2026-11-27</lastmod>`,
        'failed',
      ],
      [
        '`<loc>${home}</loc><lastmod>24.11.2026</lastmod>`',
        `<loc>${home}</loc><lastmod>24.11.2026</lastmod>`,
        'failed',
      ],
      ["`${home}${'a'.repeat(2048)}`", `${home}${'a'.repeat(2048)}`, 'failed'],
    ])('%s', (_, one, wanted) => {
      expect(limits(one)).toBe(wanted);
    });
  });
  describe('50,000 addresses and 52,428,800 bytes', () => {
    const m = map(home);
    const judged = (change: (x: typeof m) => void) => {
      const x = map(home);
      change(x);
      return out('indexing.sitemap-limits', evidence({ sitemaps: [x] }));
    };
    it.each<[string, Parameters<typeof judged>[0], string]>([
      [
        '(x) => { x.facts.count = 50_000; }',
        (x) => {
          x.facts.count = 50_000;
        },
        'passed',
      ],
      [
        '(x) => { x.facts.count = 50_001; }',
        (x) => {
          x.facts.count = 50_001;
        },
        'failed',
      ],
      [
        '(x) => { x.bytes = 52_428_800; }',
        (x) => {
          x.bytes = 52_428_800;
        },
        'passed',
      ],
      [
        '(x) => { x.bytes = 52_428_801; }',
        (x) => {
          x.bytes = 52_428_801;
        },
        'failed',
      ],
    ])('%s', (_, change, wanted) => {
      expect(judged(change)).toBe(wanted);
    });
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
    expect(words(dateFault(text, AT))).toBe(fault);
  });
  describe('names pages that answer, may be listed and are their own canonical', () => {
    const judged = (p: ReturnType<typeof page>) =>
      out('indexing.sitemap-pages', {
        ...withPages(page({ url: home, via: 'home' }), p),
        sitemaps: [map(`${home}x/`)],
      });
    it.each([
      ["page({ url: `${home}x/`, via: 'sitemap' })", page({ url: `${home}x/`, via: 'sitemap' }), 'passed'],
      ['page({ url: `${home}x/`, status: 404 })', page({ url: `${home}x/`, status: 404 }), 'failed'],
      [
        'page({ url: `${home}x/`, head: \'<meta name="robots" content="noindex">',
        page({ url: `${home}x/`, head: '<meta name="robots" content="noindex">' }),
        'cantTell',
      ],
      [
        'page({ url: `${home}x/`, head: `<link rel="canonical" href="${home}">`',
        page({ url: `${home}x/`, head: `<link rel="canonical" href="${home}">` }),
        'failed',
      ],
      [
        '{ ...page({ url: `${home}y/` }), requested: `${home}x/` }',
        { ...page({ url: `${home}y/` }), requested: `${home}x/` },
        'failed',
      ],
      ['page({ url: `${home}x/`, status: 500 })', page({ url: `${home}x/`, status: 500 }), 'cantTell'],
      ['page({ url: `${home}x/`, status: 403 })', page({ url: `${home}x/`, status: 403 }), 'cantTell'],
    ])('%s', (_, p, wanted) => {
      expect(judged(p)).toBe(wanted);
    });
  });
  describe('knows the pages that links know, less search and the like', () => {
    const judged = (...pages: ReturnType<typeof page>[]) =>
      out('indexing.sitemap-complete', {
        ...withPages(page({ url: home, via: 'home' }), ...pages),
        sitemaps: [map(home)],
      });
    it.each([
      ['page({ url: `${home}songs/` })', page({ url: `${home}songs/` }), 'failed'],
      ['page({ url: `${home}?s=x` })', page({ url: `${home}?s=x` }), 'passed'],
      ['page({ url: `${home}tag/water/` })', page({ url: `${home}tag/water/` }), 'passed'],
      [
        'page({ url: `${home}songs/`, head: \'<meta name="robots" content="noind',
        page({ url: `${home}songs/`, head: '<meta name="robots" content="noindex">' }),
        'passed',
      ],
    ])('%s', (_, one, wanted) => {
      expect(judged(one)).toBe(wanted);
    });
    it.each([
      ['none', () => judged(), 'passed'],
      [
        "{ ...withPages(page({ url: home, via: 'home' }), page({ url: `${home}i",
        () =>
          out('indexing.sitemap-complete', {
            ...withPages(page({ url: home, via: 'home' }), page({ url: `${home}island/`, via: 'sitemap' })),
            sitemaps: [map(home, `${home}island/`)],
          }),
        'failed',
      ],
    ])('%s', (_, outcome, wanted) => {
      expect(outcome()).toBe(wanted);
    });
  });
});

describe('canonicals (RFC 6596)', () => {
  const to = (url: string) => `<link rel="canonical" href="${url}">`;
  const agrees = (a: string, ...others: ReturnType<typeof page>[]) =>
    out(
      'indexing.canonical-agrees',
      withPages(page({ url: home, via: 'home' }), page({ url: `${home}a/`, head: to(a) }), ...others),
    );
  describe('lead to a page that answers, may be listed and names itself', () => {
    it.each([
      ['`${home}a/`', () => agrees(`${home}a/`), 'passed'],
      [
        '`${home}b/`, page({ url: `${home}b/` })',
        () => agrees(`${home}b/`, page({ url: `${home}b/` })),
        'passed',
      ],
      [
        '`${home}b/`, page({ url: `${home}b/`, status: 404 })',
        () => agrees(`${home}b/`, page({ url: `${home}b/`, status: 404 })),
        'failed',
      ],
      [
        '`${home}b/`, page({ url: `${home}b/`, head: to(home) })',
        () => agrees(`${home}b/`, page({ url: `${home}b/`, head: to(home) })),
        'failed',
      ],
      [
        '`${home}b/`, page({ url: `${home}b/`, head: \'<meta name="robots" conte',
        () => agrees(`${home}b/`, page({ url: `${home}b/`, head: '<meta name="robots" content="noindex">' })),
        'passed',
      ],
      ['`${home}b/`', () => agrees(`${home}b/`), 'cantTell'],
    ])('%s', (_, outcome, wanted) => {
      expect(outcome()).toBe(wanted);
    });
  });
  describe('are not the home page, unless the page is a copy of it', () => {
    it.each([
      [
        "withPages(page({ url: home, via: 'home' }), page({ url: `${home}a/`, h",
        withPages(page({ url: home, via: 'home' }), page({ url: `${home}a/`, head: to(home) })),
        'failed',
      ],
      [
        "withPages(page({ url: home, via: 'home' }), page({ url: `${home}a/` })",
        withPages(page({ url: home, via: 'home' }), page({ url: `${home}a/` })),
        'passed',
      ],
    ])('%s', (_, e, wanted) => {
      expect(out('indexing.canonical-own', e)).toBe(wanted);
    });
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
  describe('permanently, to the new address and not to the home page', () => {
    it.each([
      [['old.html', 'about/'], undefined, undefined, 'passed'],
      [['old.html', 'about/'], 308, undefined, 'passed'],
      [['old.html', 'about/'], 302, undefined, 'failed'],
      [['old.html', ''], undefined, undefined, 'failed'],
      [['old.html'], 301, 404, 'failed'],
      [['old.html', 'about/'], 301, 404, 'failed'],
    ])('%j, %s, %s: %s', (head, urls, three, wanted) => {
      expect(judged(head, urls, three)).toBe(wanted);
    });
  });
  it.each([
    [410, 'passed'],
    [404, 'failed'],
    [200, 'failed'],
  ])('gone on purpose, and answers %i: %s', (status, wanted) => {
    const former = [{ from: '/old.html', chain: chain([`${home}old.html`], status) }];
    const b = { formerAddresses: [{ from: '/old.html', to: '410' }] };
    expect(out('indexing.old-addresses', evidence({ former }), b)).toBe(wanted);
  });
  describe('untested, not wanted, not asked', () => {
    it.each([
      [undefined, 'untested'],
      [{ notWanted: { formerAddresses: 'new' } }, 'inapplicable'],
      [{ formerAddresses: [{ from: '/x', to: '/' }] }, 'cantTell'],
    ])('%j: %s', (b, wanted) => {
      expect(out('indexing.old-addresses', evidence(), b)).toBe(wanted);
    });
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
    expect(words(addressFault(home + path))).toBe(fault);
  });
});

describe('after the launch', () => {
  const holding = (more: object) =>
    page({ url: `${home}soon/`, body: '<p>Something is being built here</p>', ...more });
  describe('the holding page is gone, or out of sight', () => {
    const b = { holding: { mark: 'Something is being built here' } };
    const probed = (sample: string) =>
      out(
        'indexing.holding-page-gone',
        evidence({ paths: [{ path: '/coming-soon/', chain: chain([`${home}coming-soon/`]), sample }] }),
        b,
      );
    it.each([
      ['evidence(), b', evidence(), b, 'passed'],
      [
        "withPages(page({ url: home, via: 'home' }), holding({})), b",
        withPages(page({ url: home, via: 'home' }), holding({})),
        b,
        'failed',
      ],
      [
        "{ ...withPages( page({ url: home, via: 'home' }), holding({ head: '<me",
        {
          ...withPages(
            page({ url: home, via: 'home' }),
            holding({ head: '<meta name="robots" content="noindex">' }),
          ),
          sitemaps: [],
        },
        b,
        'passed',
      ],
      ['evidence()', evidence(), undefined, 'inapplicable'],
    ])('%s', (_, e, b, wanted) => {
      expect(out('indexing.holding-page-gone', e, b)).toBe(wanted);
    });
    it.each([
      ['<h1>Something is being built here</h1>', 'failed'],
      ['<meta name=robots content=noindex><h1>Something is being built here</h1>', 'passed'],
      ['<h1>Our songs</h1>', 'passed'],
    ])('%s: %s', (sample, wanted) => {
      expect(probed(sample)).toBe(wanted);
    });
  });
  describe('staging is locked, gone, or leads to the live site; and then nothing more is asked of it', () => {
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
    it.each([
      ['at(200), true', at(200), true, 'failed'],
      ['at(401), true', at(401), true, 'passed'],
      ['at(404), true', at(404), true, 'passed'],
      ['at(410), true', at(410), true, 'passed'],
      [
        "staging({ pages: [{ ...page({ url: home, via: 'home' }), requested: ur",
        staging({
          pages: [{ ...page({ url: home, via: 'home' }), requested: url, chain: chain([url, home]) }],
        }),
        true,
        'passed',
      ],
      [
        "staging({ pages: [{ ...page({ url, via: 'home' }), chain: brokenChain(",
        staging({
          pages: [{ ...page({ url, via: 'home' }), chain: brokenChain(url, 'no-name'), facts: undefined }],
        }),
        true,
        'passed',
      ],
      ['at(200), false', at(200), false, 'inapplicable'],
      ['at(200)', at(200), undefined, 'untested'],
    ])('%s', (_, e, launched, wanted) => {
      expect(judged(e, launched)).toBe(wanted);
    });
    it('with its access stored it is judged as staging', () => {
      const inside = staging({
        target: {
          url,
          hosts: ['draft.host.example'],
          registrable: 'host.example',
          kind: 'before',
          wayIn: 'credentials',
        },
        hosts: [
          host('draft.host.example', {
            role: 'environment',
            https: chain(['https://draft.host.example/'], 401),
          }),
        ],
        pages: [page({ url, via: 'home', status: 200, title: 'Marsh Choir' })],
      });
      expect(judged(inside, true)).toBe('passed');
      expect(
        ask('metadata.title-present', { evidence: inside, situation: 'staging', launched: true }).outcome,
      ).toBe('passed');
    });
    it('says it in words', () => {
      expect(
        ask('metadata.title-present', { evidence: at(401), situation: 'staging', launched: true }),
      ).toMatchObject({
        outcome: 'inapplicable',
        reason: expect.stringContaining('closed after the launch') as string,
      });
    });
  });
});

describe('links and languages', () => {
  describe('links that answer, are dead, refused, or only a fault of the server', () => {
    const judged = (status: number) =>
      out(
        'indexing.links-answer',
        withPages(
          page({ url: home, via: 'home', body: '<a href="/x/">x</a>' }),
          page({ url: `${home}x/`, status }),
        ),
      );
    const file = (status: number) =>
      out('indexing.links-answer', {
        ...withPages(page({ url: home, via: 'home', body: '<a href="/x.pdf">x</a>' })),
        links: [{ url: `${home}x.pdf`, own: true, chain: chain([`${home}x.pdf`], status) }],
      });
    it.each([
      [200, 'passed'],
      [399, 'passed'],
      [404, 'failed'],
      [403, 'cantTell'],
      [500, 'passed'],
    ])('%s: %s', (status, wanted) => {
      expect(judged(status)).toBe(wanted);
    });
    it.each([
      [200, 'passed'],
      [404, 'failed'],
    ])('%s: %s', (status, wanted) => {
      expect(file(status)).toBe(wanted);
    });
  });
  describe('alternates: valid tags, absolute, returned (BCP 47)', () => {
    const alt = (lang: string, href: string) => `<link rel="alternate" hreflang="${lang}" href="${href}">`;
    const judged = (head: string, other = '') =>
      out(
        'indexing.alternates',
        withPages(page({ url: home, via: 'home', head }), page({ url: `${home}cy/`, head: other })),
      );
    it.each([
      ["''", '', undefined, 'inapplicable'],
      ["alt('en-UK', home)", alt('en-UK', home), undefined, 'failed'],
      ["alt('cy', '/cy/')", alt('cy', '/cy/'), undefined, 'failed'],
      ["alt('cy', `${home}cy/`)", alt('cy', `${home}cy/`), undefined, 'failed'],
      ["alt('cy', `${home}cy/`), alt('en', home)", alt('cy', `${home}cy/`), alt('en', home), 'passed'],
      ["alt('x-default', home)", alt('x-default', home), undefined, 'passed'],
    ])('%s', (_, head, other, wanted) => {
      expect(judged(head, other)).toBe(wanted);
    });
  });
});

describe('indexing.no-duplicates', () => {
  const twin = (url: string, head = '') => {
    const p = page({ url: home + url, head });
    p.facts = { ...p.facts!, text: 'the same words on two pages', textLength: 27 };
    return p;
  };
  describe('the same text at two addresses, unless one canonical or language ties them', () => {
    const judged = (...pages: ReturnType<typeof page>[]) =>
      out('indexing.no-duplicates', {
        ...withPages(page({ url: home, via: 'home' }), ...pages),
        variants: [],
      });
    it.each([
      ["twin('b/')", twin('b/'), 'failed'],
      [
        'twin(\'b/\', `<link rel="canonical" href="${home}a/">`)',
        twin('b/', `<link rel="canonical" href="${home}a/">`),
        'passed',
      ],
      [
        'twin(\'b/\', `<link rel="alternate" hreflang="cy" href="${home}a/">`)',
        twin('b/', `<link rel="alternate" hreflang="cy" href="${home}a/">`),
        'failed',
      ],
      ["twin('a/page/2/')", twin('a/page/2/'), 'passed'],
    ])('%s', (_, two, wanted) => {
      expect(judged(twin('a/'), two)).toBe(wanted);
    });
  });
  it('the other slash form, where no canonical says which counts', () => {
    const judged = (head: string, urls: string[]) =>
      out('indexing.no-duplicates', {
        ...withPages(page({ url: home, via: 'home' }), { ...page({ url: `${home}a/`, head }) }),
        variants: [{ url: `${home}a`, of: `${home}a/`, chain: chain(urls.map((u) => home + u)), text: 'x' }],
      });
    expect(judged('<link rel="x canonical-not" href="/">', ['a', 'a/'])).toBe('passed');
    expect(judged('', ['a'])).toBe('passed');
    const bare = withPages(page({ url: home, via: 'home' }), page({ url: `${home}a/` }));
    bare.pages[1]!.facts!.links = [];
    expect(
      out('indexing.no-duplicates', {
        ...bare,
        variants: [{ url: `${home}a`, of: `${home}a/`, chain: chain([`${home}a`]), text: 'x' }],
      }),
    ).toBe('failed');
  });
  describe('nearly the same long text, from the likeness on that is set', () => {
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
    it('a stricter likeness', () => {
      expect(ask('indexing.no-duplicates', { evidence: e, parameters: { likeness: 95 } }).outcome).toBe(
        'failed',
      );
    });
  });
});

describe('indexing.alternates before the launch', () => {
  const base = 'https://draft.fennel.example/choir/';
  const live = 'https://marsh-choir.example/';
  const links = (...of: [string, string][]): string =>
    of.map(([tag, href]) => `<link rel="alternate" hreflang="${tag}" href="${href}">`).join('');
  const at = (path: string, lang: string, head: string) => {
    const url = base + path;
    const p = page({ url, via: path ? 'link' : 'home' });
    p.facts = extractPage(`<html lang="${lang}"><title>x</title>${head}<p>Words</p></html>`, url);
    return p;
  };
  const judged = (...pages: ReturnType<typeof at>[]) => {
    const e = evidence({ pages });
    e.target = { ...e.target, url: base, hosts: ['draft.fennel.example'], kind: 'before' };
    return ask('indexing.alternates', {
      evidence: e,
      situation: 'staging',
      brief: { ...brief(), preferredHost: 'marsh-choir.example', languages: ['en-GB', 'de'] },
    });
  };
  const set = links(['en', live], ['de', `${live}de/`], ['x-default', live]);

  it('the live host stands for this environment', () =>
    expect(judged(at('', 'en', set), at('de/', 'de', set)).outcome).toBe('passed'));
  it('a page that does not point back fails, and the recipe names the live addresses', () => {
    const { outcome, found, recipe } = judged(at('', 'en', set), at('de/', 'de', ''));
    expect([outcome, found]).toEqual(['failed', `${base}de/ does not point back`]);
    expect(recipe!.paste![0]!.text.split('\n')).toEqual([
      `<link rel="alternate" hreflang="de" href="${live}de/">`,
      `<link rel="alternate" hreflang="en" href="${live}">`,
      `<link rel="alternate" hreflang="x-default" href="${live}">`,
    ]);
  });
});

describe('a server that answers everything with a page', () => {
  const shown = '<!doctype html><title>Nothing here</title><p>Nothing here';
  const all = (more: Partial<Evidence> = {}): Evidence => ({
    ...evidence(),
    notFound: chain([`${home}armband-no-such-page-7f3a`]),
    notFoundTitle: 'Nothing here',
    notFoundSample: shown.slice(0, 300),
    ...more,
  });
  const resting = (check: string, e: Evidence, b = {}) => {
    const { outcome, code } = ask(check, { evidence: e, brief: { ...brief(), ...b } });
    return [outcome, code];
  };
  const standIn = (path: string) => page({ url: home + path, title: 'Nothing here' });

  it('is charged once', () =>
    expect(ask('indexing.not-found-status', { evidence: all() }).outcome).toBe('failed'));
  it('its robots.txt rests on that', () =>
    expect(
      resting(
        'indexing.robots-answers',
        all({ robots: { chain: chain([`${home}robots.txt`]), contentType: 'text/html', text: shown } }),
      )[0],
    ).toBe('cantTell'));
  it('a hidden page that shows the same rests on that', () =>
    expect(
      resting('indexing.hidden-kept-out', all({ hidden: [standIn('thanks')] }), {
        hiddenPaths: ['/thanks'],
      })[0],
    ).toBe('cantTell'));
  it('a link that shows the same is not said to be answered', () => {
    const e = all();
    e.pages = [page({ url: home, via: 'home', body: '<a href="/gone">Gone</a>' }), standIn('gone')];
    const places = ask('indexing.links-answer', { evidence: e }).places.map((p) => p.place);
    expect(places).not.toContain(`${home}gone`);
  });
  it.each([
    ['a required page', 'identity.required-pages', { requiredPages: ['/gone'] }],
    ['an address of the sitemap', 'indexing.sitemap-pages', {}],
  ])('%s that shows the same is not said to be there', (_, check, b) => {
    const e = all({ sitemaps: [map(`${home}gone`)] });
    e.pages = [page({ url: home, via: 'home', body: '<a href="/gone">Gone</a>' }), standIn('gone')];
    expect(resting(check, e, b)[0]).toBe('cantTell');
  });
  it('the other slash form says nothing', () => {
    const url = `${home}songs/`;
    const e = all({ variants: [{ url, of: `${home}songs`, chain: chain([url]), text: 'x' }] });
    e.pages = [
      page({ url: home, via: 'home' }),
      page({ url: `${home}songs`, head: '<link rel="canonical">' }),
    ];
    expect(resting('indexing.no-duplicates', e)[0]).toBe('passed');
  });
});

describe('a hidden page', () => {
  const hiddenPaths = ['/trade'];
  /** Every live check with a place that fails on the hidden page. */
  const complaints = (head: string, more: Partial<Evidence> = {}): string[] => {
    const e = {
      ...withPages(
        page({ url: home, via: 'home', body: '<a href="/trade">Trade</a>' }),
        page({ url: `${home}trade`, head: HEAD + head, title: 'Prices for the trade – Marsh Choir' }),
      ),
      ...more,
    };
    return judge({
      evidence: e,
      brief: { ...brief(), hiddenPaths },
      profile: { name: 'Fennel' },
      checklist: fullChecklist(),
      situation: 'live',
      at: AT,
    })
      .filter((f) => f.places.some((p) => p.outcome === 'failed' && p.place === `${home}trade`))
      .map((f) => f.check);
  };
  it('with noindex, and linked, is as it should be', () =>
    expect(complaints('<meta name="robots" content="noindex">')).toEqual([]));
  it('without it is charged once', () => expect(complaints('')).toEqual(['indexing.hidden-kept-out']));
});

describe('what is to be pasted into robots.txt for scripts and styles', () => {
  const asset = (path: string) => ({
    url: home + path,
    roles: ['script' as const],
    chain: chain([home + path]),
  });
  it.each([
    ['build/app.3f9a1c2b.js', 'build/app.aa00bb11.js', 'Allow: /build/app.*.js'],
    ['build/index-BxC9a_3k.css', 'build/index-Zz8Qq_11.css', 'Allow: /build/index-*.css'],
    ['build/main.js', 'build/main.js', 'Allow: /build/main.js'],
    ['build/documentation.js', 'build/documentation.js', 'Allow: /build/documentation.js'],
  ])('%s: the next build is allowed too', (path, next, line) => {
    const rules = 'User-agent: *\nDisallow: /build/';
    const { recipe } = ask('indexing.robots-assets', {
      evidence: { ...robots(rules), assets: [asset(path)] },
    });
    expect(recipe!.paste![0]!.text).toBe(line);
    const after = parseRobots(`${rules}\n${line}`);
    for (const file of [path, next]) expect(mayFetch(after, '*', home + file).allowed).toBe(true);
  });
});
