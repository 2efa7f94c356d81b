import { describe, expect, it } from 'vitest';
import { extractPage } from '#core/extract/html';
import { parseRobots } from '#core/extract/robots';
import type { Evidence, Header } from '#core/facts/evidence';
import {
  ask,
  brief,
  brokenChain,
  chain,
  evidence,
  host,
  page,
  withHome,
  withHtml,
  withPages,
} from '#core/checks/example-evidence';
import { limitsOf, noIndexOf, statementsOf } from '#core/checks/view/index-directives';

const home = 'https://marsh-choir.example/';
const withRobots = (text: string, e: Evidence = evidence()): Evidence => ({
  ...e,
  robots: { chain: chain([`${home}robots.txt`]), contentType: 'text/plain', text, facts: parseRobots(text) },
});

describe('robots directives', () => {
  const of = (head: string, headers: Header[] = []) =>
    noIndexOf(statementsOf(page({ url: home, head, headers }))).map((n) => `${n.agent} ${n.from}`);
  it('metas and headers, for everyone and for one', () => {
    expect(of('<meta name="robots" content="NOINDEX, follow">')).toEqual(['* meta']);
    expect(of('<meta name="ROBOTS" content="none">')).toEqual(['* meta']);
    expect(of('<meta name="tidebot" content="noindex">')).toEqual(['tidebot meta']);
    expect(of('', [['X-Robots-Tag', 'nofollow, noindex']])).toEqual(['* header']);
    expect(of('', [['X-Robots-Tag', 'tidebot: noindex']])).toEqual(['tidebot header']);
    expect(of('', [['X-Robots-Tag', 'unavailable_after: 25 Jun 2030 15:00:00 PST, max-snippet:-1']])).toEqual(
      [],
    );
    expect(of('<meta name="robots" content="index, follow">')).toEqual([]);
  });
});

describe('values belong to their directive (common practice of the large crawlers, from memory)', () => {
  const held = (content: string, from: 'meta' | 'header') => {
    const parts =
      from === 'meta'
        ? { head: `<meta name="robots" content="${content}">` }
        : { headers: [['X-Robots-Tag', content]] as Header[] };
    return statementsOf(page({ url: home, ...parts }));
  };
  describe.each(['meta', 'header'] as const)('in a %s', (from) => {
    it.each([
      ['max-image-preview: none', false],
      ['max-image-preview:none', false],
      ['max-image-preview : none', false],
      ['max-snippet: -1, max-image-preview: none, max-video-preview: -1', false],
      ['index, max-image-preview: none', false],
      ['unavailable_after: Wed, 25 Jun 2036 15:00:00 GMT', false],
      ['max-image-preview: none, noindex', true],
      ['noindex max-snippet: 5', true],
      ['max-snippet: 5 noindex', true],
      ['none', true],
      ['noindex,nofollow', true],
    ])('%s keeps out: %s', (content, isOut) => {
      expect(noIndexOf(held(content, from)).length > 0).toBe(isOut);
    });
    it.each([
      ['max-image-preview: none', 'max-image-preview:none'],
      ['max-snippet: 0', 'max-snippet:0'],
      ['max-snippet: 05', undefined],
      ['max-image-preview: large', undefined],
      ['follow, nosnippet', 'nosnippet'],
      ['unavailable_after: Wed, 25 Jun 2014 15:00:00 GMT', 'unavailable_after wed, 25 jun 2014 15:00:00 gmt'],
      ['unavailable_after: 25 Jun 2036 15:00:00 GMT', undefined],
    ])('%s holds back: %s', (content, wanted) => {
      expect(limitsOf(held(content, from), new Date('2026-11-24'))[0]?.directive).toBe(wanted);
    });
  });
});

describe('indexing.kept-out', () => {
  const judged = (e: Evidence) => ask('indexing.kept-out', { evidence: e, situation: 'staging' });
  const shut = page({ url: home, via: 'home', head: '<meta name="robots" content="noindex">' });
  it('noindex, credentials or 503', () => {
    expect(judged(withPages(shut)).outcome).toBe('passed');
    expect(judged(withPages(page({ url: home, via: 'home', status: 401 }))).outcome).toBe('passed');
  });
  it('Disallow alone fails, and noindex behind a Disallow fails', () => {
    expect(
      judged(withRobots('User-agent: *\nDisallow: /', withPages(page({ url: home, via: 'home' })))).found,
    ).toContain('only a Disallow');
    expect(judged(withRobots('User-agent: *\nDisallow: /', withPages(shut))).found).toContain(
      'behind a Disallow',
    );
  });
  it('counts pages', () => {
    expect(judged(withPages(shut, page({ url: `${home}a` })))).toMatchObject({
      outcome: 'failed',
      credit: { num: 1, den: 2 },
      found: '1 of 2 pages: open to search engines',
    });
  });
  it('from an address that may enter, openness cannot be told', () => {
    const e = withPages(page({ url: home, via: 'home' }));
    expect(judged({ ...e, target: { ...e.target, wayIn: 'addresses' } }).outcome).toBe('cantTell');
  });
});

describe('pages that scripts build', () => {
  const shell = (head = '') => {
    const found = withHtml(
      `<!doctype html><html lang="en-GB"><head><title>Marsh Choir</title>${head}</head><body><div id="app"></div><script src="/app.js"></script></body></html>`,
      { via: 'home' },
    );
    return { ...found, pages: found.pages.filter((p) => p.via === 'home') };
  };
  /** The shell with what a browser built of it. */
  const built = (body: string) => {
    const found = shell();
    const [home] = found.pages;
    home!.rendered = {
      facts: extractPage(`<title>Marsh Choir</title><h1>Marsh Choir</h1>${body}`, home!.url),
    };
    return found;
  };

  it('a noindex in the head as served decides', () =>
    expect(
      ask('indexing.let-in', { evidence: shell('<meta name="robots" content="noindex">') }).outcome,
    ).toBe('failed'));
  it('without one, scripts may still add it', () =>
    expect(ask('indexing.let-in', { evidence: shell() }).outcome).toBe('cantTell'));
  it('what is searched on any page is searched on built ones', () => {
    const words = '<p>Write to hello@marsh-choir.example, or come on Monday evenings.</p>';
    expect(ask('identity.contact-email', { evidence: built(words) }).outcome).toBe('passed');
    expect(ask('identity.contact-email', { evidence: shell() }).outcome).toBe('cantTell');
  });
});

describe('indexing.let-in', () => {
  it('looks at home, required and sitemap pages, and notes the others', () => {
    const e = evidence();
    e.pages.push(page({ url: `${home}search`, head: '<meta name="robots" content="noindex">' }));
    expect(ask('indexing.let-in', { evidence: e })).toMatchObject({
      outcome: 'passed',
      notes: [expect.stringContaining('/search') as string],
    });
  });
  it('a crawler that the brief names counts, another does not', () => {
    const e = withHome({ head: '<meta name="tidebot" content="noindex">' });
    expect(ask('indexing.let-in', { evidence: e }).outcome).toBe('passed');
    expect(
      ask('indexing.let-in', { evidence: e, brief: { ...brief(), crawlers: ['TideBot'] } }).outcome,
    ).toBe('failed');
  });
  it('hidden paths of the brief may be kept out', () => {
    const e = evidence();
    e.pages[2] = page({
      url: `${home}songs/`,
      via: 'sitemap',
      head: '<meta name="robots" content="noindex">',
    });
    expect(
      ask('indexing.let-in', { evidence: e, brief: { ...brief(), hiddenPaths: ['/songs'] } }).outcome,
    ).toBe('passed');
    expect(ask('indexing.let-in', { evidence: e }).outcome).toBe('failed');
  });
});

describe('robots.txt (RFC 9309 2.3.1)', () => {
  const answered = (status: number, contentType = 'text/plain', text = '') =>
    ask('indexing.robots-answers', {
      evidence: evidence({ robots: { chain: chain([`${home}robots.txt`], status), contentType, text } }),
    }).outcome;
  it.each([
    [200, 'passed'],
    [404, 'passed'],
    [403, 'passed'],
    [429, 'cantTell'],
    [500, 'failed'],
    [503, 'failed'],
  ] as const)('%s: %s', (status, outcome) => {
    expect(answered(status)).toBe(outcome);
  });
  it('an HTML page fails, and silence closes the site', () => {
    expect(answered(200, 'text/html', '<!doctype html><p>')).toBe('failed');
    expect(
      ask('indexing.robots-answers', {
        evidence: evidence({ robots: { chain: brokenChain(`${home}robots.txt`, 'timeout') } }),
      }).outcome,
    ).toBe('failed');
  });
  it('robots-allows judges everyone and the crawlers of the brief', () => {
    expect(
      ask('indexing.robots-allows', { evidence: withRobots('User-agent: *\nDisallow: /') }),
    ).toMatchObject({ outcome: 'failed', credit: { num: 0, den: 3 } });
    expect(
      ask('indexing.robots-allows', {
        evidence: withRobots('User-agent: tidebot\nDisallow: /'),
        brief: { ...brief(), crawlers: ['tidebot'] },
      }).outcome,
    ).toBe('failed');
    expect(
      ask('indexing.robots-allows', {
        evidence: evidence({ robots: { chain: chain([`${home}robots.txt`], 503) } }),
      }).outcome,
    ).toBe('cantTell');
  });
});

describe('canonicals', () => {
  const judged = (check: string, head: string, headers?: Header[]) =>
    ask(check, { evidence: withHome({ head, headers }) }).outcome;
  it('exactly one, absolute; tag and header may agree', () => {
    expect(
      judged(
        'indexing.canonical-present',
        `<link rel="canonical" href="${home}"><link rel="canonical" href="${home}a">`,
      ),
    ).toBe('failed');
    expect(judged('indexing.canonical-present', '<link rel="canonical" href="/">')).toBe('failed');
    expect(
      judged('indexing.canonical-present', `<link rel="canonical" href="${home}">`, [
        ['Link', `<${home}>; rel="canonical"`],
      ]),
    ).toBe('passed');
    expect(
      judged('indexing.canonical-present', `<link rel="canonical" href="${home}">`, [
        ['Link', `<${home}x>; rel="canonical"`],
      ]),
    ).toBe('failed');
  });
  it('never staging, never http, never a stranger', () => {
    for (const [href, outcome] of [
      ['https://draft.host.example/', 'failed'],
      ['http://marsh-choir.example/', 'failed'],
      ['https://other.example/', 'failed'],
      ['https://www.marsh-choir.example/', 'passed'],
    ] as const)
      expect(judged('indexing.canonical-host', `<link rel="canonical" href="${href}">`), href).toBe(outcome);
  });
});

describe('the rest of the section', () => {
  it('not-found-status: 404 and 410 only', () => {
    for (const [status, outcome] of [
      [404, 'passed'],
      [410, 'passed'],
      [200, 'failed'],
      [403, 'cantTell'],
    ] as const)
      expect(
        ask('indexing.not-found-status', { evidence: evidence({ notFound: chain([`${home}x`], status) }) })
          .outcome,
      ).toBe(outcome);
    expect(
      ask('indexing.not-found-status', { evidence: evidence({ notFound: chain([`${home}x`, home]) }) })
        .outcome,
    ).toBe('failed');
  });
  it('a holding page left on a live site is charged once', () => {
    const e = withHtml('<title>Marsh Choir</title><h1>Coming soon</h1><p>Until then, write to us.');
    expect(ask('indexing.no-holding-page', { evidence: e }).outcome).toBe('failed');
    expect(ask('identity.home-page', { evidence: e })).toMatchObject({
      outcome: 'cantTell',
      reason: expect.stringContaining('indexing.no-holding-page') as string,
    });
  });
  const parkedHtml = '<title>Kites</title><h1>This domain is parked</h1>';
  const parked = {
    ...withHtml(parkedHtml),
    hosts: [
      host('marsh-choir.example', {
        landing: { url: home, status: 200, facts: extractPage(parkedHtml, home) },
      }),
    ],
  };
  const sample = withHtml('<title>Kites – Sample Page</title><p>Words.');
  it.each([
    ['a sample page', 'indexing.no-holding-page', 'live', sample, 'identity.home-page'],
    ['a parked name', 'indexing.no-holding-page', 'live', parked, 'domain.connected'],
    ['a parked name', 'indexing.holding-page', 'holding', parked, 'domain.connected'],
  ] as const)('%s leaves %s undecided', (_, check, situation, e, cause) => {
    expect(ask(check, { situation, evidence: e })).toMatchObject({
      outcome: 'cantTell',
      reason: expect.stringContaining(cause) as string,
    });
  });
  describe('a holding page is little else', () => {
    const menu = ['about', 'songs', 'join', 'write'].map((w) => `<a href="/${w}/">${w}</a>`).join('');
    it.each([
      ['main heading', '<title>Kites</title><h1>Our new website is coming soon!</h1>', 'failed'],
      ['part of the title', '<title>Kites | Coming soon</title><p>Kites for every wind.', 'failed'],
      ['name and phrase', '<title>Marsh Choir</title><h1>Marsh Choir is coming soon</h1>', 'failed'],
      ['hardly a word', '<title>Kites</title><h1>Kites</h1><p>Under construction.', 'failed'],
      [
        'houses',
        '<title>Gale Builders</title><h1>Houses under construction</h1><p>Four this year.',
        'passed',
      ],
      ['a drink', '<title>Orchard</title><h1>Orchard</h1><p>Coming soon: the autumn cider', 'passed'],
      ['a drink, as the heading', '<title>Orchard</title><h1>Coming soon: the autumn cider</h1>', 'passed'],
      ['a menu beside it', `<title>Kites</title>${menu}<h1>Coming soon</h1>`, 'passed'],
      [
        'much text',
        `<title>Kites</title><h1>Coming soon</h1><p>${'Kites for every wind. '.repeat(40)}`,
        'passed',
      ],
    ])('%s', (_, html, wanted) => {
      expect(ask('indexing.no-holding-page', { evidence: withHtml(html) }).outcome).toBe(wanted);
    });
  });
  it('a holding page is 503 with Retry-After or noindex, and says how to reach the client', () => {
    const judged = (status: number, headers: Header[], head = '') =>
      ask('indexing.holding-page', {
        situation: 'holding',
        evidence: withPages(
          page({
            url: home,
            via: 'home',
            status,
            headers: [['Content-Type', 'text/html'], ...headers],
            head,
          }),
        ),
      }).outcome;
    expect(judged(503, [['Retry-After', '3600']])).toBe('passed');
    expect(judged(503, [])).toBe('failed');
    expect(judged(200, [], '<meta name="robots" content="noindex">')).toBe('passed');
    expect(judged(200, [])).toBe('failed');
  });
  it('staging links anywhere are found', () => {
    for (const body of [
      '<a href="https://draft.host.example/x">x</a>',
      '<img src="https://draft.host.example/x.png">',
      '<form action="https://draft.host.example/"></form>',
    ])
      expect(ask('indexing.no-staging-links', { evidence: withHome({ body }) }).outcome, body).toBe('failed');
    expect(ask('indexing.no-staging-links', { brief: { ...brief(), stagingHosts: [] } }).outcome).toBe(
      'untested',
    );
  });
});
