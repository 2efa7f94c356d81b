/** Verification: tokens, counters, scripts. */
import { describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import {
  ask,
  brief,
  chain,
  dnsAnswer,
  evidence,
  HOME as home,
  outcome as out,
  page,
  withHome,
  withPages,
  withHtml,
} from '#core/checks/example-evidence';
import { pathsOf } from '#core/checks/catalogue/verification/positions';

const script = (src: string, more = '') => `<script src="${src}"${more}></script>`;
const COUNT = script('https://count.example/c.js', ' data-site="TM-1"');

describe('verification', () => {
  it('tokens in metas, records and files', () => {
    const judged = (tokens: NonNullable<ReturnType<typeof brief>['tokens']>, e = evidence()) =>
      ask('verification.tokens-present', { evidence: e, brief: { ...brief(), tokens } }).outcome;
    expect(judged([{ kind: 'tide-site-verification', value: 'abc', place: 'meta' }])).toBe('passed');
    expect(judged([{ kind: 'tide-site-verification', value: 'abcd', place: 'meta' }])).toBe('failed');
    expect(judged([{ kind: 'tide', value: 'x', place: 'txt' }])).toBe('failed');
    const e = evidence();
    e.dns.answers = [dnsAnswer('marsh-choir.example', 'TXT', ['"tide=x"'])];
    expect(judged([{ kind: 'tide', value: 'x', place: 'txt' }], e)).toBe('passed');
    e.tokenFiles = [{ path: '/tide.html', chain: chain([`${home}tide.html`]), sample: 'token: zz' }];
    const inFile = (kind: string, value: string) => judged([{ kind, value, place: 'file' }], e);
    expect(inFile('tide.html', 'zz')).toBe('passed');
    expect(inFile('tide.html', 'yy')).toBe('failed');
    expect(inFile('other.html', 'zz')).toBe('cantTell');
  });
  it('unknown tokens are told apart from other metas', () => {
    expect(out('verification.tokens-known', { head: '<meta name="msvalidate.01" content="q">' })).toBe(
      'failed',
    );
    expect(out('verification.tokens-known', { head: '<meta name="author" content="verify me">' })).toBe(
      'inapplicable',
    );
  });
  it('analytics: present, once, off staging', () => {
    const count = '<script src="https://count.example/c.js" data-site="TM-1"></script>';
    expect(out('verification.analytics-present', { head: '' })).toBe('failed');
    expect(out('verification.analytics-once', { head: count + count })).toBe('failed');
    expect(out('verification.analytics-once', { head: `${count}<script>start("TM-1")</script>` })).toBe(
      'passed',
    );
    expect(ask('verification.analytics-off-staging', { situation: 'staging' }).outcome).toBe('failed');
    expect(
      ask('verification.analytics-off-staging', {
        situation: 'staging',
        evidence: withPages(page({ url: home, via: 'home' })),
      }).outcome,
    ).toBe('passed');
    expect(
      out('verification.scripts-once', {
        head: '<script src="https://x.example/a.js"></script><script src="https://x.example/a.js"></script>',
      }),
    ).toBe('failed');
  });
});

describe('verification across clients', () => {
  const book = [
    {
      client: 'Windrow',
      site: 'Kites',
      tokens: ['kite-token'],
      analyticsIds: ['TM-9'],
      privateEmails: [],
      profileLinks: [],
    },
  ];
  it('tokens of others, in metas and records', () => {
    const meta = (value: string) =>
      ask('verification.tokens-own', {
        evidence: withHome({ head: `<meta name="tide-site-verification" content="${value}">` }),
        book,
      });
    expect(meta('abc').outcome).toBe('passed');
    expect(meta('kite-token').outcome).toBe('failed');
    expect(meta('KITE-token').found).toContain('Windrow (Kites)');
    const e = evidence();
    e.dns.answers.push(dnsAnswer('marsh-choir.example', 'TXT', ['"tide-verification=kite-token"']));
    expect(ask('verification.tokens-own', { evidence: e, book }).outcome).toBe('failed');
    expect(ask('verification.tokens-own', {}).outcome).toBe('inapplicable');
  });
  describe('counters of others and of nobody', () => {
    it.each([
      ['{ head: COUNT }', { head: COUNT }, undefined, 'passed'],
      [
        "{ head: COUNT + script('https://count.example/c.js', ' data-site=\"TM-9",
        {
          head: COUNT + script('https://count.example/c.js', ' data-site="TM-9"'),
        },
        undefined,
        'failed',
      ],
      [
        "{ head: script('https://www.example/g.js?id=G-ABCDEF12') }",
        { head: script('https://www.example/g.js?id=G-ABCDEF12') },
        undefined,
        'failed',
      ],
      ["{ head: '' }", { head: '' }, undefined, 'passed'],
      ['{}, { analyticsIds: [] }', {}, { analyticsIds: [] }, 'untested'],
    ])('%s', (_, parts, b, wanted) => {
      expect(out('verification.analytics-own', parts, b)).toBe(wanted);
    });
  });
});

describe('verification of scripts', () => {
  const consentScript = 'consent.example/ask.js';
  const ask1 = script(`https://${consentScript}`);
  describe('consent before anything that measures', () => {
    const e = (head: string) =>
      ask('verification.consent-first', {
        evidence: withPages(page({ url: home, via: 'home', head })),
        brief: { ...brief(), consentScript },
      }).outcome;
    it.each([
      ['ask1 + COUNT', ask1 + COUNT, 'passed'],
      ['COUNT + ask1', COUNT + ask1, 'failed'],
      ['COUNT', COUNT, 'failed'],
      ['ask1', ask1, 'inapplicable'],
    ])('%s', (_, head, wanted) => {
      expect(e(head)).toBe(wanted);
    });
    it('a site with nothing of the kind', () => {
      expect(out('verification.consent-first', {})).toBe('untested');
    });
  });
  describe('placement: head, end of body, on which pages', () => {
    const judged = (parts: Parameters<typeof out>[1], scripts: Brief['scripts']) =>
      ask('verification.script-placement', {
        evidence: withPages(page({ url: home, via: 'home', ...parts })),
        brief: { ...brief(), scripts },
      }).outcome;
    const end = { match: 'menu.js', where: 'body-end' as const },
      head = { match: 'menu.js', where: 'head' as const };
    it.each([
      [{ head: script('/menu.js') }, [head], 'passed'],
      [{ body: script('/menu.js') }, [head], 'failed'],
      [{ head: script('/menu.js') }, [end], 'failed'],
      [{ body: script('/menu.js') }, [end], 'failed'],
      [{}, [head], 'failed'],
      [{}, [{ ...head, pages: '/shop/*' }], 'passed'],
      [{ head: script('/menu.js') }, [{ ...head, pages: '/shop/*' }], 'failed'],
    ])('%j, %j: %s', (parts, scripts, wanted) => {
      expect(judged(parts, scripts)).toBe(wanted);
    });
  });
  it('at the end means after everything a reader sees', () => {
    const p = page({ url: home, via: 'home' });
    const last = p.facts!.anchors.at(-1)!;
    p.facts!.scripts.push({
      src: `${home}menu.js`,
      raw: '<script src="/menu.js">',
      where: 'body',
      line: last.line,
      column: last.column + 100,
    });
    const judgedBy = (badge?: string[]) =>
      ask('verification.script-placement', {
        evidence: withPages(p),
        brief: { ...brief(), scripts: [{ match: 'menu.js', where: 'body-end' }] },
        profile: { name: 'Cairn', badge },
      }).outcome;
    expect(judgedBy()).toBe('passed');
    // a badge that the host puts behind it is none of the site's
    p.facts!.anchors.push({ ...last, text: 'Piled with Cairn', column: last.column + 200 });
    expect(judgedBy(['Piled with Cairn'])).toBe('passed');
    expect(judgedBy()).toBe('failed');
  });
  it.each([
    [undefined, '', true],
    ['/', '', true],
    ['/', 'a/', false],
    ['/a', 'a/', true],
    ['/shop/*, /cart/', 'shop/x/', true],
    ['/shop/*', 'news/', false],
    ['*', 'x', true],
    ['/a/*/b/', 'a/x/b/', true],
  ])('pages %s and /%s: %s', (list, path, due) => {
    expect(pathsOf(list)(`/${path}`)).toBe(due);
  });
  describe('hosts of scripts and frames that were agreed', () => {
    const judged = (head: string, hosts = ['count.example', 'film.example']) =>
      ask('verification.scripts-expected', {
        evidence: withPages(page({ url: home, via: 'home', head })),
        brief: { ...brief(), allowedScriptHosts: hosts },
      }).outcome;
    it.each([
      ['COUNT', COUNT, undefined, 'passed'],
      [
        "script('https://eu.count.example/c.js')",
        script('https://eu.count.example/c.js'),
        undefined,
        'passed',
      ],
      [
        "script('https://notcount.example/c.js')",
        script('https://notcount.example/c.js'),
        undefined,
        'failed',
      ],
      ["script('/own.js')", script('/own.js'), undefined, 'inapplicable'],
      ["'', []", '', [], 'untested'],
    ])('%s', (_, head, hosts, wanted) => {
      expect(judged(head, hosts)).toBe(wanted);
    });
  });
});

describe('measuring scripts as they are written', () => {
  // a page without a word and with scripts is an empty shell
  const WORDS = '<p>The choir sings on Mondays by the water, whatever the weather.</p>';
  const judged = (check: string, html: string, b: Partial<Brief> = {}) =>
    ask(check, { evidence: withHtml(WORDS + html), brief: { ...brief(), analyticsIds: ['G-ABC1234'], ...b } })
      .outcome;
  const loader =
    "<script>var s=document.createElement('script');s.src='https://c.example/?id=G-ABC1234'</script>";
  const outside = '<script src="https://c.example/?id=G-ABC1234"></script>';
  const starter = "<script>gtag('config', 'G-ABC1234')</script>";
  it.each([
    ['an inline loader twice', loader + loader, 'failed'],
    ['an inline loader and an outside one', loader + outside, 'failed'],
    ['started twice', outside + starter + starter, 'failed'],
    ['loaded once, started once', outside + starter, 'passed'],
    ['one inline loader', loader, 'passed'],
    ['named once more, in a list', `${outside}<script>var ids=['G-ABC1234']</script>`, 'passed'],
  ])('%s', (_, html, wanted) => {
    expect(judged('verification.analytics-once', html)).toBe(wanted);
  });
  it.each([
    [1000, 'passed'],
    [3990, 'passed'],
    [200_000, 'passed'],
    [500_000, 'failed'],
  ])('an ID after %s characters of an inline script', (before, wanted) => {
    const html = `<script>${'x=1;'.repeat(before / 4)}count('G-ABC1234')</script>`;
    const found = ask('verification.analytics-present', {
      evidence: withHtml(WORDS + html),
      brief: { ...brief(), analyticsIds: ['G-ABC1234'] },
    }).places.find((p) => p.place === home);
    expect(found?.outcome).toBe(wanted);
  });
  const consent = '<script src="/consent.js"></script>';
  it.each([
    [
      'waits for the answer',
      `<script type="text/plain" src="https://c.example/?id=G-ABC1234"></script>${consent}`,
      'inapplicable',
    ],
    ['runs at once', outside + consent, 'failed'],
    [
      'is a module that runs',
      `<script type=module src="https://c.example/?id=G-ABC1234"></script>${consent}`,
      'failed',
    ],
    ['comes after', consent + outside, 'passed'],
  ])('a counter that %s', (_, html, wanted) => {
    const e = withHtml(WORDS + html);
    const found = ask('verification.consent-first', {
      evidence: { ...e, pages: e.pages.slice(0, 1) },
      brief: { ...brief(), analyticsIds: ['G-ABC1234'], consentScript: '/consent.js' },
    });
    expect(found.outcome).toBe(wanted);
  });
});
