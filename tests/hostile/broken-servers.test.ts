/** Servers that hang, drip, loop, flood and lie: each ends with its reason, and the audit goes on. */
import type http from 'node:http';
import type net from 'node:net';
import zlib from 'node:zlib';
import { afterEach, describe, expect, it } from 'vitest';
import { collect, type CollectOptions } from '#probe/collect';
import { Dialer } from '#probe/dialer';
import type { Evidence } from '#core/facts/evidence';
import { fullChecklist } from '#core/checks/engine/checklist';
import { judge } from '#core/checks/engine/judge';
import { LocalServers } from '../local-servers';

const servers = new LocalServers();
afterEach(() => servers.close());
const serve = (handler: http.RequestListener) => servers.http(handler);
const raw = async (onConnect: (s: net.Socket) => void): Promise<string> =>
  `http://127.0.0.1:${await servers.tcp(onConnect)}/`;
const look = (url: string, more: Partial<CollectOptions> = {}): Promise<Evidence> =>
  collect({
    url,
    kind: 'before',
    allowPrivate: true,
    timeoutMs: 15_000,
    retryPauseMs: 10,
    maxBytes: 200_000,
    ...more,
  });
/** Where only time ends it; elsewhere a busy machine gets more. */
const BRIEF = { timeoutMs: 800 };
const homeError = (e: Evidence) => e.pages.find((p) => p.via === 'home')?.chain.error;
const page = (body: string) =>
  `<!doctype html><html lang="en"><head><title>T</title></head><body><p>A page with enough words to be a page.</p>${body}</body></html>`;

describe('a home page that', () => {
  it('never answers ends in time', async () => {
    expect(homeError(await look(await serve(() => {}), BRIEF))).toMatchObject({ code: 'timeout' });
  });
  it('drips ends in time', async () => {
    const url = await serve((_, res) => {
      res.writeHead(200, { 'content-type': 'text/html' });
      const t = setInterval(() => res.write('x'), 50);
      res.on('close', () => clearInterval(t));
    });
    expect(homeError(await look(url, BRIEF))).toMatchObject({ code: 'timeout' });
  });
  it('floods ends at the cap', async () => {
    expect(
      homeError(
        await look(
          await serve((_, res) => {
            res.writeHead(200, { 'content-type': 'text/html' });
            const t = setInterval(() => res.write(Buffer.alloc(100_000)), 1);
            res.on('close', () => clearInterval(t));
          }),
        ),
      ),
    ).toMatchObject({ code: 'too-large' });
  });
  it('is a bomb ends at the cap', async () => {
    const bomb = zlib.gzipSync(Buffer.alloc(20_000_000));
    expect(
      homeError(
        await look(
          await serve((_, res) => {
            res.writeHead(200, { 'content-type': 'text/html', 'content-encoding': 'gzip' });
            res.end(bomb);
          }),
        ),
      ),
    ).toMatchObject({ code: 'too-large' });
  });
  it('claims an encoding it does not have', async () => {
    expect(
      homeError(
        await look(
          await serve((_, res) => {
            res.writeHead(200, { 'content-type': 'text/html', 'content-encoding': 'br' });
            res.end('plain');
          }),
        ),
      ),
    ).toMatchObject({ code: 'bad-encoding' });
  });
  it('redirects in a circle', async () => {
    expect(
      homeError(
        await look(
          await serve((_, res) => {
            res.writeHead(302, { location: '/' });
            res.end();
          }),
        ),
      ),
    ).toMatchObject({ code: 'redirect-loop' });
  });
  it('redirects without end', async () => {
    let n = 0;
    expect(
      homeError(
        await look(
          await serve((_, res) => {
            res.writeHead(302, { location: `/${++n}` });
            res.end();
          }),
        ),
      ),
    ).toMatchObject({ code: 'too-many-redirects' });
  });
  it('redirects to no http address', async () => {
    expect(
      homeError(
        await look(
          await serve((_, res) => {
            res.writeHead(302, { location: 'file:///etc/passwd' });
            res.end();
          }),
        ),
      ),
    ).toMatchObject({ code: 'bad-url' });
  });
  it('speaks no HTTP', async () => {
    expect(homeError(await look(await raw((s) => s.end('220 mail ready\r\n'))))).toMatchObject({
      code: 'protocol',
    });
  });
  it('cuts the connection off', async () => {
    expect(homeError(await look(await raw((s) => s.destroy())))?.code).toMatch(/reset|protocol/);
  });
  it('sends headers without end', async () => {
    expect(
      homeError(
        await look(
          await raw((s) => {
            s.write('HTTP/1.1 200 OK\r\n');
            const t = setInterval(() => s.write(`X-${'a'.repeat(2000)}: b\r\n`), 1);
            s.on('close', () => clearInterval(t));
          }),
        ),
      )?.code,
    ).toBe('too-large');
  });
  it('cuts its body short', async () => {
    expect(
      homeError(
        await look(
          await raw((s) => {
            s.once('data', () =>
              s.end('HTTP/1.1 200 OK\r\nContent-Type: text/html\r\nContent-Length: 1000\r\n\r\n<p>'),
            );
          }),
        ),
      )?.code,
    ).toMatch(/reset|protocol/);
  });
  it.each([['never answers', (() => {}) as http.RequestListener]])(
    '%s: its checks cannot tell, and none throws',
    async (_, handler) => {
      const evidence = await look(await serve(handler), BRIEF);
      const findings = judge({
        evidence,
        brief: { name: 'X' },
        checklist: fullChecklist(),
        situation: 'staging',
        at: new Date(),
        skipManual: true,
      });
      expect(findings.find((f) => f.check === 'identity.home-page')!.outcome).toBe('cantTell');
      expect(findings.filter((f) => f.reason?.includes('could not finish'))).toEqual([]);
    },
  );
});

describe('the dialer', () => {
  it('checks every hop: a redirect to a private address is not followed', async () => {
    const inner = await serve((_, res) => res.end('secret'));
    const outer = await serve((_, res) => {
      res.writeHead(302, { location: inner.replace('127.0.0.1', '127.0.0.9') });
      res.end();
    });
    const e = await collect({
      url: 'http://front.example/',
      kind: 'before',
      map: [`front.example=${new URL(outer).host}`],
      timeoutMs: 15_000,
    });
    expect(homeError(e)).toMatchObject({ code: 'forbidden-address' });
  });
  it('refuses names that resolve to forbidden addresses, and dials the address it checked', async () => {
    const dialer = new Dialer({ resolvers: ['127.0.0.1:9'] });
    let asked = 0;
    // a name whose answer changes between the check and the connection (rebinding)
    dialer.lookup = (name, type) => {
      asked++;
      return Promise.resolve({
        server: '',
        role: 'resolver',
        name,
        type,
        rcode: 'NOERROR',
        authoritative: false,
        authenticated: false,
        transport: 'udp',
        ms: 0,
        records: type === 'A' ? [{ name, type, ttl: 0, value: asked < 3 ? '192.168.0.1' : '1.1.1.1' }] : [],
      });
    };
    await expect(dialer.connect('rebind.example', 80)).rejects.toMatchObject({ code: 'forbidden-address' });
    await expect(dialer.connect('rebind.example', 80)).rejects.toMatchObject({ code: 'forbidden-address' });
    expect(asked).toBe(2);
  });
});

describe('a fault that comes once', () => {
  it('is asked for again, at the home page, the hosts and robots.txt alike, and only one that comes twice counts', async () => {
    const tries = new Map<string, number>();
    const url = await serve((req, res) => {
      const path = req.url!;
      const n = (tries.get(path) ?? 0) + 1;
      tries.set(path, n);
      if (path === '/always') {
        res.writeHead(502);
        res.end();
        return;
      }
      if (n === 1) {
        res.writeHead(503, { 'retry-after': '1' });
        res.end();
        return;
      }
      res.writeHead(200, { 'content-type': path === '/robots.txt' ? 'text/plain' : 'text/html' });
      res.end(path === '/robots.txt' ? 'User-agent: *\nDisallow:' : page('<a href="/always">x</a>'));
    });
    const e = await look(url);
    const status = (path: string) => e.pages.find((p) => new URL(p.requested).pathname === path);
    expect(status('/')!.chain.hops.at(-1)!.status).toBe(200);
    expect(status('/always')).toMatchObject({
      firstTry: { hops: [{ status: 502 }] },
      chain: { hops: [{ status: 502 }] },
    });
    expect(e.robots.facts).toBeDefined();
    expect(tries.get('/always')).toBe(2);
  });
});

describe('one bad page', () => {
  it('harms no other: faults, floods and traps stand beside pages that are read', async () => {
    const url = await serve((req, res) => {
      const path = req.url!;
      if (path === '/flood') {
        res.writeHead(200, { 'content-type': 'text/html' });
        res.end(Buffer.alloc(300_000, 120));
        return;
      }
      if (path === '/fault') {
        res.writeHead(500);
        res.end();
        return;
      }
      if (path.startsWith('/calendar/')) {
        res.writeHead(200, { 'content-type': 'text/html' });
        res.end(page(`<a href="${path}next/">next</a>`));
        return;
      }
      if (path === '/' || path === '/good') {
        res.writeHead(200, { 'content-type': 'text/html' });
        res.end(
          page(
            '<a href="/flood">a</a><a href="/fault">b</a><a href="/good">c</a><a href="/calendar/">d</a><a href="/logout">e</a><a href="http://[bad">f</a>',
          ),
        );
        return;
      }
      res.writeHead(404);
      res.end();
    });
    const seen: string[] = [];
    const e = await look(url, { onProgress: (p) => seen.push(p.phase) });
    const paths = e.pages.map((p) => new URL(p.url).pathname);
    expect(paths).toEqual(expect.arrayContaining(['/', '/good', '/flood', '/fault']));
    expect(paths).not.toContain('/logout');
    expect(paths.filter((p) => p.startsWith('/calendar/')).length).toBeLessThan(6);
    expect(e.pages.find((p) => p.url.endsWith('/fault'))!.firstTry).toBeDefined();
    expect(seen).toContain('Pages');
  });
  it('the page limit is kept and said', async () => {
    const url = await serve((req, res) => {
      res.writeHead(200, { 'content-type': 'text/html' });
      res.end(page(Array.from({ length: 30 }, (_, i) => `<a href="/p${i}">x</a>`).join('')));
      void req;
    });
    const e = await look(url, { maxPages: 7 });
    expect(e.pages).toHaveLength(7);
    expect(e.unread).toHaveLength(24);
    expect(e.notes.join()).toContain('7 of 31 pages');
  });
  it('an audit can be stopped in the middle', async () => {
    const stop = new AbortController();
    const url = await serve((_, res) => {
      res.writeHead(200, { 'content-type': 'text/html' });
      setTimeout(() => res.end(page('<a href="/a">a</a>')), 100);
    });
    await expect(look(url, { signal: stop.signal, onProgress: () => stop.abort() })).rejects.toMatchObject({
      name: 'AbortError',
    });
  });
});
