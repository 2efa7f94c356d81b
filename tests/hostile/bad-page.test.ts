/**
 * One bad answer among good ones: it ends as what it is, in time, and the pages beside it are read as if
 * nothing had been.
 */
import type http from 'node:http';
import type net from 'node:net';
import zlib from 'node:zlib';
import { afterAll, describe, expect, it } from 'vitest';
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge } from '#core/checks/engine/judge';
import type { Evidence, NetworkErrorCode, PageEvidence } from '#core/facts/evidence';
import { collect } from '#probe/collect';
import { LocalServers } from '../local-servers';

const servers = new LocalServers();
afterAll(() => servers.close());

const CAP = 400_000;
/** For answers that only time ends. */
const TIMEOUT = 3000;
/** Where time is not what is tested: the machine may be busy. */
const PATIENT = 15_000;
const good = (body = '') =>
  `<!doctype html><html lang="en"><head><title>Good</title></head><body><h1>Good</h1><p>A page with enough words to be a page of its own.</p>${body}</body></html>`;
const plain = (s: net.Socket, body: string) =>
  s.end(
    `HTTP/1.1 200 OK\r\nContent-Type: text/html\r\nContent-Length: ${Buffer.byteLength(body)}\r\nConnection: close\r\n\r\n${body}`,
  );
const NO_FILE = 'HTTP/1.1 404 Not Found\r\nContent-Length: 0\r\nConnection: close\r\n\r\n';
const OK = 'HTTP/1.1 200 OK\r\nContent-Type: text/html\r\n';
/** Writes the same again and again until the socket is gone. */
const again = (s: net.Socket, make: (n: number) => string | Buffer, ms = 1) => {
  let n = 0;
  const t = setInterval(() => {
    if (s.destroyed) clearInterval(t);
    else s.write(make(n++));
  }, ms);
  s.on('close', () => clearInterval(t));
};

/** Audits a site of a home page, a good one and the bad one. */
async function auditWith(bad: (s: net.Socket) => void, timeoutMs: number): Promise<Evidence> {
  const port = await servers.tcp((s) => {
    s.once('data', (bytes) => {
      const path = /^[A-Z]+ (\S+)/.exec(bytes.toString('latin1'))?.[1] ?? '';
      if (path === '/') plain(s, good('<a href="/bad">bad</a><a href="/good">good</a>'));
      else if (path === '/good') plain(s, good());
      else if (path.startsWith('/bad')) bad(s);
      else s.end(NO_FILE);
    });
  });
  return collect({
    url: 'http://front.example/',
    kind: 'before',
    map: [`front.example=127.0.0.1:${port}`],
    resolvers: ['127.0.0.1:9'],
    timeoutMs,
    retryPauseMs: 5,
    maxBytes: CAP,
  });
}
const at = (e: Evidence, path: string): PageEvidence =>
  e.pages.find((p) => new URL(p.requested).pathname === path)!;

// packed once: packing takes longer than a page may
const ZEROS = Buffer.alloc(30_000_000);
const BOMBS = {
  gzip: zlib.gzipSync(ZEROS, { level: 1 }),
  br: zlib.brotliCompressSync(ZEROS, { params: { [zlib.constants.BROTLI_PARAM_QUALITY]: 1 } }),
  deflate: zlib.deflateSync(ZEROS, { level: 1 }),
  nested: zlib.gzipSync(zlib.gzipSync(ZEROS, { level: 1 })),
};

interface Case {
  name: string;
  bad: (s: net.Socket) => void;
  codes?: NetworkErrorCode[];
  page?: (p: PageEvidence) => void;
}
const errorCases: Case[] = [
  { name: 'silence before the status line', bad: () => {}, codes: ['timeout'] },
  { name: 'silence in the status line', bad: (s) => s.write('HTTP/1.1 2'), codes: ['timeout'] },
  { name: 'silence in the headers', bad: (s) => s.write(`${OK}X-Half: `), codes: ['timeout'] },
  {
    name: 'silence after the headers',
    bad: (s) => s.write(`${OK}Content-Length: 10\r\n\r\n`),
    codes: ['timeout'],
  },
  {
    name: 'silence in the body',
    bad: (s) => s.write(`${OK}Content-Length: 1000\r\n\r\n<p>half`),
    codes: ['timeout'],
  },
  {
    name: 'a body that drips',
    bad: (s) => {
      s.write(`${OK}Content-Length: 100000\r\n\r\n`);
      again(s, () => 'x', 20);
    },
    codes: ['timeout'],
  },
  {
    name: 'headers that drip',
    bad: (s) => {
      s.write('HTTP/1.1 200 OK\r\nX-Slow: ');
      again(s, () => 'x', 20);
    },
    codes: ['timeout'],
  },
  { name: 'a connection cut before any answer', bad: (s) => s.destroy(), codes: ['reset', 'protocol'] },
  {
    name: 'a reset in the body',
    bad: (s) => {
      s.write(`${OK}Content-Length: 1000\r\n\r\n<p>half`, () => s.resetAndDestroy());
    },
    codes: ['reset', 'protocol'],
  },
  {
    name: 'a Content-Length longer than the body',
    bad: (s) => s.end(`${OK}Content-Length: 1000\r\n\r\n<p>short`),
    codes: ['reset', 'protocol'],
  },
  {
    name: 'two Content-Lengths',
    bad: (s) => s.end(`${OK}Content-Length: 3\r\nContent-Length: 5\r\n\r\n<p>xx`),
    codes: ['protocol'],
  },
  {
    name: 'a negative Content-Length',
    bad: (s) => s.end(`${OK}Content-Length: -3\r\n\r\n<p>`),
    codes: ['protocol'],
  },
  {
    name: 'a chunk size that is none',
    bad: (s) => s.end(`${OK}Transfer-Encoding: chunked\r\n\r\nzz\r\n<p>\r\n0\r\n\r\n`),
    codes: ['protocol'],
  },
  {
    name: 'chunks without an end',
    bad: (s) => s.end(`${OK}Transfer-Encoding: chunked\r\n\r\n3\r\n<p>\r\n`),
    codes: ['reset', 'protocol'],
  },
  {
    name: 'a chunk extension without an end',
    bad: (s) => {
      s.write(`${OK}Transfer-Encoding: chunked\r\n\r\n3;`);
      again(s, () => 'a'.repeat(60_000));
    },
    codes: ['too-large', 'protocol', 'timeout'],
  },
  {
    name: 'headers without an end',
    bad: (s) => {
      s.write('HTTP/1.1 200 OK\r\n');
      again(s, (n) => `X-${n}: ${'a'.repeat(4000)}\r\n`);
    },
    codes: ['too-large'],
  },
  {
    name: 'one header of a megabyte',
    bad: (s) => s.write(`${OK}X-Long: ${'a'.repeat(1_000_000)}\r\n\r\n`),
    codes: ['too-large'],
  },
  {
    name: 'interim answers without an end',
    bad: (s) => again(s, () => 'HTTP/1.1 103 Early Hints\r\nLink: </a>\r\n\r\n'.repeat(500)),
    codes: ['too-large'],
  },
  {
    name: 'a header line without a colon',
    bad: (s) => s.end(`${OK}nonsense\r\nContent-Length: 0\r\n\r\n`),
    codes: ['protocol'],
  },
  {
    name: 'a header with a null byte',
    bad: (s) => s.end(`${OK}X-Null: a\0b\r\nContent-Length: 0\r\n\r\n`),
    codes: ['protocol'],
  },
  {
    name: 'a header with a bare carriage return',
    bad: (s) => s.end(`${OK}X-Cr: a\rSet-Cookie: b\r\nContent-Length: 0\r\n\r\n`),
    codes: ['protocol'],
  },
  {
    name: 'a status line of another protocol',
    bad: (s) => s.end('SIP/2.0 200 OK\r\n\r\n'),
    codes: ['protocol'],
  },
  {
    name: 'HTTP/9.9',
    bad: (s) => s.end('HTTP/9.9 200 OK\r\nContent-Length: 0\r\n\r\n'),
    codes: ['protocol'],
  },
  { name: 'no HTTP at all', bad: (s) => s.end('220 mail ready\r\n'), codes: ['protocol'] },
  {
    name: 'random bytes',
    bad: (s) => s.end(Buffer.from(Array.from({ length: 500 }, (_, i) => (i * 7919) % 256))),
    codes: ['protocol', 'reset'],
  },
  {
    name: 'a body of 50 MB',
    bad: (s) => {
      s.write(`${OK}Content-Length: 50000000\r\n\r\n`);
      again(s, () => Buffer.alloc(200_000, 120));
    },
    codes: ['too-large'],
  },
  {
    name: 'a redirect to itself',
    bad: (s) => s.end('HTTP/1.1 302 Found\r\nLocation: /bad\r\nContent-Length: 0\r\n\r\n'),
    codes: ['redirect-loop'],
  },
  {
    name: 'a redirect to a private address',
    bad: (s) => s.end('HTTP/1.1 302 Found\r\nLocation: http://10.0.0.1/\r\nContent-Length: 0\r\n\r\n'),
    codes: ['forbidden-address'],
  },
  {
    name: 'a redirect to a file',
    bad: (s) => s.end('HTTP/1.1 302 Found\r\nLocation: file:///etc/passwd\r\nContent-Length: 0\r\n\r\n'),
    codes: ['bad-url'],
  },
  {
    name: 'a redirect to a script',
    bad: (s) => s.end('HTTP/1.1 302 Found\r\nLocation: javascript:alert(1)\r\nContent-Length: 0\r\n\r\n'),
    codes: ['bad-url'],
  },
  {
    name: 'a redirect to nonsense',
    bad: (s) => s.end('HTTP/1.1 302 Found\r\nLocation: http://[::bad\r\nContent-Length: 0\r\n\r\n'),
    codes: ['bad-url'],
  },
  {
    name: 'gzip cut short',
    bad: (s) => sendCoded(s, 'gzip', zlib.gzipSync(good()).subarray(0, 40)),
    codes: ['bad-encoding'],
  },
  {
    name: 'gzip that is none',
    bad: (s) => sendCoded(s, 'gzip', Buffer.from(good())),
    codes: ['bad-encoding'],
  },
  { name: 'a gzip bomb', bad: (s) => sendCoded(s, 'gzip', BOMBS.gzip), codes: ['too-large'] },
  { name: 'a brotli bomb', bad: (s) => sendCoded(s, 'br', BOMBS.br), codes: ['too-large'] },
  { name: 'a deflate bomb', bad: (s) => sendCoded(s, 'deflate', BOMBS.deflate), codes: ['too-large'] },
  {
    name: 'a gzip bomb inside gzip',
    bad: (s) => sendCoded(s, 'gzip, gzip', BOMBS.nested),
    codes: ['too-large'],
  },
  {
    name: 'zstd that is none',
    bad: (s) => sendCoded(s, 'zstd', Buffer.from('(\xb5/\xfd nonsense', 'latin1')),
    codes: ['bad-encoding'],
  },
  {
    name: 'a coding nobody knows',
    bad: (s) => sendCoded(s, 'lzma2', Buffer.from('x')),
    codes: ['bad-encoding'],
  },
  {
    name: 'four codings at once',
    bad: (s) => sendCoded(s, 'gzip, gzip, gzip, gzip', Buffer.from('x')),
    codes: ['bad-encoding'],
  },
];
function sendCoded(s: net.Socket, coding: string, body: Buffer): void {
  s.write(`${OK}Content-Encoding: ${coding}\r\nContent-Length: ${body.length}\r\nConnection: close\r\n\r\n`);
  s.end(body);
}

const send =
  (body: string | Buffer, type = 'text/html') =>
  (s: net.Socket): void => {
    s.write(
      `HTTP/1.1 200 OK\r\nContent-Type: ${type}\r\nContent-Length: ${Buffer.byteLength(body)}\r\nConnection: close\r\n\r\n`,
    );
    s.end(body);
  };
const readable: Case[] = [
  {
    name: 'a Content-Length shorter than the body',
    bad: (s) => s.end(`${OK}Content-Length: 3\r\n\r\n<p>and more that nobody asked for`),
    page: (p) => expect(p.chain.hops[0]!.status ?? p.chain.error).toBeTruthy(),
  },
  {
    name: 'status 999',
    bad: (s) => s.end('HTTP/1.1 999 Odd\r\nContent-Length: 0\r\n\r\n'),
    page: (p) => expect(p.chain.hops.at(-1)!.status).toBe(999),
  },
  { name: 'an empty body', bad: send(''), page: (p) => expect(p.facts?.titles ?? []).toEqual([]) },
  {
    name: 'null bytes in the page',
    bad: send(`<!doctype html><title>a\0b</title><p>\0text\0`),
    page: (p) => expect(JSON.stringify(p)).not.toContain('\\u0000'),
  },
  {
    name: 'a picture sent as HTML',
    bad: send(Buffer.from('\x89PNG\r\n\x1a\n\0\0\0\rIHDR', 'latin1')),
    page: (p) => expect(p.facts!.titles).toEqual([]),
  },
  {
    name: 'UTF-16 without a word',
    bad: send(Buffer.from(`\ufeff${good()}`, 'utf16le')),
    page: (p) => expect(p.facts!.titles[0]!.text).toBe('Good'),
  },
  {
    name: 'Latin-1 that is said to be UTF-8',
    bad: send(Buffer.from('<!doctype html><meta charset=utf-8><title>Caf\xe9</title>', 'latin1')),
    page: (p) => expect(p.facts!.titles[0]!.text).toBe('Caf\ufffd'),
  },
  {
    name: 'a header and a meta that disagree',
    bad: send('<!doctype html><meta charset=windows-1252><title>é</title>', 'text/html; charset=utf-8'),
    page: (p) => expect(p.facts!.titles[0]!.text).toBe('é'),
  },
  {
    name: 'a charset nobody knows',
    bad: send(good(), 'text/html; charset=klingon'),
    page: (p) => expect(p.facts!.titles[0]!.text).toBe('Good'),
  },
  {
    name: 'forty thousand nested elements',
    bad: send(`<!doctype html><title>Deep</title>${'<div>'.repeat(40_000)}<p>text`),
    page: (p) => expect(p.facts!.titles[0]!.text).toBe('Deep'),
  },
  {
    name: 'tables nested in fragments',
    bad: send(`<!doctype html><title>T</title>${'<table><td><a>'.repeat(9000)}`),
    page: (p) => expect(p.facts!.titles[0]!.text).toBe('T'),
  },
  {
    name: 'twenty thousand links',
    bad: send(
      `<!doctype html><title>L</title>${Array.from({ length: 15_000 }, (_, i) => `<a href=/n${i}>x</a>`).join('')}`,
    ),
    page: (p) => {
      expect(p.facts!.anchors.length).toBeLessThanOrEqual(15_000);
      expect(p.facts!.titles).toHaveLength(1);
    },
  },
  {
    name: 'ten thousand attributes on one tag',
    bad: send(
      `<!doctype html><title>A</title><p ${Array.from({ length: 10_000 }, (_, i) => `a${i}=1`).join(' ')}>x`,
    ),
    page: (p) => expect(p.facts!.text).toBe('x'),
  },
  {
    name: 'a comment without an end',
    bad: send(`<!doctype html><title>C</title><!-- ${'x '.repeat(100_000)}`),
    page: (p) => expect(p.facts!.text).toBe(''),
  },
  {
    name: 'a script without an end',
    bad: send(`<!doctype html><title>S</title><script>${'<!--'.repeat(50_000)}`),
    page: (p) => expect(p.facts!.titles).toHaveLength(1),
  },
  {
    name: 'JSON-LD of fifty thousand brackets',
    bad: send(
      `<!doctype html><title>J</title><script type="application/ld+json">${'['.repeat(50_000)}</script>`,
    ),
    page: (p) => expect(p.facts!.jsonLd).toHaveLength(1),
  },
  {
    name: 'JSON-LD that reaches for prototypes',
    bad: send(
      '<!doctype html><title>J</title><script type="application/ld+json">{"__proto__":{"polluted":1},"constructor":{"prototype":{"polluted":1}}}</script>',
    ),
    page: () => expect(({} as { polluted?: number }).polluted).toBeUndefined(),
  },
  {
    name: 'addresses of every odd kind',
    bad: send(
      '<!doctype html><title>O</title><a href="http://[">a</a><a href="//">b</a><a href="http://a:99999/">c</a><a href="\\\\\\\\x">d</a><a href="data:text/html,x">e</a><a href="javascript:1">f</a><a href="mailto:%">g</a><a href="tel:%zz">h</a>',
    ),
    page: (p) => expect(p.facts!.titles).toHaveLength(1),
  },
  {
    name: 'a Location with an encoded line end',
    bad: (s) =>
      s.end('HTTP/1.1 302 Found\r\nLocation: /good?x=%0d%0aSet-Cookie:%20a=b\r\nContent-Length: 0\r\n\r\n'),
    page: (p) =>
      expect(p.chain.hops.map((h) => h.url.replace('http://front.example', ''))).toEqual([
        '/bad',
        '/good?x=%0d%0aSet-Cookie:%20a=b',
      ]),
  },
];

describe('a page that cannot be read ends with its reason', () => {
  const endsWithReason = async ({ bad, codes }: Case, timeoutMs: number): Promise<void> => {
    const started = performance.now();
    const e = await auditWith(bad, timeoutMs);
    expect(codes).toContain(at(e, '/bad').chain.error?.code);
    expect(at(e, '/good').facts?.titles[0]?.text).toBe('Good');
    expect(performance.now() - started).toBeLessThan(2 * PATIENT);
    expect(JSON.stringify(e).length).toBeLessThan(400_000);
  };
  const waits = (c: Case): boolean => c.codes!.join() === 'timeout';
  it.each(errorCases.filter((c) => !waits(c)))('$name', (c) => endsWithReason(c, PATIENT), 3 * PATIENT);
  // side by side: what they do is wait
  it.concurrent.each(errorCases.filter(waits))('$name', (c) => endsWithReason(c, TIMEOUT), 3 * PATIENT);
});

describe('a page that is odd is read as far as it goes', () => {
  it.each(readable)(
    '$name',
    async ({ bad, page }) => {
      const started = performance.now();
      const e = await auditWith(bad, PATIENT);
      page!(at(e, '/bad'));
      expect(at(e, '/good').facts?.titles[0]?.text).toBe('Good');
      expect(performance.now() - started).toBeLessThan(2 * PATIENT);
      const findings = judge({
        evidence: e,
        brief: { name: 'Good' },
        checklist: fullChecklist(),
        situation: 'staging',
        at: new Date(),
        skipManual: true,
      });
      expect(findings.filter((f) => f.reason?.includes('could not finish'))).toEqual([]);
    },
    3 * PATIENT,
  );
});

describe('redirects that never end', () => {
  it('end at the limit', async () => {
    let n = 0;
    const e = await auditWith(
      (s) => s.end(`HTTP/1.1 302 Found\r\nLocation: /bad${++n}\r\nContent-Length: 0\r\n\r\n`),
      PATIENT,
    );
    expect(at(e, '/bad').chain.error?.code).toBe('too-many-redirects');
    expect(at(e, '/bad').chain.hops.length).toBeLessThan(13);
  });
});

describe('text of a site in evidence', () => {
  it('a header that tries to end a line stays one value', async () => {
    const url = await servers.http((req: http.IncomingMessage, res) => {
      res.setHeader('X-Odd', 'a; <script>alert(1)</script>');
      res.setHeader('content-type', 'text/html');
      res.end(req.url === '/' ? good() : '');
    });
    const e = await collect({ url, kind: 'before', allowPrivate: true, timeoutMs: PATIENT });
    expect(at(e, '/').chain.hops[0]!.headers).toContainEqual(['X-Odd', 'a; <script>alert(1)</script>']);
  });
});
