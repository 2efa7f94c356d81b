/**
 * Every parser of foreign bytes, with any bytes and with bytes that look like the real thing: it never
 * throws, and never takes long.
 */
import fc from '../property';
import { imageSize } from 'image-size';
import { describe, expect, it } from 'vitest';
import { asciiHost, decodeSafely, hostOf, normaliseUrl, resolveAddress } from '#core/extract/address';
import { caaClimb, mayIssue, parseCaa } from '#core/extract/caa';
import { decodeText, prescan } from '#core/extract/charset';
import { readCss } from '#core/extract/css';
import { parseDkim, parseDmarc } from '#core/extract/dmarc';
import { hiddenIn } from '#core/extract/hidden-tags';
import { extractPage } from '#core/extract/html';
import { readJsonLd } from '#core/extract/json-ld';
import { readManifest } from '#core/extract/manifest';
import { mayFetch, parseRobots, patternMatches } from '#core/extract/robots';
import { parseSitemap } from '#core/extract/sitemap';
import { countSpf, parseSpf, spfTargets } from '#core/extract/spf';
import { joinedText } from '#core/facts/dns-text';
import { fromHar } from '#core/formats/har/read';
import { readZoneFile } from '#core/formats/zone-file/read';
import { ask as askDns } from '#probe/dns/client';
import { decodeBody } from '#probe/http/decode';
import { passOf } from '#probe/http/access';
import { readBootstrap, readDomain } from '#probe/registration/rdap';
import { signatureAlgorithm } from '#probe/signature-algorithm';

/** Texts of a grammar's own pieces: they get further into a parser than any text does. */
const of = (...pieces: string[]) =>
  fc.string({
    unit: fc.oneof(
      { weight: 5, arbitrary: fc.constantFrom(...pieces) },
      { weight: 1, arbitrary: fc.string({ maxLength: 3, unit: 'binary' }) },
    ),
    maxLength: 120,
  });
const ANY = fc.string({ unit: 'binary', maxLength: 500 });
const URL_BASE = 'https://a.example/b/c';

/** Runs a parser over both kinds of text, and over one piece repeated a hundred thousand times. */
function neverThrows(name: string, parse: (text: string) => unknown, ...pieces: string[]): void {
  it(`${name}: any text`, () => {
    fc.assert(
      fc.property(ANY, (text) => {
        parse(text);
      }),
      { numRuns: 300 },
    );
  });
  it(`${name}: its own pieces in any order`, () => {
    fc.assert(
      fc.property(of(...pieces), (text) => {
        parse(text);
      }),
      { numRuns: 600 },
    );
  });
  it(`${name}: one piece very often, in linear time`, () => {
    for (const piece of pieces) {
      const started = performance.now();
      parse(piece.repeat(Math.ceil(100_000 / piece.length)));
      expect(performance.now() - started, piece).toBeLessThan(10_000);
    }
  });
}

describe('HTML', () => {
  neverThrows(
    'pages',
    (t) => extractPage(t, URL_BASE),
    '<',
    '>',
    '</',
    '<!--',
    '-->',
    '<title>',
    '</title>',
    '<meta ',
    'name=',
    '"',
    "'",
    '<script>',
    '</script>',
    '<template>',
    '<table>',
    '<td>',
    '<svg>',
    '<math>',
    '<a href=',
    '<p>',
    '&amp',
    '&#x110000;',
    '<head>',
    '</head>',
    '<body>',
    '<base href=',
    '<noscript>',
    '<form>',
    '<select>',
    '<option>',
    '<li>',
  );
  neverThrows('tags hidden in text', hiddenIn, '<meta ', '<title>', '<link rel=', '>', '"', '=', ' ');
  neverThrows(
    'JSON-LD',
    (t) => readJsonLd(t, 1, 1),
    '{',
    '}',
    '[',
    ']',
    '"@type"',
    ':',
    ',',
    '"@graph"',
    '"a"',
    '1',
    'null',
  );
});

describe('files', () => {
  neverThrows(
    'robots.txt',
    (t) => mayFetch(parseRobots(t), 'a', URL_BASE),
    'User-agent:',
    '*',
    '\n',
    'Disallow:',
    '/',
    '$',
    'Allow: ',
    'Sitemap: ',
    '#',
    '%2f',
    '\ufeff',
    'Crawl-delay: ',
  );
  neverThrows(
    'robots patterns',
    (t) => patternMatches(t, `/${'a'.repeat(2000)}`),
    '*',
    'a',
    '$',
    '/',
    '*a',
    '%',
  );
  neverThrows(
    'sitemaps',
    (t) => parseSitemap(t),
    '<urlset>',
    '<url>',
    '<loc>',
    '</loc>',
    '</url>',
    'https://a.example/',
    '<![CDATA[',
    ']]>',
    '<?xml ?>',
    '<!DOCTYPE ',
    '&lt;',
    '<sitemapindex>',
    '\n',
  );
  neverThrows(
    'style sheets',
    readCss,
    '@font-face{',
    '}',
    '{',
    'url(',
    ')',
    '"',
    "'",
    'font-family:',
    ';',
    '/*',
    '*/',
    '\\',
    '@import ',
    'font: 1px ',
    ',',
  );
  neverThrows(
    'manifests',
    (t) => readManifest(t, URL_BASE),
    '{',
    '}',
    '"icons"',
    ':',
    '[',
    ']',
    '"src"',
    ',',
    '"x"',
    'null',
  );
  neverThrows(
    'zone files',
    (t) => readZoneFile(t, 'a.example'),
    '$TTL ',
    '$ORIGIN ',
    '@',
    ' IN ',
    'A ',
    '(',
    ')',
    '"',
    ';',
    '\\',
    '\n',
    '1h',
    'TXT ',
  );
  neverThrows(
    'HAR, refused with an error at most',
    (t) => {
      try {
        fromHar(t);
      } catch (e) {
        expect((e as Error).message).toContain('no HAR file');
      }
    },
    '{"log":',
    '{"entries":[',
    ']}',
    '}',
    '{}',
    ',',
    '"request":',
  );
});

describe('DNS texts', () => {
  neverThrows(
    'SPF',
    (t) => {
      parseSpf(t);
      spfTargets(t, 'a.example');
      countSpf('a.example', { txt: () => ({ values: [t] }), exists: () => true });
    },
    'v=spf1 ',
    'include:',
    'a',
    'mx',
    '/24',
    '//64',
    'ip4:',
    '%{i}',
    'redirect=',
    '-all',
    '~',
    ' ',
    'exists:',
    'a.example',
  );
  neverThrows(
    'DMARC',
    parseDmarc,
    'v=DMARC1;',
    'p=',
    'none',
    ';',
    'rua=',
    'mailto:',
    ',',
    '!10m',
    'pct=',
    ' ',
    '=',
  );
  neverThrows('DKIM', parseDkim, 'v=DKIM1;', 'k=rsa;', 'p=', 'MIIBIjAN', ';', ' ', '=', 't=y', 'h=sha256');
  neverThrows(
    'CAA',
    (t) => {
      const r = parseCaa(t);
      if (r) mayIssue([r], 'ca.example');
      caaClimb(t);
    },
    '0 ',
    '128 ',
    'issue ',
    'issuewild ',
    '"',
    ';',
    'ca.example',
    '=',
    '.',
  );
  neverThrows('TXT strings', joinedText, '"', '\\', '065', ' ', 'a');
});

describe('addresses', () => {
  neverThrows(
    'addresses',
    (t) => {
      normaliseUrl(t, URL_BASE);
      resolveAddress(t, URL_BASE);
      hostOf(t);
      asciiHost(t);
      decodeSafely(t);
      passOf(t, 'https://a.example', []);
    },
    'https://',
    '//',
    '/',
    '..',
    '?',
    '#',
    '@',
    ':',
    '[::',
    ']',
    '%',
    'xn--',
    'ü',
    '\\',
    'cookie: ',
    '=',
  );
});

describe('bytes', () => {
  const bytes = fc.uint8Array({ maxLength: 400 });
  const withHead = (...heads: number[][]) =>
    fc.tuple(fc.constantFrom(...heads), bytes).map(([head, rest]) => Uint8Array.from([...head, ...rest]));
  it('charset sniffing and decoding', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          bytes,
          withHead(
            [0xef, 0xbb, 0xbf],
            [0xfe, 0xff],
            [0xff, 0xfe],
            [...Buffer.from('<meta charset=')],
            [...Buffer.from('<?xml encoding=')],
          ),
        ),
        ANY,
        (b, type) => {
          prescan(b);
          decodeText(b, type);
        },
      ),
      { numRuns: 500 },
    );
  });
  it('certificates', () => {
    fc.assert(
      fc.property(fc.oneof(bytes, withHead([0x30, 0x82, 1, 0, 0x30, 0x82])), (b) => {
        expect(typeof signatureAlgorithm(b)).toBe('string');
      }),
      { numRuns: 500 },
    );
  });
  it('pictures: read, or refused with an error', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          bytes,
          withHead(
            [0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10],
            [0xff, 0xd8, 0xff],
            [0x47, 0x49, 0x46, 0x38, 0x39, 0x61],
            [0, 0, 1, 0],
            [0x52, 0x49, 0x46, 0x46],
            [0, 0, 0, 24, 0x66, 0x74, 0x79, 0x70],
          ),
        ),
        (b) => {
          try {
            imageSize(b);
          } catch (e) {
            expect(e).toBeInstanceOf(Error);
          }
        },
      ),
      { numRuns: 1000 },
    );
  });
  it('content codings: undone, or refused by name', async () => {
    await fc.assert(
      fc.asyncProperty(
        bytes,
        fc.constantFrom('gzip', 'br', 'deflate', 'zstd', 'x', 'gzip, br', 'identity', ''),
        async (b, coding) => {
          try {
            await decodeBody(Buffer.from(b), coding, 10_000);
          } catch (e) {
            expect((e as { code: string }).code).toMatch(/too-large|bad-encoding/);
          }
        },
      ),
      { numRuns: 500 },
    );
  });
  it('registration data: read, or refused with an error', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (v, w) => {
        for (const f of [
          () =>
            readDomain(
              JSON.stringify({
                objectClassName: 'domain',
                events: v,
                entities: w,
                status: v,
                nameservers: w,
                secureDNS: v,
                ldhName: w,
              }),
            ),
          () => readBootstrap({ services: v }),
          () => readBootstrap(w),
        ])
          try {
            f();
          } catch (e) {
            expect(e).toBeInstanceOf(Error);
          }
      }),
      { numRuns: 500 },
    );
  });
  it('names that no server can be asked for end as no answer', async () => {
    await fc.assert(
      fc.asyncProperty(
        ANY.filter((t) => t.length > 0),
        async (name) => {
          expect(
            (
              await askDns(
                { address: '127.0.0.1', port: 9 },
                { name, type: 'A' },
                { recursive: true, timeoutMs: 100, id: () => 1, now: () => 0 },
              )
            ).rcode,
          ).toBe('NONE');
        },
      ),
      { numRuns: 50 },
    );
  });
});
