/** Delivery: weight, caching, files, forms, what was approved and what is served. */
import { describe, expect, it } from 'vitest';
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge } from '#core/checks/engine/judge';
import type { Approval } from '#core/facts/approval';
import type { AssetEvidence, Evidence, Header } from '#core/facts/evidence';
import {
  asset,
  ask,
  AT,
  brief,
  brokenChain,
  chain,
  evidence,
  HEAD,
  HOME as home,
  outcome as out,
  page,
  withAssets,
  withHome,
  withPages,
  withHtml,
  type Asked,
} from '#core/checks/example-evidence';
import { lapseOf } from '#core/checks/catalogue/delivery/staging-lifetime';

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
  describe('compression of texts above 1 KiB', () => {
    const judged = (decoded: number) => {
      const p = page({ url: home, via: 'home', headers: [['Content-Type', 'text/html']] });
      p.chain.hops[0]!.bytes = { encoded: decoded, decoded };
      return ask('delivery.compressed', { evidence: { ...withPages(p), assets: [] } }).outcome;
    };
    it.each([
      [1024, 'inapplicable'],
      [1025, 'failed'],
    ])('%s: %s', (decoded, wanted) => {
      expect(judged(decoded)).toBe(wanted);
    });
  });
  describe('the median time to first byte', () => {
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
    it.each<[Parameters<typeof judged>, string]>([
      [[800], 'passed'],
      [[801], 'failed'],
      [[10, 800, 9000], 'passed'],
      [[100, 1700], 'failed'],
    ])('%j: %s', (all, wanted) => {
      expect(judged(...all)).toBe(wanted);
    });
  });
  describe('security.txt (RFC 9116)', () => {
    const judged = (sample: string, status = 200) =>
      ask('delivery.security-contact', {
        evidence: evidence({
          paths: [{ path: '/.well-known/security.txt', chain: chain([home], status), sample }],
        }),
      }).outcome;
    it.each([
      ['Contact: mailto:a@b.example\nExpires: 2027-01-01T00:00:00z', undefined, 'passed'],
      ['Contact: mailto:a@b.example\nExpires: 2026-01-01T00:00:00z', undefined, 'failed'],
      ['Expires: 2027-01-01T00:00:00z', undefined, 'failed'],
      ['', 404, 'inapplicable'],
      ['<html>', undefined, 'inapplicable'],
    ])('%s, %s: %s', (sample, status, wanted) => {
      expect(judged(sample, status)).toBe(wanted);
    });
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

describe('files, forms and the way to the launch', () => {
  const day = (n: number) => new Date(AT.getTime() + n * 86_400_000).toISOString();
  const span = { firstDays: 45, renewalDays: 21, capDays: 400 };
  describe('a place lapses after its first span, each change renews it, the cap ends it', () => {
    const left = (dates: object) => {
      const end = lapseOf(span, dates);
      return end === undefined ? undefined : Math.round((end - AT.getTime()) / 86_400_000);
    };
    it.each([
      [{ setUp: day(-10) }, 35],
      [{ setUp: day(-40), changed: day(0) }, 21],
      [{ setUp: day(-10), changed: day(-9) }, 35],
      [{ setUp: day(-395), changed: day(0) }, 5],
      [{ endsOn: day(3), setUp: day(0) }, 3],
      [{}, undefined],
    ])('%j: %s', (dates, wanted) => {
      expect(left(dates)).toBe(wanted);
    });
  });
  describe('at least seven days', () => {
    const p = (endsOn: number) =>
      ask('delivery.staging-lifetime', {
        situation: 'staging',
        profile: { name: 'F', stagingLifetime: span },
        environment: { endsOn: day(endsOn) },
      }).outcome;
    it.each([
      [7, 'passed'],
      [6.9, 'failed'],
      [-1, 'failed'],
    ])('%s: %s', (endsOn, wanted) => {
      expect(p(endsOn)).toBe(wanted);
    });
    it('no span known', () => {
      expect(ask('delivery.staging-lifetime', { situation: 'staging' }).outcome).toBe('inapplicable');
    });
  });
  describe('the build: same bytes, text injected into HTML, other bytes, gone, configuration', () => {
    const e = evidence({ assets: [asset('app.js', { roles: ['script'], sha256: 'aa' })] });
    e.pages[0]!.sha256 = 'page';
    const b = (...files: { path: string; sha256: string; text?: string }[]) =>
      ask('delivery.matches-build', {
        evidence: e,
        build: { name: 'build', files: files.map((f) => ({ bytes: 1, ...f })) },
      }).outcome;
    it.each([
      [{ path: 'app.js', sha256: 'aa' }, 'passed'],
      [{ path: 'app.js', sha256: 'bb' }, 'failed'],
      [{ path: 'index.html', sha256: 'page' }, 'passed'],
      [{ path: 'index.html', sha256: 'x', text: e.pages[0]!.facts!.text }, 'passed'],
      [{ path: 'index.html', sha256: 'x', text: 'other' }, 'failed'],
      [{ path: '.htaccess', sha256: 'x' }, 'inapplicable'],
      [{ path: 'gone.js', sha256: 'x' }, 'cantTell'],
    ])('%j: %s', (one, wanted) => {
      expect(b(one)).toBe(wanted);
    });
    it('a site with nothing of the kind', () => {
      expect(ask('delivery.matches-build', {}).outcome).toBe('inapplicable');
    });
  });
  describe('the client’s yes', () => {
    const seen = evidence();
    const [front, ...rest] = seen.pages;
    const { facts } = front!;
    const news = ' From May on we sing on Tuesdays, in the old mill.';
    const other = {
      ...seen,
      pages: [{ ...front!, facts: { ...facts!, text: facts!.text + news } }, ...rest],
    };
    const yes = (more: Partial<Approval> = {}): Approval => ({
      by: 'Nell Carrow',
      at: '2026-11-20T10:00:00Z',
      environment: 'Staging',
      isHere: true,
      isLive: false,
      ...more,
    });
    const staged = (e: Evidence): Evidence => ({ ...e, target: { ...e.target, kind: 'before' } });
    it.each<[string, Partial<Asked>, string]>([
      ['the same content', {}, 'passed'],
      ['the same content, seen live', { approval: yes({ isHere: false }) }, 'passed'],
      ['another text', { evidence: other }, 'failed'],
      [
        'a yes to another environment before the live one',
        { approval: yes({ isHere: false }), evidence: staged(seen) },
        'inapplicable',
      ],
      [
        'a yes to the live one, and a new draft of it',
        { approval: yes({ isHere: false, isLive: true }), evidence: staged(other) },
        'failed',
      ],
    ])('%s', (_, asked, wanted) => {
      const situation = asked.evidence?.target.kind === 'before' ? 'staging' : 'live';
      expect(
        ask('delivery.client-approval', { approval: yes(), approved: seen, situation, ...asked }).outcome,
      ).toBe(wanted);
    });
    it('says who said it to what, and what changed', () => {
      const finding = ask('delivery.client-approval', { approval: yes(), approved: seen, evidence: other });
      expect(finding).toMatchObject({
        expected: 'what Nell Carrow said yes to on 2026-11-20 (Staging)',
        found: '1 of 3 pages: text changed since the yes',
      });
      expect(finding.places[0]!.raw).toContain('in the old mill');
      expect(finding.recipe!.paste![0]!.text).toBe(`${home}: text changed since the yes`);
    });
    it('before the launch nobody has said it: a person may attest it', () => {
      const input = {
        evidence: staged(seen),
        brief: brief(),
        checklist: fullChecklist(),
        situation: 'staging' as const,
        at: AT,
      };
      const of = (more: object) =>
        judge({ ...input, ...more }).find((f) => f.check === 'delivery.client-approval');
      expect(of({})).toMatchObject({ outcome: 'untested', attestable: true });
      const said = { check: 'delivery.client-approval', done: true, by: 'Mara', at: AT.toISOString() };
      expect(of({ attestations: [said] })).toMatchObject({ outcome: 'passed' });
      // a site that is live already is not held for it
      expect(of({ evidence: seen, situation: 'live', launched: true })).toMatchObject({
        outcome: 'inapplicable',
      });
      expect(of({ evidence: seen, situation: 'live', launched: false })).toMatchObject({
        outcome: 'untested',
      });
      // without people there is nobody to ask
      expect(of({ skipManual: true })).toBeUndefined();
    });
  });
  describe('the live site is what was approved, hosts and paths set aside', () => {
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
    it.each([
      ['same', same, undefined, 'passed'],
      ["staging('<p>An old word.</p>')", staging('<p>An old word.</p>'), undefined, 'failed'],
      ['', undefined, undefined, 'cantTell'],
      ["same, { stagingHosts: 'left behind' }", same, { stagingHosts: 'left behind' }, 'inapplicable'],
    ])('%s', (_, s, notWanted, wanted) => {
      expect(judged(s, notWanted)).toBe(wanted);
    });
  });
  describe('fresh: the same text for both (RFC 9111)', () => {
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
    it.each([
      [{}, 'passed'],
      [{ text: 'b' }, 'failed'],
      [{ status: 503 }, 'failed'],
      [{ error: { code: 'timeout', message: 't' } }, 'cantTell'],
      [{ text: undefined }, 'cantTell'],
    ])('%j: %s', (a, wanted) => {
      expect(f(a, {})).toBe(wanted);
    });
  });
  describe('no listings', () => {
    const l = (sample: string, status = 200) =>
      ask('delivery.no-directory-listing', {
        evidence: evidence({ folders: [{ path: '/p/', chain: chain([`${home}p/`], status), sample }] }),
      }).outcome;
    it.each([
      ['<title>Index of /p/</title>', undefined, 'failed'],
      ['<h1>Index of /p/</h1>', 403, 'passed'],
      ['<title>Index of songs</title>', undefined, 'passed'],
    ])('%s, %s: %s', (sample, status, wanted) => {
      expect(l(sample, status)).toBe(wanted);
    });
    it('a site with nothing of the kind', () => {
      expect(ask('delivery.no-directory-listing', {}).outcome).toBe('inapplicable');
    });
  });
  describe('page weight: the brief’s budget, else 3,000,000 bytes, pictures counted once', () => {
    const w = (size: number, budgetBytes?: number) => {
      const p = page({ url: home, via: 'home', body: '<img src="/a.png" alt=a><img src="/a.png" alt=b>' });
      p.chain.hops[0]!.bytes = { encoded: 1000, decoded: 5000 };
      return ask('delivery.page-weight', {
        evidence: { ...withPages(p), assets: [asset('a.png', { size })] },
        brief: { ...brief(), budgetBytes },
      }).outcome;
    };
    it.each([
      [2_999_000, undefined, 'passed'],
      [2_999_001, undefined, 'failed'],
      [9000, 10_000, 'passed'],
      [9001, 10_000, 'failed'],
    ])('%s, %s: %s', (size, budgetBytes, wanted) => {
      expect(w(size, budgetBytes)).toBe(wanted);
    });
  });
  describe('fingerprinted files are kept for a week', () => {
    const c = (url: string, value?: string) =>
      ask('delivery.cached', {
        evidence: withAssets(
          asset(url, {
            chain: chain([home + url], 200, value === undefined ? [] : [['Cache-Control', value]]),
          }),
        ),
      }).outcome;
    it.each([
      ['app.3f9a1c2b.js', 'max-age=604800', 'passed'],
      ['app.3f9a1c2b.js', 'max-age=604799', 'failed'],
      ['app.3f9a1c2b.js', undefined, 'failed'],
      ['app.3f9a1c2b.js', 'no-cache, max-age=9999999', 'failed'],
      ['app.js?ver=6.4.21', 'public, max-age=31536000, immutable', 'passed'],
      ['app.js', undefined, 'inapplicable'],
      ['holidays.css', undefined, 'inapplicable'],
    ])('%s, %s: %s', (url, value, wanted) => {
      expect(c(url, value)).toBe(wanted);
    });
  });
  describe('declared fonts are used somewhere', () => {
    const f = (family: string, families: string[]) =>
      ask('delivery.fonts-used', {
        evidence: withAssets(
          asset('s.css', {
            roles: ['style'],
            css: { fontFaces: [{ family, sources: [], line: 1 }], families, urls: [] },
          }),
        ),
      }).outcome;
    it.each([
      [['firth sans'], 'passed'],
      [['arial'], 'failed'],
    ])('%j: %s', (families, wanted) => {
      expect(f('Firth Sans', families)).toBe(wanted);
    });
    it('a site with nothing of the kind', () => {
      expect(ask('delivery.fonts-used', {}).outcome).toBe('inapplicable');
    });
  });
  describe('forms without the host’s default sender', () => {
    const s = (body: string, formSenders?: string[]) =>
      out('delivery.form-sender', { body }, {}, { profile: { defaults: { formSenders } } });
    const form = (v: string) => `<form action="/send"><input type=hidden name=from value="${v}"></form>`;
    it.each([
      [
        "form('a@marsh-choir.example'), ['forms@fennel.example']",
        form('a@marsh-choir.example'),
        ['forms@fennel.example'],
        'passed',
      ],
      [
        "form('Forms@Fennel.example'), ['forms@fennel.example']",
        form('Forms@Fennel.example'),
        ['forms@fennel.example'],
        'failed',
      ],
      ["'', ['x']", '', ['x'], 'inapplicable'],
      ["form('x')", form('x'), undefined, 'inapplicable'],
    ])('%s', (_, body, formSenders, wanted) => {
      expect(s(body, formSenders)).toBe(wanted);
    });
  });
  describe('comments as agreed', () => {
    const c = (body: string, comments?: 'wanted' | 'unwanted', head = HEAD) =>
      out('delivery.comments', { body, head }, { comments });
    const box = '<form id="commentform"><textarea name="comment"></textarea></form>';
    it.each<[string, ...Parameters<typeof c>, string]>([
      ["box, 'unwanted'", box, 'unwanted', undefined, 'failed'],
      ["'', 'unwanted'", '', 'unwanted', undefined, 'passed'],
      ["box, 'wanted'", box, 'wanted', undefined, 'passed'],
      ["'', 'wanted'", '', 'wanted', undefined, 'failed'],
      [
        "'', 'unwanted', '<link rel=\"pingback\" href=\"/xmlrpc\">'",
        '',
        'unwanted',
        '<link rel="pingback" href="/xmlrpc">',
        'failed',
      ],
      ["''", '', undefined, undefined, 'untested'],
    ])('%s', (_, body, comments, head, wanted) => {
      expect(c(body, comments, head)).toBe(wanted);
    });
  });
  describe('exposed files are told by their content, in whole or in part', () => {
    const x = (path: string, sample: string, status = 200) =>
      ask('delivery.no-exposed-files', {
        evidence: evidence({ paths: [{ path, chain: chain([home + path.slice(1)], status), sample }] }),
      }).outcome;
    it.each([
      ['/.env', 'DB_PASSWORD=…', undefined, 'failed'],
      ['/.env', '<!doctype html>', undefined, 'passed'],
      ['/.env', 'A note to all: KEY=5 is a joke\nDB_NAME=…\n', undefined, 'passed'],
      ['/.env', '# settings\nAPP_KEY=…\nexport DB_HOST=…\n', undefined, 'failed'],
      ['/.htpasswd', 'mara:$apr1$…', undefined, 'failed'],
      ['/.htpasswd', 'mara:(crypt)…', undefined, 'failed'],
      ['/.htpasswd', 'a:hover { color: red }', undefined, 'passed'],
      ['/.htpasswd', 'mara:…', undefined, 'passed'],
      ['/backup.zip', 'PK\x03\x04', 206, 'failed'],
      ['/backup.sql', '-- MariaDB dump 10.19  Distrib 10.11.6', undefined, 'failed'],
      ['/backup.sql', 'insert into `wp_users` values (1)', undefined, 'failed'],
      ['/backup.sql', '-- our menu --\nSoup', undefined, 'passed'],
      ['/backup.sql', '/* style */ body { margin: 0 }', undefined, 'passed'],
      ['/dump.sql', 'Insert into the slot, then turn.', undefined, 'passed'],
      ['/.git/config', '[core]\n\trepositoryformatversion = 0', undefined, 'failed'],
      ['/.git/config', '[core] values of our house', undefined, 'passed'],
      ['/.hg/requires', 'hello\nworld\n', undefined, 'passed'],
      ['/.hg/requires', 'dotencode\nfncache\nstore\n', undefined, 'failed'],
      ['/error_log', '2026-11-24: our news of the day', undefined, 'passed'],
      ['/error_log', '[24-Nov-2026 10:00:00 UTC] PHP Warning:  x', undefined, 'failed'],
      ['/phpinfo.php', '<h1>Our PHP version of the story</h1>', undefined, 'passed'],
      ['/phpinfo.php', '<title>PHP 8.2.20 - phpinfo()</title>', undefined, 'failed'],
      ['/server-status', '<title>Project Status</title>', undefined, 'passed'],
      ['/server-status', '<h1>Apache Server Status</h1><dl>Server Version: Apache', undefined, 'failed'],
      ['/wp-config.php.bak', '<?php define', undefined, 'failed'],
      ['/.env', 'DB_PASSWORD=…', 404, 'passed'],
    ])('%s, %s, %s: %s', (path, sample, status, wanted) => {
      expect(x(path, sample, status)).toBe(wanted);
    });
    it('what a made-up address gets as well is no file', () => {
      const sample = 'DB_NAME=…\nDB_HOST=…\n';
      const paths = [{ path: '/.env', chain: chain([`${home}.env`]), sample }];
      const judged = (notFoundSample: string) =>
        ask('delivery.no-exposed-files', { evidence: evidence({ paths, notFoundSample }) }).outcome;
      expect(judged(sample)).toBe('passed');
      expect(judged('another page')).toBe('failed');
    });
    it('no answer tells nothing', () => {
      expect(
        ask('delivery.no-exposed-files', {
          evidence: evidence({ paths: [{ path: '/.env', chain: brokenChain(home, 'timeout') }] }),
        }).outcome,
      ).toBe('cantTell');
    });
  });
});

describe('pictures', () => {
  const picture = (more: Partial<AssetEvidence>): AssetEvidence => ({
    url: `${home}quay.jpg`,
    roles: ['picture'],
    chain: chain([`${home}quay.jpg`], 206),
    size: 4_000_000,
    image: { type: 'jpg', width: 6000, height: 4000 },
    ...more,
  });
  describe('a heavy one is named with its page and its pixels; unread, missing and other files are not', () => {
    const e = withHome({ body: '<img src="/quay.jpg" alt="">' });
    const judged = (more: Partial<AssetEvidence>) =>
      ask('delivery.picture-weight', { evidence: { ...e, assets: [picture(more)] } });
    it.each<[string, Partial<AssetEvidence>, string]>([
      ['of unknown size', { size: undefined }, 'cantTell'],
      ['missing', { chain: chain([home], 404) }, 'inapplicable'],
      ['not on a page', { roles: ['share-picture'] }, 'inapplicable'],
      ['light', { size: 20_000 }, 'passed'],
    ])('%s', (_, more, wanted) => {
      expect(judged(more).outcome).toBe(wanted);
    });
    it('says it in words', () => {
      expect(judged({}).places[0]).toMatchObject({
        outcome: 'failed',
        found: `4,000,000 bytes, 6000 × 4000 px, on ${home}`,
      });
    });
  });
});

describe('told by headers and by form', () => {
  it.each<[string, Header[], string]>([
    ['a Link header', [['Link', '</wm>; rel="webmention"']], 'failed'],
    ['another Link header', [['Link', '</s.css>; rel="preload"']], 'passed'],
    ['X-Pingback', [['X-Pingback', 'https://a.example/x']], 'failed'],
  ])('link notifications by %s (W3C Webmention 3.1.2)', (_, headers, wanted) => {
    const e = withHome({ headers: [['Content-Type', 'text/html'], ...headers] });
    expect(
      ask('delivery.comments', { evidence: e, brief: { ...brief(), comments: 'unwanted' } }).outcome,
    ).toBe(wanted);
  });
  // RFC 9116 2.5.3, 2.5.5
  const EXPIRES = 'Expires: 2027-06-01T00:00:00Z';
  it.each([
    [`Contact: mailto:a@b.example\n${EXPIRES}`, 'passed'],
    [`Contact: https://b.example/report\n${EXPIRES}`, 'passed'],
    [`Contact: tel:+1-201-555-0123\r\n${EXPIRES}\r\n`, 'passed'],
    [`Contact: a@b.example\n${EXPIRES}`, 'failed'],
    [`Contact: http://b.example/report\n${EXPIRES}`, 'failed'],
    [`Contact: mailto:a@b.example\nContact: write to us\n${EXPIRES}`, 'failed'],
    ['Contact: mailto:a@b.example\nExpires: next year', 'failed'],
    ['Contact: mailto:a@b.example\nExpires: 1 June 2027', 'failed'],
  ])('security.txt “%s”: %s', (sample, wanted) => {
    const path = '/.well-known/security.txt';
    const e = evidence({ paths: [{ path, chain: chain([home + path.slice(1)]), sample }] });
    expect(ask('delivery.security-contact', { evidence: e }).outcome).toBe(wanted);
  });
  it('a font that a style attribute uses is used', () => {
    const face = '<style>@font-face{font-family:"Quay";src:url(q.woff2)}</style>';
    const judged = (body: string) => ask('delivery.fonts-used', { evidence: withHtml(face + body) }).outcome;
    expect(judged('<p style="font-family: Quay, serif">x')).toBe('passed');
    expect(judged('<p style="font: 12px/1.5 \'Quay\'">x')).toBe('passed');
    expect(judged('<p style="color: red">x')).toBe('failed');
  });
});
