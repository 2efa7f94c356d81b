/** One exchange and chains of them, as they are recorded. */
import zlib from 'node:zlib';
import { afterEach, describe, expect, it } from 'vitest';
import { Dialer } from '../dialer';
import { LocalServers } from '../../tests/local-servers';
import { TrustStore } from '../tls';
import { HttpClient, type HttpOptions } from './client';

const servers = new LocalServers();
const clients: HttpClient[] = [];
afterEach(async () => {
  await Promise.all(clients.splice(0).map((c) => c.close()));
  servers.close();
});
const store = new TrustStore();
function client(options: Partial<HttpOptions> = {}, map: string[] = []): HttpClient {
  const c = new HttpClient(new Dialer({ allowPrivate: true, timeoutMs: 8000, map }), store, {
    agent: 'Test/1',
    timeoutMs: 8000,
    maxBytes: 50_000,
    maxRedirects: 3,
    connections: 2,
    retryPauseMs: 5,
    ...options,
  });
  clients.push(c);
  return c;
}

describe('an exchange', () => {
  it('keeps headers as they came, in order and doubled, the address, timings and both sizes', async () => {
    const text = 'songs '.repeat(500);
    const url = await servers.http((_, res) => {
      res.sendDate = false;
      res.setHeader('Set-Cookie', ['a=1', 'b=2']);
      res.setHeader('X-Odd-Case', 'Yes');
      res.setHeader('content-encoding', 'gzip');
      res.end(zlib.gzipSync(text));
    });
    const { exchange, body } = await client().exchange(url, 'GET');
    expect(exchange.headers.filter(([n]) => n === 'Set-Cookie')).toEqual([
      ['Set-Cookie', 'a=1'],
      ['Set-Cookie', 'b=2'],
    ]);
    expect(exchange.headers).toContainEqual(['X-Odd-Case', 'Yes']);
    expect(exchange.address).toBe(new URL(url).host);
    expect(exchange.bytes).toEqual({ encoded: zlib.gzipSync(text).length, decoded: text.length });
    expect(exchange.timing.connect).toBeDefined();
    expect(exchange.timing.total).toBeGreaterThanOrEqual(exchange.timing.firstByte!);
    expect(body!.toString()).toBe(text);
  });
  it('a connection is used again, and only its first exchange carries the time to connect', async () => {
    const ports = new Set<number>();
    const url = await servers.http((req, res) => {
      ports.add(req.socket.remotePort!);
      res.end('x');
    });
    const c = client({ connections: 1 });
    const first = await c.exchange(url, 'GET'),
      second = await c.exchange(url, 'GET');
    expect(ports.size).toBe(1);
    expect([
      first.exchange.timing.connect !== undefined,
      second.exchange.timing.connect !== undefined,
    ]).toEqual([true, false]);
  });
  it('says who asks', async () => {
    let agent = '';
    const url = await servers.http((req, res) => {
      agent = req.headers['user-agent']!;
      res.end();
    });
    await client().exchange(url, 'GET');
    expect(agent).toBe('Test/1');
  });
  it('a few interim answers are passed over, many end it', async () => {
    const send = (n: number) =>
      servers.tcp((s) => {
        s.once('data', () =>
          s.end(
            `${'HTTP/1.1 103 Early Hints\r\nLink: </a>\r\n\r\n'.repeat(n)}HTTP/1.1 200 OK\r\nContent-Length: 1\r\nConnection: close\r\n\r\nx`,
          ),
        );
      });
    expect((await client().exchange(`http://127.0.0.1:${await send(20)}/`, 'GET')).exchange).toMatchObject({
      status: 200,
      bytes: { decoded: 1 },
    });
    expect((await client().exchange(`http://127.0.0.1:${await send(21)}/`, 'GET')).exchange).toMatchObject({
      error: { code: 'too-large' },
    });
  });
  it('after two silences a host is not waited for again', async () => {
    const url = await servers.http(() => {});
    const c = client({ timeoutMs: 150 });
    await c.exchange(url, 'GET');
    await c.exchange(`${url}b`, 'GET');
    const third = await c.exchange(`${url}c`, 'GET');
    expect(third.exchange.error).toMatchObject({
      code: 'timeout',
      message: expect.stringContaining('none before') as string,
    });
  });
});

describe('a chain', () => {
  it('keeps every hop and where it came to rest', async () => {
    const url = await servers.http((req, res) => {
      if (req.url === '/') {
        res.writeHead(302, { location: '/b#part' });
        res.end();
      } else {
        res.statusCode = 404;
        res.end('gone');
      }
    });
    const { chain, body } = await client().follow(url);
    expect(chain).toMatchObject({
      start: url,
      end: 'answer',
      hops: [{ status: 302 }, { status: 404, url: `${url}b` }],
    });
    expect(body!.toString()).toBe('gone');
  });
  it('a host that is not the site’s is asked for a HEAD only, and gets no secret headers', async () => {
    const seen: string[] = [];
    const outside = await servers.http((req, res) => {
      seen.push(`${req.method} ${req.headers.authorization ?? '-'}`);
      res.end();
    });
    const inside = await servers.http((_, res) => {
      res.writeHead(301, { location: outside.replace('127.0.0.1', 'outside.example') });
      res.end();
    });
    const c = client({}, [`outside.example=127.0.0.1`]);
    const { chain } = await c.follow(inside, {
      own: (h) => h === '127.0.0.1',
      headers: { authorization: 'Basic c2VjcmV0' },
    });
    expect(chain.end).toBe('answer');
    expect(seen).toEqual(['HEAD -']);
  });
  it('303 and a location that is relative, empty or nonsense', async () => {
    const url = await servers.http((req, res) => {
      const to = { '/a': 'c?x=1', '/b': 'http://[nonsense' }[req.url!];
      if (to === undefined) {
        res.end('end');
        return;
      }
      res.writeHead(303, { location: to });
      res.end();
    });
    expect((await client().follow(`${url}a`)).chain.hops.at(-1)!.url).toBe(`${url}c?x=1`);
    expect((await client().follow(`${url}b`)).chain.error).toMatchObject({ code: 'bad-url' });
  });
  it('a 304 or a 300 without a location is an answer', async () => {
    const url = await servers.http((_, res) => {
      res.writeHead(300);
      res.end();
    });
    expect((await client().follow(url)).chain).toMatchObject({ end: 'answer', hops: [{ status: 300 }] });
  });
});

describe('asking twice', () => {
  it('once for what is no server fault, twice for what is, with the first try kept', async () => {
    let asked = 0;
    const url = await servers.http((req, res) => {
      asked++;
      res.statusCode = req.url === '/good' ? 404 : asked > 2 ? 200 : 500;
      res.end();
    });
    const c = client();
    expect((await c.followTwice(`${url}good`)).firstTry).toBeUndefined();
    expect(asked).toBe(1);
    expect(await c.followTwice(`${url}bad`)).toMatchObject({
      firstTry: { hops: [{ status: 500 }] },
      chain: { hops: [{ status: 200 }] },
    });
  });
  it('a silence is asked about once more', async () => {
    let asked = 0;
    const url = await servers.http((_, res) => {
      if (++asked > 1) res.end('here');
    });
    const { chain, firstTry } = await client({ timeoutMs: 300 }).followTwice(url);
    expect([chain.end, firstTry?.error?.code, asked]).toEqual(['answer', 'timeout', 2]);
  });
  it('a host that was given up for its silence is asked about once more', async () => {
    let isAwake = false;
    const url = await servers.http((_, res) => {
      if (isAwake) res.end('here');
    });
    const c = client({ timeoutMs: 150 });
    await c.exchange(url, 'GET');
    await c.exchange(`${url}b`, 'GET');
    isAwake = true;
    expect((await c.followTwice(url)).chain.end).toBe('answer');
  });
  it('the pause ends when the audit is stopped', async () => {
    const stop = new AbortController();
    const url = await servers.http((_, res) => {
      res.writeHead(503, { 'retry-after': '3600' });
      res.end();
      setTimeout(() => stop.abort(), 500);
    });
    const started = performance.now();
    await client({ retryPauseMs: 60_000, signal: stop.signal }).followTwice(url);
    expect(performance.now() - started).toBeLessThan(30_000);
  });
});
