/** Hidden pages, what holds listings back, links that have moved, links to other sites. */
import { describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import type { Chain, Evidence, Header, PageEvidence } from '#core/facts/evidence';
import {
  ask,
  AT,
  brief,
  brokenChain,
  chain,
  evidence,
  HEAD,
  HOME as home,
  page,
  withHome,
  withPages,
} from '#core/checks/example-evidence';
import { parseRobots } from '#core/extract/robots';
import { limitsOf, statementsOf } from '#core/checks/view/index-directives';

const with_ = (more: Partial<Brief>): Brief => ({ ...brief(), ...more });

describe('indexing.hidden-kept-out', () => {
  const thanks = `${home}thanks/`;
  const hidden = (
    parts: Partial<Parameters<typeof page>[0]> = {},
    change: Partial<PageEvidence> = {},
  ): Evidence => evidence({ hidden: [{ ...page({ url: thanks, via: 'brief', ...parts }), ...change }] });
  const judged = (e: Evidence, paths: string[] | undefined = ['/thanks/']) =>
    ask('indexing.hidden-kept-out', { evidence: e, brief: with_({ hiddenPaths: paths }) });
  const NOINDEX = '<meta name="robots" content="noindex">';

  it('noindex in page or header, credentials and absence pass; openness fails', () => {
    const outcome = (e: Evidence) => judged(e).places[0]!;
    expect(outcome(hidden({ head: NOINDEX }))).toMatchObject({
      outcome: 'passed',
      found: 'noindex in the page',
      place: thanks,
    });
    expect(outcome(hidden({ headers: [['X-Robots-Tag', 'noindex']] }))).toMatchObject({
      outcome: 'passed',
      found: 'noindex in the header',
    });
    expect(outcome(hidden({ head: '<meta name="tidebot" content="noindex">' }))).toMatchObject({
      outcome: 'failed',
      found: 'open to all but tidebot',
    });
    expect([401, 404, 410, 403, 500].map((status) => outcome(hidden({ status })).outcome)).toEqual([
      'passed',
      'passed',
      'passed',
      'cantTell',
      'cantTell',
    ]);
    expect(outcome(hidden({}, { chain: brokenChain(thanks, 'timeout') })).outcome).toBe('cantTell');
    expect(outcome(hidden())).toMatchObject({ outcome: 'failed', found: 'open to search engines' });
    expect(
      outcome(
        hidden(
          {},
          { url: `${home}sign-in/`, chain: chain([thanks, `${home}sign-in/`], 200, undefined, 302) },
        ),
      ),
    ).toMatchObject({ outcome: 'passed', found: `leads to ${home}sign-in/` });
    expect(
      outcome(hidden({}, { url: `${home}thanks`, chain: chain([thanks, `${home}thanks`]) })),
    ).toMatchObject({ outcome: 'failed', found: 'open to search engines' });
  });
  it('a Disallow keeps nothing out of listings, and hides a noindex (RFC 9309 3)', () => {
    const shut = (e: Evidence): Evidence => ({
      ...e,
      robots: { ...e.robots, facts: parseRobots('User-agent: *\nDisallow: /thanks/\n') },
    });
    expect(judged(shut(hidden()))).toMatchObject({
      outcome: 'failed',
      places: [
        {
          found: 'only a Disallow, which does not keep an address out of listings',
          raw: 'Disallow: /thanks/',
        },
      ],
    });
    const behind = judged(shut(hidden({ head: NOINDEX })));
    expect(behind.places[0]!.found).toBe('noindex behind a Disallow, so it is never seen');
    expect(
      judged({
        ...hidden({ head: NOINDEX }),
        robots: { ...evidence().robots, facts: parseRobots('User-agent: *\nDisallow: /\n') },
      }).places[0],
    ).toMatchObject({
      outcome: 'cantTell',
      reason: expect.stringContaining('rests on indexing.robots-allows'),
    });
    expect(behind.recipe!.paste!.at(-1)).toEqual({
      label: 'To take out of robots.txt',
      text: 'Disallow: /thanks/',
    });
    expect(behind.recipe!.paste!.filter((p) => /^(?:nginx|Apache)/.test(p.label)).map((p) => p.text)).toEqual(
      [
        'map $request_uri $kept_out {\n  default "";\n  "~^(?:/thanks)(?:[/?]|$)" "noindex";\n}',
        'add_header X-Robots-Tag $kept_out always;',
        'Header always set X-Robots-Tag "noindex" "expr=%{THE_REQUEST} =~ m#^\\S+ (?:/thanks)(?:[/?]|(?= ))#"',
      ],
    );
  });
  it('pages below a hidden path count too, and a page that was met by links is judged as it was met', () => {
    const e = evidence();
    const below = {
      ...e,
      pages: [
        ...e.pages,
        page({ url: `${home}trade/prices/`, head: HEAD }),
        page({ url: `${home}trade/list/`, head: HEAD + NOINDEX }),
      ],
    };
    expect(judged(below, ['/trade']).places.map((p) => [p.place, p.outcome])).toEqual([
      [`${home}trade/prices/`, 'failed'],
      [`${home}trade/list/`, 'passed'],
    ]);
    expect(judged({ ...e, pages: [...e.pages, page({ url: thanks, head: HEAD })] }).places).toHaveLength(1);
    expect(judged(e, ['/songs/']).places[0]).toMatchObject({
      outcome: 'failed',
      found: 'open to search engines, and named in the sitemap',
    });
    expect(judged(below, ['/trad']).outcome).toBe('cantTell');
  });
  it('paths begin where the audit began, on another scheme and port too', () => {
    const base = 'http://marsh-choir.example:8080/';
    const e = evidence({
      pages: [page({ url: base, via: 'home' })],
      hidden: [page({ url: `${base}thanks/`, via: 'brief' })],
    });
    expect(
      judged({ ...e, target: { ...e.target, url: base } }, ['/thanks/', 'thanks/']).places.map((p) => [
        p.place,
        p.outcome,
      ]),
    ).toEqual([
      [`${base}thanks/`, 'failed'],
      [`${base}thanks/`, 'failed'],
    ]);
  });
  describe('without evidence or brief it says so', () => {
    it.each([
      ['no pages hidden', () => judged(evidence(), []).outcome, 'untested'],
      [
        "{ brief: with_({ hiddenPaths: [], notWanted: { hiddenPaths: 'nothing i",
        () =>
          ask('indexing.hidden-kept-out', {
            brief: with_({ hiddenPaths: [], notWanted: { hiddenPaths: 'nothing is hidden' } }),
          }).outcome,
        'inapplicable',
      ],
    ])('%s', (_, outcome, wanted) => {
      expect(outcome()).toBe(wanted);
    });
    it('says it in words', () => {
      expect(judged(evidence())).toMatchObject({
        outcome: 'cantTell',
        places: [{ reason: 'it was not asked for' }],
      });
    });
  });
});

describe('indexing.shown-in-full', () => {
  const judged = (head: string, headers?: Header[]) =>
    ask('indexing.shown-in-full', { evidence: withHome({ head: HEAD + head, headers }) });
  const robots = (content: string, name = 'robots') => `<meta name="${name}" content="${content}">`;
  it.each([
    'nofollow',
    'index, NOFOLLOW',
    'nosnippet',
    'max-snippet:0',
    'max-snippet: 0, follow',
    'max-image-preview:none',
    'noimageindex',
    'unavailable_after: 2026-01-31',
  ])('“%s” holds back', (content) => {
    expect(judged(robots(content)).outcome).toBe('failed');
  });
  it.each([
    'index, follow',
    'max-snippet:-1, max-image-preview:large, max-video-preview:-1',
    'max-snippet:01',
    'max-snippet:160',
    'noarchive',
    'unavailable_after: 2027-01-31',
    'unavailable_after: some day',
    '',
  ])('“%s” does not', (content) => {
    expect(judged(robots(content)).outcome).toBe('passed');
  });
  it('is read from headers too, and says for whom', () => {
    expect(judged('', [['X-Robots-Tag', 'nofollow']]).places[0]).toMatchObject({
      found: 'nofollow in the header',
      raw: 'X-Robots-Tag: nofollow',
    });
    expect(judged(robots('nofollow', 'tidebot')).outcome).toBe('passed');
    expect(
      ask('indexing.shown-in-full', {
        evidence: withHome({ head: HEAD + robots('nofollow', 'tidebot') }),
        brief: { ...brief(), crawlers: ['TideBot'] },
      }).places[0],
    ).toMatchObject({
      found: 'nofollow in the page for tidebot',
    });
  });
  it('a date with commas in it is read whole, and what follows it is not part of it', () => {
    const limits = (content: string) =>
      limitsOf(statementsOf(page({ url: home, head: robots(content) })), AT).map((l) => l.directive);
    expect(limits('unavailable_after: Sat, 31 Jan 2026 10:00:00 GMT, nofollow')).toEqual([
      'unavailable_after sat, 31 jan 2026 10:00:00 gmt',
      'nofollow',
    ]);
    const long = page({ url: home, headers: [['X-Robots-Tag', `unavailable_after:${' '.repeat(60_000)}x`]] });
    const started = performance.now();
    expect(limitsOf(statementsOf(long), AT)).toEqual([]);
    expect(performance.now() - started).toBeLessThan(2000);
    expect(limits('unavailable_after: Sun, 31 Jan 2027 10:00:00 GMT')).toEqual([]);
  });
  it('pages that are kept out, and pages that need not be listed, are not asked', () => {
    expect(judged(robots('noindex, nofollow')).places.find((p) => p.place === home)).toBeUndefined();
    const e = evidence();
    expect(
      ask('indexing.shown-in-full', {
        evidence: {
          ...e,
          pages: [...e.pages, page({ url: `${home}cart/`, head: HEAD + robots('nofollow') })],
        },
      }).outcome,
    ).toBe('passed');
  });
});

describe('indexing.links-direct', () => {
  const linked = (href: string, hops: string[], status = 200, redirect = 301) => {
    const e = withHome({ body: `<a href="${href}">x</a>` });
    return ask('indexing.links-direct', {
      evidence: {
        ...e,
        links: [{ url: hops[0]!, own: true, chain: chain(hops, status, undefined, redirect) }],
      },
    });
  };
  it('a link to what has moved for good fails and says where to', () => {
    expect(
      linked('/old/', [`${home}old/`, `${home}songs/`]).places.find((p) => p.outcome === 'failed'),
    ).toMatchObject({
      place: `${home}old/`,
      expected: `${home}songs/`,
      found: `moved to ${home}songs/, linked from ${home}`,
    });
    expect(linked('/old/', [`${home}old/`, `${home}songs/`], 200, 308).outcome).toBe('failed');
    expect(linked('/old/', [`${home}old/`, `${home}songs/`]).recipe!.paste![0]!.text).toBe(
      `${home}old/ -> ${home}songs/`,
    );
  });
  describe('a passing redirect, a dead end, a link nobody set and http inside the site are no fault of it', () => {
    it.each([
      ['/login/', [`${home}login/`, `${home}songs/`], 200, 302, 'passed'],
      ['/old/', [`${home}old/`, `${home}gone/`], 404, undefined, 'passed'],
      ['/other/', [`${home}old/`, `${home}songs/`], undefined, undefined, 'passed'],
      [
        'http://marsh-choir.example/old/',
        ['http://marsh-choir.example/old/', `${home}old/`],
        undefined,
        undefined,
        'passed',
      ],
    ])('%s, %j, %s, %s: %s', (href, hops, status, redirect, wanted) => {
      expect(linked(href, hops, status, redirect).outcome).toBe(wanted);
    });
  });
  it('pages met under another address count, and a site without links has nothing to look at', () => {
    const e = evidence();
    expect(
      ask('indexing.links-direct', {
        evidence: {
          ...e,
          pages: [
            ...e.pages.slice(0, 2),
            {
              ...e.pages[2]!,
              url: `${home}all-songs/`,
              chain: chain([`${home}songs/`, `${home}all-songs/`]),
            },
          ],
        },
      }).outcome,
    ).toBe('failed');
    const lone = page({ url: home, via: 'home' });
    lone.facts!.anchors = [];
    expect(ask('indexing.links-direct', { evidence: withPages(lone) }).outcome).toBe('inapplicable');
  });
});

describe('indexing.outside-links', () => {
  const url = 'https://tide.example/list';
  const judged = (c: Chain | undefined) => {
    const e = withHome({ body: `<a href="${url}">Tides</a>` });
    return ask('indexing.outside-links', {
      evidence: { ...e, links: c ? [{ url, own: false, chain: c }] : [] },
    });
  };
  it('what is gone fails and names the page, what answers anything else passes', () => {
    expect(judged(chain([url], 404)).places[0]).toMatchObject({
      outcome: 'failed',
      found: `404, linked from ${home}`,
    });
    expect([200, 403, 410, 429, 500, 503, 999].map((s) => judged(chain([url], s)).outcome)).toEqual([
      'passed',
      'passed',
      'failed',
      'passed',
      'cantTell',
      'cantTell',
      'cantTell',
    ]);
    expect(
      (['no-name', 'refused', 'timeout', 'tls'] as const).map(
        (code) => judged(brokenChain(url, code)).outcome,
      ),
    ).toEqual(['failed', 'failed', 'cantTell', 'cantTell']);
  });
  it('not asked is undecided, and no link to other sites is no question', () => {
    expect(judged(undefined)).toMatchObject({
      outcome: 'cantTell',
      reason: 'links to other sites were not asked for in this audit',
    });
    expect(ask('indexing.outside-links').outcome).toBe('inapplicable');
  });
});
