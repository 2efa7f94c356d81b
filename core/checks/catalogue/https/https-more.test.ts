/** Keys, protocols, hops, cookies, headers: values on both sides of each threshold. */
import { describe, expect, it } from 'vitest';
import { readCss } from '#core/extract/css';
import type { CertificateFacts, Evidence, Header, HostEvidence, TlsEvidence } from '#core/facts/evidence';
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
import { isSessionLike, readCookie } from './secure-cookies';

const home = 'https://marsh-choir.example/';
const withHost = (more: Partial<HostEvidence>): Evidence =>
  evidence({ hosts: [host('marsh-choir.example', more)] });
const withTls = (more: Partial<TlsEvidence>): Evidence => {
  const h = host('marsh-choir.example');
  return withHost({ tls: { ...h.tls, ...more } });
};
const leaf = (more: object) => {
  const [first, ...rest] = host('marsh-choir.example').tls.chain;
  return [{ ...first!, ...more }, ...rest];
};
const headers = (...list: Header[]): Evidence => withHost({ https: chain([home], 200, list) });

describe('https.certificate-key', () => {
  it.each([
    ['RSA', 2048, 'sha256WithRSAEncryption', 'passed'],
    ['RSA', 2047, 'sha256WithRSAEncryption', 'failed'],
    ['RSA-PSS', 1024, 'rsassaPss', 'failed'],
    ['EC', 256, 'ecdsa-with-SHA256', 'passed'],
    ['EC', 224, 'ecdsa-with-SHA256', 'failed'],
    ['EC', 256, 'ecdsa-with-SHA1', 'failed'],
    ['RSA', 4096, 'md5WithRSAEncryption', 'failed'],
    ['RSA', 4096, 'sha1WithRSAEncryption', 'failed'],
    ['ED25519', 256, 'Ed25519', 'passed'],
    ['RSA', 4096, 'sha512WithRSAEncryption', 'passed'],
  ] as const)('%s %i, signed %s: %s', (keyType, keyBits, signature, outcome) => {
    expect(
      ask('https.certificate-key', { evidence: withTls({ chain: leaf({ keyType, keyBits, signature }) }) })
        .outcome,
    ).toBe(outcome);
  });
  it('a weak signature of an intermediate counts, one of a root does not', () => {
    const [one, two] = host('marsh-choir.example').tls.chain;
    expect(
      ask('https.certificate-key', {
        evidence: withTls({ chain: [one!, { ...two!, signature: 'sha1WithRSAEncryption' }] }),
      }).outcome,
    ).toBe('failed');
    expect(
      ask('https.certificate-key', {
        evidence: withTls({
          chain: [
            one!,
            two!,
            { ...two!, subject: 'CN=Root', issuer: 'CN=Root', signature: 'sha1WithRSAEncryption' },
          ],
        }),
      }).outcome,
    ).toBe('passed');
  });
  it('without a handshake it cannot tell', () => {
    expect(
      ask('https.certificate-key', {
        evidence: withTls({ chain: [], error: { code: 'timeout', message: 'silence' } }),
      }),
    ).toMatchObject({ outcome: 'cantTell', reason: expect.stringContaining('https.answers') as string });
  });
});

describe('https.protocol (RFC 8996)', () => {
  it.each([
    ['TLSv1.2', [], 'passed'],
    ['TLSv1.3', [], 'passed'],
    ['TLSv1.3', ['TLSv1.1'], 'failed'],
    ['TLSv1.3', ['TLSv1'], 'failed'],
    ['TLSv1.1', [], 'failed'],
    [undefined, ['TLSv1'], 'failed'],
    ['TLSv1.3', undefined, 'cantTell'],
    [undefined, [], 'cantTell'],
  ] as const)('%s agreed, %j accepted: %s', (protocol, accepted, outcome) => {
    expect(
      ask('https.protocol', {
        evidence: withTls({ protocol, oldProtocols: accepted ? { accepted: [...accepted] } : undefined }),
      }).outcome,
    ).toBe(outcome);
  });
});

describe('https.few-hops', () => {
  const judged = (http: string[], https: string[]) =>
    ask('https.few-hops', { evidence: withHost({ http: chain(http), https: chain(https) }) }).outcome;
  const h = (...p: string[]) => p.map((x) => `http://marsh-choir.example/${x}`),
    s = (...p: string[]) => p.map((x) => home + x);
  describe('two from http, one from https', () => {
    it.each([
      ["[...h(''), ...s('a', '')], s('')", [...h(''), ...s('a', '')], s(''), 'passed'],
      ["[...h('', 'b'), ...s('a', '')], s('')", [...h('', 'b'), ...s('a', '')], s(''), 'failed'],
      ["[...h(''), ...s('')], s('', 'a')", [...h(''), ...s('')], s('', 'a'), 'passed'],
      ["[...h(''), ...s('')], s('', 'a', 'b')", [...h(''), ...s('')], s('', 'a', 'b'), 'failed'],
    ])('%s', (_, one, two, wanted) => {
      expect(judged(one, two)).toBe(wanted);
    });
  });
  describe('one more where the last chooses a language', () => {
    it.each([
      ["s('', 'a', 'en/')", s('', 'a', 'en/'), 'passed'],
      ["s('', 'a', 'en/x')", s('', 'a', 'en/x'), 'failed'],
    ])('%s', (_, two, wanted) => {
      expect(judged([...h(''), ...s('')], two)).toBe(wanted);
    });
  });
  it('a loop fails', () => {
    expect(
      ask('https.few-hops', {
        evidence: withHost({
          https: {
            start: home,
            hops: chain([home]).hops,
            end: 'error',
            error: { code: 'redirect-loop', message: 'in a circle' },
          },
        }),
      }).outcome,
    ).toBe('failed');
  });
});

describe('https.hsts-safe', () => {
  const judged = (value: string, subdomains: Evidence['subdomains'], known?: string[]) =>
    ask('https.hsts-safe', {
      evidence: { ...headers(['Strict-Transport-Security', value]), subdomains },
      brief: { ...brief(), knownSubdomains: known },
    }).outcome;
  const sub = 'tickets.marsh-choir.example';
  describe('inapplicable without the wide claim, untested without known subdomains', () => {
    it.each([
      ['max-age=1', 'inapplicable'],
      ['max-age=1; includeSubDomains', 'untested'],
      ['max-age=1;INCLUDESUBDOMAINS', 'untested'],
    ])('%s: %s', (one, wanted) => {
      expect(judged(one, [])).toBe(wanted);
    });
  });
  describe('every known subdomain has to answer over https', () => {
    const wide = 'max-age=9; includeSubDomains';
    it.each([
      [
        '[{ host: sub, chain: chain([`https://${sub}/`], 404) }]',
        [{ host: sub, chain: chain([`https://${sub}/`], 404) }],
        'passed',
      ],
      [
        "[{ host: sub, chain: brokenChain(`https://${sub}/`, 'tls') }]",
        [{ host: sub, chain: brokenChain(`https://${sub}/`, 'tls') }],
        'failed',
      ],
      [
        "[{ host: sub, chain: brokenChain(`https://${sub}/`, 'timeout') }]",
        [{ host: sub, chain: brokenChain(`https://${sub}/`, 'timeout') }],
        'cantTell',
      ],
      ['[]', [], 'cantTell'],
    ])('%s', (_, two, wanted) => {
      expect(judged(wide, two, [sub])).toBe(wanted);
    });
  });
});

describe('https on pages', () => {
  const out = (check: string, parts: Parameters<typeof withHome>[0]) =>
    ask(check, { evidence: withHome(parts) }).outcome;
  describe('links to oneself in http', () => {
    it.each([
      [
        '{ body: \'<a href="http://marsh-choir.example/x">x</a>\' }',
        { body: '<a href="http://marsh-choir.example/x">x</a>' },
        'failed',
      ],
      [
        '{ body: \'<a href="http://elsewhere.example/x">x</a>\' }',
        { body: '<a href="http://elsewhere.example/x">x</a>' },
        'passed',
      ],
      [
        '{ head: \'<link rel="canonical" href="http://marsh-choir.example/">\' }',
        { head: '<link rel="canonical" href="http://marsh-choir.example/">' },
        'failed',
      ],
      [
        '{ body: \'<form action="http://www.marsh-choir.example/send"><input ari',
        {
          body: '<form action="http://www.marsh-choir.example/send"><input aria-label=a></form>',
        },
        'failed',
      ],
      [
        'a picture of its own',
        { body: '<img src="http://marsh-choir.example/choir.jpg" alt="the choir">' },
        'failed',
      ],
      [
        'a picture of its own in srcset',
        { body: '<img srcset="http://www.marsh-choir.example/choir.jpg 2x" alt="the choir">' },
        'failed',
      ],
      ['a picture elsewhere', { body: '<img src="http://pictures.example/a.jpg" alt="a">' }, 'passed'],
    ])('%s', (_, parts, wanted) => {
      expect(out('https.no-insecure-links', parts)).toBe(wanted);
    });
  });
  it('links inside a site that was read over http', () => {
    const plain = home.replace('https:', 'http:');
    const read = page({ url: `${plain}a/`, body: '<a href="/x">x</a>' });
    Object.assign(read.facts!, { links: [], metas: [] });
    expect(
      ask('https.no-insecure-links', { evidence: withPages(page({ url: home, via: 'home' }), read) })
        .places[1],
    ).toMatchObject({
      place: read.url,
      outcome: 'failed',
      found: expect.stringContaining(`${plain}`) as unknown,
    });
  });
  it('addresses of the sitemap in http', () => {
    const e = evidence();
    e.sitemaps[0]!.facts!.urls[0]!.loc = 'http://marsh-choir.example/';
    expect(ask('https.no-insecure-links', { evidence: e }).outcome).toBe('failed');
  });
  describe('forms', () => {
    it.each([
      [{}, 'inapplicable'],
      [{ body: '<form action="/send"></form>' }, 'passed'],
      [{ body: '<form action="http://mail.example/send"></form>' }, 'failed'],
    ])('%j: %s', (parts, wanted) => {
      expect(out('https.secure-forms', parts)).toBe(wanted);
    });
  });
});

describe('https.secure-cookies (RFC 6265 4.1.2)', () => {
  const judged = (...cookies: string[]) =>
    ask('https.secure-cookies', {
      evidence: withPages(
        page({
          url: home,
          via: 'home',
          headers: [['Content-Type', 'text/html'], ...cookies.map((c): Header => ['Set-Cookie', c])],
        }),
      ),
    }).outcome;
  it.each([
    ['a=1; Secure', 'passed'],
    ['a=1', 'failed'],
    ['sessionid=1; secure', 'failed'],
    ['sessionid=1; Secure; HttpOnly', 'passed'],
    ['PHPSESSID=1; SECURE; httponly; path=/', 'passed'],
    ['csrf_session=1; Secure', 'passed'],
    ['a=1; SameSite=None', 'failed'],
    ['a=1; SameSite=None; Secure', 'passed'],
  ])('%s: %s', (cookie, outcome) => {
    expect(judged(cookie)).toBe(outcome);
  });
  it('no cookies, nothing to judge', () => {
    expect(judged()).toBe('inapplicable');
  });
  it('values are never shown', () => {
    expect(readCookie('sid=topsecret; Secure')!.raw).toBe('Set-Cookie: sid=…; Secure');
    expect(readCookie('nonsense')).toBeUndefined();
  });
});

describe('https.protective-headers', () => {
  const SNIFF: Header = ['X-Content-Type-Options', 'nosniff'],
    FRAME: Header = ['X-Frame-Options', 'DENY'],
    CSP: Header = ['Content-Security-Policy', "default-src *; frame-ancestors 'none'"];
  it.each<[string, Header[], string]>([
    ['both ways', [SNIFF, FRAME], 'passed'],
    ['by policy', [SNIFF, CSP], 'passed'],
    ['no nosniff', [FRAME], 'failed'],
    ['no frame rule', [SNIFF], 'failed'],
    [
      'an X-Frame-Options browsers do not know',
      [SNIFF, ['X-Frame-Options', 'ALLOW-FROM https://a.example']],
      'failed',
    ],
    ['unsafe-url', [SNIFF, FRAME, ['Referrer-Policy', 'unsafe-url']], 'failed'],
    [
      'unsafe-url as a fallback that is overruled',
      [SNIFF, FRAME, ['Referrer-Policy', 'unsafe-url, same-origin']],
      'passed',
    ],
    ['twice', [SNIFF, SNIFF, FRAME], 'failed'],
    ['two frame rules', [SNIFF, FRAME, FRAME], 'failed'],
  ])('%s', (_, list, outcome) => {
    expect(ask('https.protective-headers', { evidence: headers(...list) }).outcome).toBe(outcome);
  });
  it('a host that only leads on has nothing to protect', () => {
    expect(
      ask('https.protective-headers', {
        evidence: evidence({
          hosts: [
            host('www.marsh-choir.example', { https: chain(['https://www.marsh-choir.example/', home]) }),
          ],
        }),
      }).outcome,
    ).toBe('inapplicable');
  });
});

describe('https.no-version-leak', () => {
  it.each([
    ['nginx', 'passed'],
    ['nginx/1.25.3', 'failed'],
    ['Apache/2.4 (Debian)', 'failed'],
    ['cloud 2', 'passed'],
  ])('Server: %s: %s', (value, outcome) => {
    expect(ask('https.no-version-leak', { evidence: headers(['Server', value]) }).outcome).toBe(outcome);
  });
  // RFC 9110 7.6.3: received-protocol, received-by, and a comment that may name the software
  it.each([
    ['1.1 cache', 'passed'],
    ['1.1 proxy.example, HTTP/2 edge', 'passed'],
    ['1.0 fred, 1.1 p.example.net', 'passed'],
    ['1.1 cache (name/6.1)', 'failed'],
    ['1.1 name/6.1', 'failed'],
    ['1.1 google', 'passed'],
    ['2 edge7.example:8080', 'passed'],
  ])('Via: %s: %s', (value, outcome) => {
    expect(ask('https.no-version-leak', { evidence: headers(['Via', value]) }).outcome).toBe(outcome);
  });
  describe('X-Powered-By and the generator tag count as well', () => {
    const maker = (content: string) =>
      ask('https.no-version-leak', {
        evidence: {
          ...withHome({ head: `<meta name="generator" content="${content}">` }),
          hosts: [host('marsh-choir.example')],
        },
      }).outcome;
    it.each([
      ['Sitemaker', 'passed'],
      ['Sitemaker 6.4.2', 'failed'],
    ])('%s: %s', (content, wanted) => {
      expect(maker(content)).toBe(wanted);
    });
    it('another header that names a version', () => {
      expect(ask('https.no-version-leak', { evidence: headers(['X-Powered-By', 'PHP/8.2.1']) }).outcome).toBe(
        'failed',
      );
    });
  });
});

describe('mixed content (W3C Mixed Content, level 2)', () => {
  const judged = (html: string, css?: string) => {
    const e = withHtml(html);
    const url = `${home}s.css`;
    const sheet = { url, roles: ['style' as const], chain: chain([url]), css: readCss(css ?? '') };
    return ask('https.no-mixed-content', { evidence: { ...e, assets: css === undefined ? [] : [sheet] } })
      .outcome;
  };
  it.each([
    ['a preloaded script', '<link rel=preload as=script href="http://a.example/x.js">', 'failed'],
    ['a module', '<link rel=modulepreload href="http://a.example/x.js">', 'failed'],
    ['a preloaded font', '<link rel=preload as=font href="http://a.example/x.woff2">', 'failed'],
    ['a preloaded picture', '<link rel=preload as=image href="http://a.example/x.png">', 'passed'],
    ['a manifest', '<link rel=manifest href="http://a.example/m.json">', 'failed'],
    ['subtitles', '<video><track src="http://a.example/t.vtt"></video>', 'failed'],
    ['film', '<video src="http://a.example/v.mp4"></video>', 'passed'],
    [
      'a background in a style element',
      '<style>body{background:url(http://a.example/b.png)}</style>',
      'passed',
    ],
    ['a background in a style attribute', '<p style="background:url(http://a.example/b.png)">x', 'passed'],
    [
      'a font in a style element',
      '<style>@font-face{font-family:A;src:url(http://a.example/f.woff2)}</style>',
      'failed',
    ],
    ['an import in a style element', '<style>@import "http://a.example/s.css";</style>', 'failed'],
    ['an import by url()', '<style>@import url(http://a.example/s.css);</style>', 'failed'],
    ['srcset', '<img srcset="http://a.example/b.png 2x" src="b.png" alt="">', 'failed'],
  ])('%s', (_, html, wanted) => {
    expect(judged(html)).toBe(wanted);
  });
  it.each([
    ['an import', '@import "http://a.example/s.css";', 'failed'],
    ['a font', '@font-face { font-family: A; src: url(http://a.example/f.woff2) }', 'failed'],
    ['a background', 'body { background: url(http://a.example/b.png) }', 'passed'],
    ['nothing from http', '@import "t.css"; @font-face { font-family: A; src: url(f.woff2) }', 'passed'],
  ])('in a linked style sheet: %s', (_, css, wanted) => {
    expect(judged('<link rel=stylesheet href="/s.css">', css)).toBe(wanted);
  });
});

describe('where forms are sent', () => {
  it.each([
    ['<form action="/send"><button formaction="http://a.example/x">Go</button></form>', 'failed'],
    ['<form action="/send"><input type=submit formaction="HTTP://a.example/"></form>', 'failed'],
    ['<form action="/send"><button formaction="/other">Go</button></form>', 'passed'],
  ])('%s: %s', (html, wanted) => {
    expect(ask('https.secure-forms', { evidence: withHtml(html) }).outcome).toBe(wanted);
  });
});

describe('cookies that hold a session, by their names', () => {
  it.each([
    'connect.sid',
    'PHPSESSID',
    'JSESSIONID',
    'ASPSESSIONIDQQABCD',
    'ASP.NET_SessionId',
    '.AspNetCore.Cookies',
    '.ASPXAUTH',
    'CFTOKEN',
    'laravel_session',
    'koa:sess',
    'site_logged_in_1234',
    'remember_token',
    'access_token',
    'refreshToken',
    '__Host-sid',
    'next-auth.session-token',
    'SSESS0123',
    'userSid',
    'jwt',
  ])('%s', (name) => {
    expect(isSessionLike(name)).toBe(true);
  });
  it.each([
    'csrf_token',
    'XSRF-TOKEN',
    'lang',
    'theme',
    '_ga',
    'author',
    'inside',
    'consent',
    'basid',
    '__RequestVerificationToken_forgery',
  ])('%s is none', (name) => {
    expect(isSessionLike(name)).toBe(false);
  });
});

describe('versions', () => {
  it.each<[string, string, string]>([
    ['X-Powered-By', 'PHP/8', 'failed'],
    ['X-Powered-By', 'Express', 'passed'],
    ['X-AspNet-Version', '4.0.30319', 'failed'],
    ['X-Generator', 'Drupal 10 (https://www.drupal.org)', 'failed'],
    ['Server', 'nginx', 'passed'],
    ['Server', 'nginx/1', 'failed'],
  ])('%s: %s: %s', (name, value, wanted) => {
    expect(ask('https.no-version-leak', { evidence: headers([name, value]) }).outcome).toBe(wanted);
  });
});

describe('https.certificate-valid: one recipe for each cause', () => {
  const one = host('marsh-choir.example');
  const recipeOf = (change: Partial<typeof one.tls>) =>
    ask('https.certificate-valid', {
      evidence: evidence({ hosts: [{ ...one, tls: { ...one.tls, trusted: false, ...change } }] }),
    }).recipe!.steps;
  const [leaf] = one.tls.chain;
  const above = { ...leaf!, subject: 'CN=Practice', issuer: 'CN=Root' };
  const lapsed = { ...above, notAfter: '2026-01-01T00:00:00.000Z' };
  it.each([
    [
      'the intermediates are not sent',
      { trustError: 'UNABLE_TO_VERIFY_LEAF_SIGNATURE', chain: [leaf!] },
      /^Install the full chain/,
    ],
    [
      'one above it lapsed',
      { trustError: 'CERT_HAS_EXPIRED', chain: [leaf!, lapsed] },
      /^Install the full chain/,
    ],
    [
      'it lapsed itself',
      { trustError: 'CERT_HAS_EXPIRED', chain: [{ ...leaf!, notAfter: '2026-11-20T00:00:00.000Z' }, above] },
      /^Have the host issue a new certificate/,
    ],
    [
      'it is self-signed',
      { trustError: 'DEPTH_ZERO_SELF_SIGNED_CERT', chain: [{ ...leaf!, issuer: leaf!.subject }] },
      /^Have the host issue a new certificate/,
    ],
  ])('%s', (_, change, steps) => expect(recipeOf(change)).toMatch(steps));
});

describe('https.certificate-valid says what is wrong', () => {
  const judged = (trustError: string, change: (chain: CertificateFacts[]) => CertificateFacts[]) => {
    const one = host('marsh-choir.example');
    const tls = { ...one.tls, trusted: false, trustError, chain: change(one.tls.chain) };
    return ask('https.certificate-valid', { evidence: evidence({ hosts: [{ ...one, tls }] }) }).found;
  };
  it.each<[string, string, (chain: CertificateFacts[]) => CertificateFacts[], string]>([
    [
      'the intermediate has lapsed',
      'CERT_HAS_EXPIRED',
      ([leaf, up]) => [leaf!, { ...up!, notAfter: '2026-10-01T00:00:00.000Z' }],
      'CN=Practice above it lapsed on 2026-10-01',
    ],
    [
      'SHA-1',
      'UNSPECIFIED',
      ([leaf, up]) => [{ ...leaf!, signature: 'sha1WithRSAEncryption' }, up!],
      'not trusted: signed with sha1WithRSAEncryption',
    ],
    [
      'without its intermediates',
      'UNABLE_TO_VERIFY_LEAF_SIGNATURE',
      ([leaf]) => [leaf!],
      'the server sent its own certificate alone',
    ],
    [
      'the leaf has expired',
      'CERT_HAS_EXPIRED',
      ([leaf, up]) => [{ ...leaf!, notAfter: '2026-11-01T00:00:00Z' }, up!],
      'expired on 2026-11-01',
    ],
  ])('%s', (_, code, change, words) => {
    expect(judged(code, change)).toContain(words);
  });
});
