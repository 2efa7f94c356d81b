/** Verification, metadata, sharing and delivery. */
import { describe, expect, it } from 'vitest';
import type { AssetEvidence, Evidence } from '#core/facts/evidence';
import {
  ask,
  brief,
  brokenChain,
  chain,
  dnsAnswer,
  evidence,
  HEAD,
  page,
  withHome,
  withPages,
} from '#core/checks/example-evidence';

const home = 'https://marsh-choir.example/';
const out = (check: string, parts: Parameters<typeof withHome>[0]) =>
  ask(check, { evidence: withHome(parts) }).outcome;
const withAssets = (...assets: Partial<AssetEvidence>[]): Evidence =>
  evidence({
    assets: assets.map((a) => ({
      url: `${home}x.png`,
      roles: ['icon'],
      chain: chain([`${home}x.png`]),
      ...a,
    })),
  });
const image = (width: number, height = width, more = {}) => ({
  image: { type: 'png', width, height, ...more },
});

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
    expect([
      judged([{ kind: 'tide.html', value: 'zz', place: 'file' }], e),
      judged([{ kind: 'tide.html', value: 'yy', place: 'file' }], e),
      judged([{ kind: 'other.html', value: 'zz', place: 'file' }], e),
    ]).toEqual(['passed', 'failed', 'cantTell']);
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

describe('metadata', () => {
  it('one title, in the head', () => {
    expect(out('metadata.title-present', { title: null })).toBe('failed');
    expect(out('metadata.title-present', { title: ' ' })).toBe('failed');
    expect(out('metadata.title-present', { head: '<title>second</title>' })).toBe('failed');
  });
  it('one description', () => {
    expect(out('metadata.description-present', { description: null })).toBe('failed');
    expect(out('metadata.description-present', { description: '' })).toBe('failed');
    expect(out('metadata.description-present', { head: '<meta name="description" content="b">' })).toBe(
      'failed',
    );
  });
  it('unique among canonical pages; other languages and copies that name the original do not count', () => {
    const same = (head: string) =>
      withPages(
        page({ url: home, via: 'home', title: 'Same', head }),
        page({ url: `${home}b`, title: 'Same', head }),
      );
    expect(ask('metadata.title-unique', { evidence: same('') }).outcome).toBe('failed');
    expect(
      ask('metadata.title-unique', { evidence: same(`<link rel="canonical" href="${home}">`) }).outcome,
    ).toBe('passed');
    expect(
      ask('metadata.title-unique', {
        evidence: same(
          `<link rel="alternate" hreflang="de" href="${home}b"><link rel="alternate" hreflang="en" href="${home}">`,
        ),
      }).outcome,
    ).toBe('passed');
  });
  it('pages of one series may share a title, other pages with a number may not', () => {
    const pair = (a: string, b: string) =>
      ask('metadata.title-unique', {
        evidence: withPages(
          page({ url: home, via: 'home', title: 'Home' }),
          page({ url: home + a, title: 'News' }),
          page({ url: home + b, title: 'News' }),
        ),
      }).outcome;
    expect([
      pair('news/', 'news/page/2/'),
      pair('news', 'news?page=3'),
      pair('news?a=1', 'news?page=2&a=1'),
      pair('news/', 'notes/page/2/'),
      pair('item?id=1', 'item?id=2'),
    ]).toEqual(['passed', 'passed', 'passed', 'failed', 'failed']);
  });
  it('viewport: zoom to 200 % stays possible (WCAG 1.4.4)', () => {
    const judged = (content: string) => {
      const p = page({ url: home, via: 'home' });
      p.facts!.metas = p.facts!.metas.map((m) => (m.name === 'viewport' ? { ...m, content } : m));
      return ask('metadata.viewport', { evidence: withPages(p) }).outcome;
    };
    expect([
      judged('width=device-width'),
      judged('width=device-width, maximum-scale=2'),
      judged('width=device-width, maximum-scale=1.9'),
      judged('width=device-width,user-scalable=no'),
      judged('width=980'),
    ]).toEqual(['passed', 'passed', 'failed', 'failed', 'failed']);
  });
  it('charset, headings, pictures', () => {
    expect(
      ask('metadata.charset', {
        evidence: withPages({ ...page({ url: home, via: 'home' }), charset: 'windows-1252' }),
      }).outcome,
    ).toBe('failed');
    expect(out('metadata.one-main-heading', { body: '<h1>again</h1>' })).toBe('failed');
    expect(out('metadata.image-text', { body: '<img src=a>' })).toBe('failed');
    expect(out('metadata.image-text', { body: '<img src=a alt="">' })).toBe('passed');
    expect(out('metadata.image-text', {})).toBe('inapplicable');
  });
});

describe('sharing', () => {
  it('the four properties of the Open Graph protocol', () => {
    expect(out('sharing.preview-complete', { head: HEAD })).toBe('passed');
    expect(out('sharing.preview-complete', { head: HEAD.replace('og:type', 'og:x') })).toBe('failed');
  });
  it('share picture: absolute, https, there, a picture', () => {
    const judged = (address: string, asset: Partial<AssetEvidence>) => {
      const e = withAssets({ url: 'https://marsh-choir.example/p.png', roles: ['share-picture'], ...asset });
      return ask('sharing.image-loads', {
        evidence: {
          ...e,
          pages: [page({ url: home, via: 'home', head: `<meta property="og:image" content="${address}">` })],
        },
      }).outcome;
    };
    const url = `${home}p.png`;
    expect([
      judged(url, image(1200, 630)),
      judged('/p.png', image(1200, 630)),
      judged(url.replace('https', 'http'), image(1200, 630)),
      judged(url, { chain: chain([url], 404) }),
      judged(url, { imageError: 'no picture' }),
      judged(url, { chain: brokenChain(url, 'timeout') }),
    ]).toEqual(['passed', 'failed', 'failed', 'failed', 'failed', 'cantTell']);
  });
  it('share picture: 1200 x 630, ratio within 2 %', () => {
    const judged = (w: number, h: number) =>
      ask('sharing.image-size', { evidence: withAssets({ roles: ['share-picture'], ...image(w, h) }) })
        .outcome;
    expect([
      judged(1200, 630),
      judged(1199, 630),
      judged(1200, 629),
      judged(1224, 630),
      judged(1225, 630),
      judged(2400, 1260),
    ]).toEqual(['passed', 'failed', 'failed', 'passed', 'failed', 'passed']);
  });
  it('icons: square, large enough, the sizes the host requires', () => {
    const judged = (assets: Partial<AssetEvidence>[], required?: number[]) =>
      ask('sharing.favicon', { evidence: withAssets(...assets), profile: { name: 'F', icons: { required } } })
        .outcome;
    expect([
      judged([image(32)]),
      judged([image(31)]),
      judged([image(64, 32)]),
      judged([
        image(16, 16, {
          sizes: [
            { width: 16, height: 16 },
            { width: 48, height: 48 },
          ],
        }),
      ]),
      judged([{ image: { type: 'svg', width: 1, height: 1 } }]),
    ]).toEqual(['passed', 'failed', 'failed', 'passed', 'passed']);
    expect([judged([image(48), image(240)], [48, 240]), judged([image(64), image(240)], [48, 240])]).toEqual([
      'passed',
      'failed',
    ]);
    expect(
      ask('sharing.touch-icon', { evidence: withAssets({ roles: ['touch-icon'], ...image(180) }) }).outcome,
    ).toBe('passed');
    expect(
      ask('sharing.touch-icon', { evidence: withAssets({ roles: ['touch-icon'], ...image(179) }) }).outcome,
    ).toBe('failed');
  });
  it('texts of their own', () => {
    expect(out('sharing.text-own', { head: HEAD.replace('content="Songs"', 'content="Home"') })).toBe(
      'failed',
    );
  });
});

describe('delivery', () => {
  it('a 5xx counts when it comes twice', () => {
    const once = { ...page({ url: home, via: 'home' }), firstTry: chain([home], 503) };
    expect(ask('delivery.no-server-errors', { evidence: withPages(once) })).toMatchObject({
      outcome: 'passed',
      notes: [expect.stringContaining('answered 503 once') as string],
    });
    expect(
      ask('delivery.no-server-errors', {
        evidence: withPages(page({ url: home, via: 'home' }), {
          ...page({ url: `${home}a`, status: 500 }),
          firstTry: chain([`${home}a`], 500),
        }),
      }),
    ).toMatchObject({ outcome: 'failed', found: '1 of 2 addresses: 500, then 500' });
  });
  it('inner files by their content, not their status', () => {
    const judged = (sample: string) =>
      ask('delivery.no-exposed-files', {
        evidence: evidence({ paths: [{ path: '/.git/HEAD', chain: chain([`${home}.git/HEAD`]), sample }] }),
      }).outcome;
    expect(judged('ref: refs/heads/main')).toBe('failed');
    expect(judged('<!doctype html>')).toBe('passed');
  });
  it('compression of texts above 1 KiB', () => {
    const judged = (decoded: number) => {
      const p = page({ url: home, via: 'home', headers: [['Content-Type', 'text/html']] });
      p.chain.hops[0]!.bytes = { encoded: decoded, decoded };
      return ask('delivery.compressed', { evidence: { ...withPages(p), assets: [] } }).outcome;
    };
    expect([judged(1024), judged(1025)]).toEqual(['inapplicable', 'failed']);
  });
  it('the median time to first byte', () => {
    const judged = (...times: number[]) =>
      ask('delivery.response-time', {
        evidence: withPages(
          ...times.map((t, i) => {
            const p = page({ url: `${home}${i}`, via: i ? 'link' : 'home' });
            p.chain.hops[0]!.timing.firstByte = t;
            return p;
          }),
        ),
      }).outcome;
    expect([judged(800), judged(801), judged(10, 800, 9000), judged(100, 1700)]).toEqual([
      'passed',
      'failed',
      'passed',
      'failed',
    ]);
  });
  it('security.txt (RFC 9116)', () => {
    const judged = (sample: string, status = 200) =>
      ask('delivery.security-contact', {
        evidence: evidence({
          paths: [{ path: '/.well-known/security.txt', chain: chain([home], status), sample }],
        }),
      }).outcome;
    expect([
      judged('Contact: mailto:a@b.example\nExpires: 2027-01-01T00:00:00z'),
      judged('Contact: mailto:a@b.example\nExpires: 2026-01-01T00:00:00z'),
      judged('Expires: 2027-01-01T00:00:00z'),
      judged('', 404),
      judged('<html>'),
    ]).toEqual(['passed', 'failed', 'failed', 'inapplicable', 'inapplicable']);
  });
  it('staging asks who is there', () => {
    expect(
      ask('delivery.staging-locked', {
        situation: 'staging',
        evidence: withPages(page({ url: home, via: 'home', status: 401 })),
      }).outcome,
    ).toBe('passed');
    expect(ask('delivery.staging-locked', { situation: 'staging' }).outcome).toBe('failed');
  });
});
