/** Verification, metadata, sharing and delivery: the rest of the catalogue. */
import { describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import type { AssetEvidence, Evidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import { textWidth } from '#core/text/width';
import {
  ask,
  AT,
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
import { lapseOf } from '#core/checks/catalogue/delivery/staging-lifetime';
import { refreshDelay } from '#core/checks/catalogue/metadata/no-refresh';
import { pathsOf } from '#core/checks/catalogue/verification/positions';

const home = 'https://marsh-choir.example/';
type Parts = Parameters<typeof withHome>[0];
const out = (
  check: string,
  parts: Parts,
  b: Partial<Brief> = {},
  more: { profile?: Partial<HostProfile> } & Record<string, unknown> = {},
) =>
  ask(check, {
    evidence: withHome(parts),
    brief: { ...brief(), ...b },
    ...more,
    profile: { name: 'Fennel', ...more.profile },
  }).outcome;
const asset = (url: string, more: Partial<AssetEvidence> = {}): AssetEvidence => ({
  url: home + url,
  roles: ['picture'],
  chain: chain([home + url]),
  ...more,
});
const withAssets = (...assets: AssetEvidence[]): Evidence => evidence({ assets });
const script = (src: string, more = '') => `<script src="${src}"${more}></script>`;
const COUNT = script('https://count.example/c.js', ' data-site="TM-1"');

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
    expect([meta('abc').outcome, meta('kite-token').outcome]).toEqual(['passed', 'failed']);
    expect(meta('KITE-token').found).toContain('Windrow (Kites)');
    const e = evidence();
    e.dns.answers.push(dnsAnswer('marsh-choir.example', 'TXT', ['"tide-verification=kite-token"']));
    expect(ask('verification.tokens-own', { evidence: e, book }).outcome).toBe('failed');
    expect(ask('verification.tokens-own', {}).outcome).toBe('inapplicable');
  });
  it('counters of others and of nobody', () => {
    expect([
      out('verification.analytics-own', { head: COUNT }),
      out('verification.analytics-own', {
        head: COUNT + script('https://count.example/c.js', ' data-site="TM-9"'),
      }),
      out('verification.analytics-own', { head: script('https://www.example/g.js?id=G-ABCDEF12') }),
      out('verification.analytics-own', { head: '' }),
      out('verification.analytics-own', {}, { analyticsIds: [] }),
    ]).toEqual(['passed', 'failed', 'failed', 'passed', 'untested']);
  });
});

describe('verification of scripts', () => {
  const consentScript = 'consent.example/ask.js';
  const ask1 = script(`https://${consentScript}`);
  it('consent before anything that measures', () => {
    const e = (head: string) =>
      ask('verification.consent-first', {
        evidence: withPages(page({ url: home, via: 'home', head })),
        brief: { ...brief(), consentScript },
      }).outcome;
    expect([e(ask1 + COUNT), e(COUNT + ask1), e(COUNT), e(ask1)]).toEqual([
      'passed',
      'failed',
      'failed',
      'inapplicable',
    ]);
    expect(out('verification.consent-first', {})).toBe('untested');
  });
  it('placement: head, end of body, on which pages', () => {
    const judged = (parts: Parts, scripts: Brief['scripts']) =>
      ask('verification.script-placement', {
        evidence: withPages(page({ url: home, via: 'home', ...parts })),
        brief: { ...brief(), scripts },
      }).outcome;
    const end = { match: 'menu.js', where: 'body-end' as const },
      head = { match: 'menu.js', where: 'head' as const };
    expect([
      judged({ head: script('/menu.js') }, [head]),
      judged({ body: script('/menu.js') }, [head]),
      judged({ head: script('/menu.js') }, [end]),
      judged({ body: script('/menu.js') }, [end]),
      judged({}, [head]),
      judged({}, [{ ...head, pages: '/shop/*' }]),
      judged({ head: script('/menu.js') }, [{ ...head, pages: '/shop/*' }]),
    ]).toEqual(['passed', 'failed', 'failed', 'failed', 'failed', 'passed', 'failed']);
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
    expect(
      ask('verification.script-placement', {
        evidence: withPages(p),
        brief: { ...brief(), scripts: [{ match: 'menu.js', where: 'body-end' }] },
      }).outcome,
    ).toBe('passed');
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
  it('hosts of scripts and frames that were agreed', () => {
    const judged = (head: string, hosts = ['count.example', 'film.example']) =>
      ask('verification.scripts-expected', {
        evidence: withPages(page({ url: home, via: 'home', head })),
        brief: { ...brief(), allowedScriptHosts: hosts },
      }).outcome;
    expect([
      judged(COUNT),
      judged(script('https://eu.count.example/c.js')),
      judged(script('https://notcount.example/c.js')),
      judged(script('/own.js')),
      judged('', []),
    ]).toEqual(['passed', 'passed', 'failed', 'inapplicable', 'untested']);
  });
});

describe('metadata: lengths', () => {
  it('titles: 15 to 60 characters and 560 px at 20 px', () => {
    const t = (title: string) =>
      ask('metadata.title-length', { evidence: withPages(page({ url: home, via: 'home', title })) }).outcome;
    expect([
      t('a'.repeat(14)),
      t('a'.repeat(15)),
      t('i'.repeat(60)),
      t('i'.repeat(61)),
      t('W'.repeat(30)),
      t('日本語の合唱団'),
    ]).toEqual(['failed', 'passed', 'passed', 'failed', 'failed', 'passed']);
    const widest = Math.floor(560 / textWidth('m', 20));
    expect([t('m'.repeat(widest)), t('m'.repeat(widest + 1))]).toEqual(['passed', 'failed']);
    expect(t('日'.repeat(29))).toBe('failed');
  });
  it('descriptions: 80 to 150 characters, 900 px at 14 px, and the host’s limit', () => {
    const d = (n: number, letter = 'i', descriptionLimit?: number) =>
      ask('metadata.description-length', {
        evidence: withPages(page({ url: home, via: 'home', description: letter.repeat(n) })),
        profile: { name: 'F', descriptionLimit },
      }).outcome;
    expect([d(79), d(80), d(150), d(151), d(100, 'W'), d(120, 'i', 119), d(119, 'i', 119)]).toEqual([
      'failed',
      'passed',
      'passed',
      'failed',
      'failed',
      'failed',
      'passed',
    ]);
  });
  it('parameters move the thresholds', () => {
    expect(
      ask('metadata.title-length', {
        evidence: withPages(page({ url: home, via: 'home', title: 'Short' })),
        parameters: { least: 5 },
      }).outcome,
    ).toBe('passed');
  });
});

describe('metadata: what pages say', () => {
  it('the home description says the name, and one of the phrases', () => {
    const d = (check: string, description: string | null, title?: string) =>
      out(
        check,
        { description, ...(title ? { title } : {}) },
        { keyPhrases: ['songs by the water', 'choir'] },
      );
    expect([
      d('metadata.description-names-site', 'At the MÁRSH choir we sing'),
      d('metadata.description-names-site', 'We sing'),
      d('metadata.description-names-site', null),
    ]).toEqual(['passed', 'failed', 'cantTell']);
    expect([
      d('metadata.key-phrases', 'A Choir for all'),
      d('metadata.key-phrases', 'We sing'),
      d('metadata.key-phrases', 'A choir', 'Home of singers'),
    ]).toEqual(['passed', 'failed', 'failed']);
  });
  it('no default shows through: the home page’s, the name alone, the tagline, the host’s', () => {
    const judged = (title: string, description: string) =>
      ask('metadata.not-inherited', {
        evidence: withPages(
          page({ url: home, via: 'home', title: 'Marsh Choir – songs', description: 'Home text' }),
          page({ url: `${home}a/`, title, description }),
        ),
        brief: { ...brief(), tagline: 'Songs by the water' },
        profile: { name: 'F', defaults: { titles: ['First stone'], texts: ['Ready to grow'] } },
      }).outcome;
    expect([
      judged('About – Marsh Choir', 'About us'),
      judged('Marsh Choir – songs', 'About us'),
      judged('MARSH CHOIR', 'x'),
      judged('About', 'Home text'),
      judged('About', 'Songs by the water'),
      judged('First stone', 'x'),
      judged('About', 'Ready to grow'),
    ]).toEqual(['passed', 'failed', 'failed', 'failed', 'failed', 'failed', 'failed']);
  });
  it('headings step down one level at a time (G141)', () => {
    const h = (body: string) => out('metadata.heading-order', { body });
    expect([
      h('<h2>a</h2><h3>b</h3><h2>c</h2>'),
      h('<h3>a</h3>'),
      h('<h2>a</h2><h4>b</h4>'),
      h('<h2>a</h2><h3>b</h3><h4>c</h4><h1>d</h1>'),
    ]).toEqual(['passed', 'failed', 'failed', 'passed']);
  });
  it('controls have names (WCAG 4.1.2)', () => {
    const c = (body: string) => out('metadata.control-names', { body });
    expect([
      c('<button>Send</button>'),
      c('<button></button>'),
      c('<a href="/x"><img src=a alt=""></a>'),
      c('<a href="/x"><img src=a alt="Songs"></a>'),
      c('<input name=q placeholder=Search>'),
      c('<label>Name <input></label>'),
      c('<label for=n>Name</label><input id=n>'),
      c('<input aria-label=Name>'),
      c('<input type=hidden>'),
      c('<input type=submit>'),
    ]).toEqual([
      'passed',
      'failed',
      'failed',
      'passed',
      'failed',
      'passed',
      'passed',
      'passed',
      'passed',
      'passed',
    ]);
  });
  it('structured data parse, with type and context (JSON-LD 1.1)', () => {
    const ld = (text: string) =>
      out('metadata.structured-data', { head: `<script type="application/ld+json">${text}</script>` });
    expect([
      ld('{"@context":"https://schema.org","@type":"Event"}'),
      ld('{"@context":"https://schema.org","@type":"Event",}'),
      ld('{"@type":"Event"}'),
      ld('{"@context":"https://schema.org"}'),
      ld('{"@context":"https://schema.org","@graph":[{"@type":"A"},{"@type":"B"}]}'),
      ld('[]'),
      out('metadata.structured-data', { head: '' }),
    ]).toEqual(['passed', 'failed', 'failed', 'failed', 'passed', 'failed', 'inapplicable']);
  });
  // HTML, shared declarative refresh steps
  it.each([
    ['0', 0],
    ['5', 5],
    ['0;url=/x', 0],
    ['3; URL=/x', 3],
    ['2.9,/x', 2],
    ['', undefined],
    ['soon', undefined],
    ['-1', undefined],
    [' 10 ', 10],
  ])('a refresh of “%s” waits %s', (content, delay) => {
    expect(refreshDelay(content)).toBe(delay);
  });
  it('no reload by itself', () => {
    const r = (content: string) =>
      out('metadata.no-refresh', { head: `<meta http-equiv="refresh" content="${content}">` });
    expect([r('0;url=/x'), r('1'), r('30;url=/')]).toEqual(['passed', 'failed', 'failed']);
  });
});

describe('sharing: more', () => {
  it('weight of the picture: the profile’s limit, else 2,000,000 bytes', () => {
    const w = (size: number, sharePictureBytes?: number) =>
      ask('sharing.image-weight', {
        evidence: withAssets(
          asset('p.png', { roles: ['share-picture'], size, image: { type: 'png', width: 1, height: 1 } }),
        ),
        profile: { name: 'F', sharePictureBytes },
      }).outcome;
    expect([w(2_000_000), w(2_000_001), w(900_000, 900_000), w(900_001, 900_000)]).toEqual([
      'passed',
      'failed',
      'passed',
      'failed',
    ]);
  });
  it('og:url is the canonical', () => {
    const u = (content: string) => {
      const p = page({ url: home, via: 'home' });
      for (const m of p.facts!.metas) if (m.property === 'og:url') m.content = content;
      return ask('sharing.address-agrees', { evidence: withPages(p) }).outcome;
    };
    expect([u(home), u('https://marsh-choir.example'), u(`${home}x`), u('')]).toEqual([
      'passed',
      'passed',
      'failed',
      'inapplicable',
    ]);
  });
  it('a card type', () => {
    const c = (content: string) =>
      out('sharing.card', { head: `<meta name="twitter:card" content="${content}">` });
    expect([c('summary_large_image'), c('Summary'), c('photo'), c('')]).toEqual([
      'passed',
      'passed',
      'failed',
      'failed',
    ]);
  });
  it('sharp icons: 64 px, SVG, or what the profile recommends', () => {
    const i = (recommended: number[] | undefined, ...icons: { width: number; type?: string }[]) =>
      ask('sharing.icon-sharp', {
        evidence: withAssets(
          ...icons.map((x, n) =>
            asset(`i${n}`, {
              roles: ['icon'],
              image: { type: x.type ?? 'png', width: x.width, height: x.width },
            }),
          ),
        ),
        profile: { name: 'F', icons: { recommended } },
      }).outcome;
    expect([
      i(undefined, { width: 63 }),
      i(undefined, { width: 64 }),
      i(undefined, { width: 1, type: 'svg' }),
      i([240], { width: 192 }),
      i([240], { width: 48 }, { width: 240 }),
    ]).toEqual(['failed', 'passed', 'passed', 'failed', 'passed']);
  });
  it('declared sizes are the real ones', () => {
    const s = (sizes: string, image: AssetEvidence['image']) =>
      ask('sharing.icon-sizes-true', {
        evidence: {
          ...withHome({ head: `<link rel="icon" href="/i.png" sizes="${sizes}">` }),
          assets: [asset('i.png', { roles: ['icon'], image })],
        },
      }).outcome;
    const ico = {
      type: 'ico',
      width: 16,
      height: 16,
      sizes: [
        { width: 16, height: 16 },
        { width: 32, height: 32 },
      ],
    };
    expect([
      s('48x48', { type: 'png', width: 48, height: 48 }),
      s('48x48', { type: 'png', width: 32, height: 32 }),
      s('16x16 32x32', ico),
      s('16x16 48x48', ico),
      s('any', { type: 'svg', width: 1, height: 1 }),
      s('any', { type: 'png', width: 512, height: 512 }),
    ]).toEqual(['passed', 'failed', 'passed', 'failed', 'passed', 'failed']);
  });
  it('not the host’s icon', () => {
    const o = (sha256: string, hashes?: string[]) =>
      ask('sharing.icon-own', {
        evidence: withAssets(
          asset('i', { roles: ['icon'], sha256, image: { type: 'png', width: 1, height: 1 } }),
        ),
        profile: { name: 'F', defaults: { iconHashes: hashes } },
      }).outcome;
    expect([o('aa', ['AA']), o('bb', ['aa']), o('aa')]).toEqual(['failed', 'passed', 'inapplicable']);
  });
  it('the manifest: name, icons, start within its scope (Web Application Manifest)', () => {
    const icons = [192, 512].map((n) => ({ src: `${home}${n}.png`, sizes: [`${n}x${n}`] }));
    const m = (facts: object | undefined, status = 200) =>
      ask('sharing.manifest', {
        evidence: evidence({
          manifest: { url: `${home}m`, chain: chain([`${home}m`], status), facts: facts as never },
        }),
      }).outcome;
    expect([
      m({ name: 'x', icons }),
      m({ icons }),
      m({ name: 'x', icons: icons.slice(1) }),
      m({ error: 'no JSON', icons: [] }),
      m({ name: 'x', icons, startUrl: `${home}app/`, scope: `${home}app/` }),
      m({ name: 'x', icons, startUrl: home, scope: `${home}app/` }),
      m(undefined, 404),
      ask('sharing.manifest', {}).outcome,
    ]).toEqual(['passed', 'failed', 'failed', 'failed', 'passed', 'failed', 'failed', 'inapplicable']);
  });
});

describe('delivery: more', () => {
  const day = (n: number) => new Date(AT.getTime() + n * 86_400_000).toISOString();
  const span = { firstDays: 45, renewalDays: 21, capDays: 400 };
  it('a place lapses after its first span, each change renews it, the cap ends it', () => {
    const left = (dates: object) => {
      const end = lapseOf(span, dates);
      return end === undefined ? undefined : Math.round((end - AT.getTime()) / 86_400_000);
    };
    expect([
      left({ setUp: day(-10) }),
      left({ setUp: day(-40), changed: day(0) }),
      left({ setUp: day(-10), changed: day(-9) }),
      left({ setUp: day(-395), changed: day(0) }),
      left({ endsOn: day(3), setUp: day(0) }),
      left({}),
    ]).toEqual([35, 21, 35, 5, 3, undefined]);
  });
  it('at least seven days', () => {
    const p = (endsOn: number) =>
      ask('delivery.staging-lifetime', {
        situation: 'staging',
        profile: { name: 'F', stagingLifetime: span },
        place: { endsOn: day(endsOn) },
      }).outcome;
    expect([p(7), p(6.9), p(-1)]).toEqual(['passed', 'failed', 'failed']);
    expect([
      ask('delivery.staging-lifetime', { situation: 'staging' }).outcome,
      ask('delivery.staging-lifetime', {
        situation: 'staging',
        profile: { name: 'F', stagingLifetime: span },
      }).outcome,
    ]).toEqual(['inapplicable', 'untested']);
  });
  it('the build: same bytes, text injected into HTML, other bytes, gone, configuration', () => {
    const e = evidence({ assets: [asset('app.js', { roles: ['script'], sha256: 'aa' })] });
    e.pages[0]!.sha256 = 'page';
    const b = (...files: { path: string; sha256: string; text?: string }[]) =>
      ask('delivery.matches-build', {
        evidence: e,
        build: { name: 'build', files: files.map((f) => ({ bytes: 1, ...f })) },
      }).outcome;
    expect([
      b({ path: 'app.js', sha256: 'aa' }),
      b({ path: 'app.js', sha256: 'bb' }),
      b({ path: 'index.html', sha256: 'page' }),
      b({ path: 'index.html', sha256: 'x', text: e.pages[0]!.facts!.text }),
      b({ path: 'index.html', sha256: 'x', text: 'other' }),
      b({ path: '.htaccess', sha256: 'x' }),
      b({ path: 'gone.js', sha256: 'x' }),
      ask('delivery.matches-build', {}).outcome,
    ]).toEqual([
      'passed',
      'failed',
      'passed',
      'passed',
      'failed',
      'inapplicable',
      'cantTell',
      'inapplicable',
    ]);
  });
  it('the live site is what was approved, hosts and paths set aside', () => {
    const base = 'https://shared.example/choir/';
    const staging = (body = '') => ({
      ...evidence(),
      target: {
        url: base,
        hosts: ['shared.example'],
        registrable: null,
        kind: 'before' as const,
        wayIn: 'open' as const,
      },
      hosts: [],
      pages: [
        {
          ...page({
            url: base,
            via: 'home',
            title: 'Marsh Choir – songs by the water',
            body,
            description: 'x',
          }),
        },
      ],
    });
    const live = withHome({ description: 'x', head: '' });
    const judged = (s?: Evidence, notWanted?: Record<string, string>) =>
      ask('delivery.live-equals-staging', {
        evidence: live,
        staging: s,
        brief: { ...brief(), ...(notWanted ? { notWanted } : {}) },
      }).outcome;
    const same = staging();
    same.pages[0]!.facts = {
      ...live.pages[0]!.facts!,
      anchors: live.pages[0]!.facts!.anchors.map((a) => ({ ...a, href: a.href.replace(home, base) })),
    };
    expect([
      judged(same),
      judged(staging('<p>An old word.</p>')),
      judged(),
      judged(same, { stagingHosts: 'left behind' }),
    ]).toEqual(['passed', 'failed', 'cantTell', 'inapplicable']);
  });
  it('fresh: the same text for both (RFC 9111)', () => {
    const f = (a: object, b: object) =>
      ask('delivery.fresh', {
        evidence: evidence({
          freshness: [
            {
              url: home,
              ordinary: { status: 200, text: 'a', ...a },
              revalidated: { status: 200, text: 'a', ...b },
            },
          ],
        }),
      }).outcome;
    expect([
      f({}, {}),
      f({ text: 'b' }, {}),
      f({ status: 503 }, {}),
      f({ error: { code: 'timeout', message: 't' } }, {}),
      f({ text: undefined }, {}),
    ]).toEqual(['passed', 'failed', 'failed', 'cantTell', 'cantTell']);
  });
  it('no listings', () => {
    const l = (sample: string, status = 200) =>
      ask('delivery.no-directory-listing', {
        evidence: evidence({ folders: [{ path: '/p/', chain: chain([`${home}p/`], status), sample }] }),
      }).outcome;
    expect([
      l('<title>Index of /p/</title>'),
      l('<h1>Index of /p/</h1>', 403),
      l('<title>Index of songs</title>'),
      ask('delivery.no-directory-listing', {}).outcome,
    ]).toEqual(['failed', 'passed', 'passed', 'inapplicable']);
  });
  it('page weight: the brief’s budget, else 3,000,000 bytes, pictures counted once', () => {
    const w = (size: number, budgetBytes?: number) => {
      const p = page({ url: home, via: 'home', body: '<img src="/a.png" alt=a><img src="/a.png" alt=b>' });
      p.chain.hops[0]!.bytes = { encoded: 1000, decoded: 5000 };
      return ask('delivery.page-weight', {
        evidence: { ...withPages(p), assets: [asset('a.png', { size })] },
        brief: { ...brief(), budgetBytes },
      }).outcome;
    };
    expect([w(2_999_000), w(2_999_001), w(9000, 10_000), w(9001, 10_000)]).toEqual([
      'passed',
      'failed',
      'passed',
      'failed',
    ]);
  });
  it('fingerprinted files are kept for a week', () => {
    const c = (url: string, value?: string) =>
      ask('delivery.cached', {
        evidence: withAssets(
          asset(url, {
            chain: chain([home + url], 200, value === undefined ? [] : [['Cache-Control', value]]),
          }),
        ),
      }).outcome;
    expect([
      c('app.3f9a1c2b.js', 'max-age=604800'),
      c('app.3f9a1c2b.js', 'max-age=604799'),
      c('app.3f9a1c2b.js'),
      c('app.3f9a1c2b.js', 'no-cache, max-age=9999999'),
      c('app.js?ver=6.4.21', 'public, max-age=31536000, immutable'),
      c('app.js'),
      c('holidays.css'),
    ]).toEqual(['passed', 'failed', 'failed', 'failed', 'passed', 'inapplicable', 'inapplicable']);
  });
  it('declared fonts are used somewhere', () => {
    const f = (family: string, families: string[]) =>
      ask('delivery.fonts-used', {
        evidence: withAssets(
          asset('s.css', {
            roles: ['style'],
            css: { fontFaces: [{ family, sources: [], line: 1 }], families, urls: [] },
          }),
        ),
      }).outcome;
    expect([
      f('Firth Sans', ['firth sans']),
      f('Firth Sans', ['arial']),
      ask('delivery.fonts-used', {}).outcome,
    ]).toEqual(['passed', 'failed', 'inapplicable']);
  });
  it('forms without the host’s default sender', () => {
    const s = (body: string, formSenders?: string[]) =>
      out('delivery.form-sender', { body }, {}, { profile: { defaults: { formSenders } } });
    const form = (v: string) => `<form action="/send"><input type=hidden name=from value="${v}"></form>`;
    expect([
      s(form('a@marsh-choir.example'), ['forms@fennel.example']),
      s(form('Forms@Fennel.example'), ['forms@fennel.example']),
      s('', ['x']),
      s(form('x')),
    ]).toEqual(['passed', 'failed', 'inapplicable', 'inapplicable']);
  });
  it('comments as agreed', () => {
    const c = (body: string, comments?: 'wanted' | 'unwanted', head = HEAD) =>
      out('delivery.comments', { body, head }, { comments });
    const box = '<form id="commentform"><textarea name="comment"></textarea></form>';
    expect([
      c(box, 'unwanted'),
      c('', 'unwanted'),
      c(box, 'wanted'),
      c('', 'wanted'),
      c('', 'unwanted', '<link rel="pingback" href="/xmlrpc">'),
      c(''),
    ]).toEqual(['failed', 'passed', 'passed', 'failed', 'failed', 'untested']);
  });
  it('exposed files are told by their content, in whole or in part', () => {
    const x = (path: string, sample: string, status = 200) =>
      ask('delivery.no-exposed-files', {
        evidence: evidence({ paths: [{ path, chain: chain([home + path.slice(1)], status), sample }] }),
      }).outcome;
    expect([
      x('/.env', 'DB_PASSWORD=…'),
      x('/.env', '<!doctype html>'),
      x('/.htpasswd', 'mara:…'),
      x('/backup.zip', 'PK\x03\x04', 206),
      x('/backup.sql', '-- dump'),
      x('/server-status', '<h1>Apache Server Status</h1><dl>Server Version: Apache'),
      x('/wp-config.php.bak', '<?php define'),
      x('/.env', 'DB_PASSWORD=…', 404),
    ]).toEqual(['failed', 'passed', 'failed', 'failed', 'failed', 'failed', 'failed', 'passed']);
    expect(
      ask('delivery.no-exposed-files', {
        evidence: evidence({ paths: [{ path: '/.env', chain: brokenChain(home, 'timeout') }] }),
      }).outcome,
    ).toBe('cantTell');
  });
});

describe('what refuses a visitor', () => {
  it('a challenge with 200 is no page: its titles are not judged', () => {
    const p = page({
      url: home,
      via: 'home',
      title: 'One moment, please',
      body: '<script src="/c.js"></script>',
    });
    p.facts = { ...p.facts!, text: 'Checking your browser before you go on', textLength: 38 };
    expect(ask('metadata.title-length', { evidence: withPages(p) })).toMatchObject({
      outcome: 'cantTell',
      reason: expect.stringContaining('proof of a person') as string,
    });
  });
  it('staging hosts beside the live one are no hosts of the site', () => {
    const e = evidence();
    e.hosts.push({
      ...e.hosts[0]!,
      host: 'draft.host.example',
      role: 'staging',
      https: brokenChain('https://draft.host.example/', 'refused'),
    });
    expect(ask('https.answers', { evidence: e }).outcome).toBe('passed');
  });
});
