/** Assets, links, folders, slash forms, politeness: the smaller jobs of collecting, against small servers. */
import type http from 'node:http';
import { afterEach, describe, expect, it } from 'vitest';
import { page } from '#core/checks/example-evidence';
import { LocalServers } from '../tests/local-servers';
import { collect } from './collect';
import { AssetList, addFromStyles, assetsToFetch, fetchAsset } from './assets';
import { otherSlash } from './compare';
import { Crawler } from './crawl';
import { Dialer } from './dialer';
import { extractHere } from './extractor';
import { readHidden } from './hidden';
import { HttpClient, type HttpOptions } from './http/client';
import { askLinks, linksToAsk } from './links';
import { foldersOf } from './site-files';
import { TrustStore } from './tls';

const servers = new LocalServers();
const clients: HttpClient[] = [];
afterEach(async () => {
  await Promise.all(clients.splice(0).map((c) => c.close()));
  servers.close();
});
const store = new TrustStore();
function client(options: Partial<HttpOptions> = {}, map: string[] = []): HttpClient {
  const c = new HttpClient(new Dialer({ allowPrivate: true, timeoutMs: 10_000, map }), store, {
    agent: 'Test/1',
    timeoutMs: 10_000,
    maxBytes: 100_000,
    maxRedirects: 3,
    connections: 4,
    retryPauseMs: 5,
    ...options,
  });
  clients.push(c);
  return c;
}
const png = (width: number, height: number) => {
  const b = Buffer.alloc(33);
  b.write('\x89PNG\r\n\x1a\n', 0, 'latin1');
  b.writeUInt32BE(13, 8);
  b.write('IHDR', 12);
  b.writeUInt32BE(width, 16);
  b.writeUInt32BE(height, 20);
  return b;
};

describe('an asset', () => {
  it('a picture is asked for its first bytes, uncoded, and its whole size is read from the answer', async () => {
    let seen: http.IncomingHttpHeaders = {};
    const url = await servers.http((req, res) => {
      seen = req.headers;
      res.writeHead(206, { 'content-type': 'image/png', 'content-range': 'bytes 0-32/54321' });
      res.end(png(600, 300));
    });
    const asset = await fetchAsset(client(), url, new Set(['picture'] as const));
    expect(asset).toMatchObject({ size: 54321, image: { width: 600, height: 300 } });
    expect(asset.sha256).toBeUndefined();
    expect(seen).toMatchObject({ range: 'bytes=0-4095', 'accept-encoding': 'identity' });
  });
  it('a server that knows no ranges sends all of it, which is counted and hashed', async () => {
    const url = await servers.http((_, res) => {
      res.setHeader('content-type', 'image/png');
      res.end(png(10, 10));
    });
    expect(await fetchAsset(client(), url, new Set(['picture'] as const))).toMatchObject({
      size: 33,
      sha256: expect.stringMatching(/^[0-9a-f]{64}$/) as string,
    });
  });
  it('a picture of the uploaded build is fetched whole, to be compared by its digest', async () => {
    let range: string | undefined;
    const url = await servers.http((req, res) => {
      range = req.headers.range;
      res.writeHead(200, { 'content-type': 'image/png' }).end(png(10, 10));
    });
    const asset = await fetchAsset(client(), url, new Set(['picture'] as const), undefined, {
      isBuilt: true,
    });
    expect([range, asset.sha256?.length, asset.image?.width]).toEqual([undefined, 64, 10]);
  });
  it('a file of another host is asked for its head, and its length believed', async () => {
    const methods: string[] = [];
    const url = await servers.http((req, res) => {
      methods.push(req.method!);
      res.writeHead(200, { 'content-length': 777 });
      res.end();
    });
    expect(await fetchAsset(client(), url, new Set(['third-party'] as const))).toMatchObject({ size: 777 });
    expect(methods).toEqual(['HEAD']);
  });
  it('a share picture that is none says so; a part of a picture does not', async () => {
    const url = await servers.http((_, res) => {
      res.setHeader('content-type', 'image/png');
      res.end('not a picture');
    });
    expect((await fetchAsset(client(), url, new Set(['share-picture'] as const))).imageError).toContain(
      'no kind of picture',
    );
    expect((await fetchAsset(client(), url, new Set(['picture'] as const))).imageError).toBeUndefined();
  });
  it('a style sheet is read, and its fonts and pictures are listed for the next round', async () => {
    const url = await servers.http((_, res) => {
      res.setHeader('content-type', 'text/css');
      res.end(
        '@font-face{font-family:A;src:url(a.woff2)} p{font-family:A;background:url(b.png)} @import "c.css"; q{background:url(https://cdn.example/d.png)}',
      );
    });
    const style = await fetchAsset(client(), `${url}s.css`, new Set(['style'] as const));
    expect(style.css).toMatchObject({ families: ['a'], fontFaces: [{ family: 'A' }] });
    const list = new AssetList();
    list.add(`${url}s.css`, 'style');
    expect(
      addFromStyles(list, [style], new Set(['127.0.0.1'])).map((u) => [
        u.replace(url, ''),
        [...list.wanted.get(u)!][0],
      ]),
    ).toEqual([
      ['a.woff2', 'font'],
      ['b.png', 'picture'],
      ['c.css', 'style'],
    ]);
  });
  it('what pages load: pictures, fonts, media; others’ only where asked', () => {
    const p = page({
      url: 'https://a.example/',
      via: 'home',
      head: '<script src="https://cdn.example/x.js"></script>',
      body: '<img src="/p.png" alt="" srcset="/p2.png 2x"><video src="/v.mp4"></video>',
    });
    const kinds = (thirdParty: boolean) =>
      Object.fromEntries(
        [...assetsToFetch([p], new Set(['a.example']), 'https://a.example/', thirdParty).wanted].map(
          ([u, r]) => [u, [...r].join()],
        ),
      );
    expect(kinds(false)).toMatchObject({
      'https://a.example/p.png': 'picture',
      'https://a.example/p2.png': 'picture',
      'https://a.example/v.mp4': 'media',
    });
    expect(kinds(false)['https://cdn.example/x.js']).toBeUndefined();
    expect(kinds(true)['https://cdn.example/x.js']).toBe('third-party');
  });
});

describe('links', () => {
  const rules = {
    within: () => true,
    own: (h: string) => h === 'a.example',
    outside: false,
    asked: [] as string[],
  };
  const from = (body: string) => page({ url: 'https://a.example/', via: 'home', body });
  it('files of the site, none that is known, none with an effect, outside only where asked', () => {
    const p = from(
      '<a href="/x.pdf">x</a><a href="/x.pdf#2">x</a><a href="/logout">x</a><a href="https://b.example/">x</a><a href="mailto:a@b.example">x</a>',
    );
    const asked = (outside: boolean) =>
      linksToAsk([p], ['https://a.example/about/', 'https://a.example/songs/'], { ...rules, outside }).map(
        (l) => l.url,
      );
    expect(asked(false)).toEqual(['https://a.example/x.pdf']);
    expect(asked(true)).toEqual(['https://a.example/x.pdf', 'https://b.example/']);
  });
  it.each([
    [405, ['HEAD', 'GET']],
    [501, ['HEAD', 'GET']],
    [404, ['HEAD', 'GET']],
    [200, ['HEAD']],
    [410, ['HEAD']],
  ])('HEAD answered %i: %j', async (status, methods) => {
    const seen: string[] = [];
    const url = await servers.http((req, res) => {
      seen.push(req.method!);
      res.statusCode = req.method === 'HEAD' ? status : 200;
      res.end();
    });
    await askLinks(client(), [{ url, own: true }], () => true);
    expect(seen).toEqual(methods);
  });
  it.each([
    [404, ['HEAD', 'GET']],
    [405, ['HEAD']],
    [403, ['HEAD']],
    [200, ['HEAD']],
  ])('a stranger’s server that answers %i is asked %j', async (status, methods) => {
    const seen: string[] = [];
    const url = await servers.http((req, res) => {
      seen.push(req.method!);
      res.statusCode = status;
      res.end();
    });
    await askLinks(client(), [{ url, own: false }], () => false);
    expect(seen).toEqual(methods);
  });
  it('what was asked on the way to other pages is not asked again', () => {
    expect(
      linksToAsk([from('<a href="/old/">x</a>')], ['https://a.example/about/', 'https://a.example/songs/'], {
        ...rules,
        asked: ['https://a.example/old/'],
      }),
    ).toEqual([]);
  });
});

describe('addresses beside others', () => {
  it('folders of files that are no pages', () => {
    expect(
      foldersOf(
        [
          'https://a.example/up/2026/x.png',
          'https://a.example/css/s.css',
          'https://cdn.example/z/y.png',
          'https://a.example/root.png',
        ],
        new Set(['https://a.example/css/']),
        'https://a.example',
      ),
    ).toEqual(['/up/', '/up/2026/']);
  });
  it.each([
    ['https://a.example/b/', 'https://a.example/b'],
    ['https://a.example/b', 'https://a.example/b/'],
    ['https://a.example/', undefined],
    ['https://a.example/b?c', undefined],
    ['https://a.example/b.html', undefined],
  ])('the other slash form of %s is %s', (url, other) => {
    expect(otherSlash(url)).toBe(other);
  });
});

describe('politeness', () => {
  it('requests to one host keep their distance', async () => {
    const at: number[] = [];
    const url = await servers.http((_, res) => {
      at.push(performance.now());
      res.end();
    });
    const c = client({ delayMs: 200 });
    await Promise.all(['a', 'b', 'c'].map((p) => c.exchange(url + p, 'GET')));
    at.sort((a, b) => a - b);
    // the first is seen late by as much as its connection took
    expect(at[2]! - at[0]!).toBeGreaterThanOrEqual(250);
  });
  it('Retry-After holds the whole host back, in seconds or as a date (RFC 9110 10.2.3)', async () => {
    for (const after of ['1', new Date(Date.parse('2026-01-01T00:00:01Z')).toUTCString()]) {
      let asked = 0;
      const url = await servers.http((_, res) => {
        if (++asked === 1) {
          res.writeHead(429, { 'retry-after': after, date: new Date('2026-01-01T00:00:00Z').toUTCString() });
          res.end();
        } else res.end('ok');
      });
      const c = client({ retryPauseMs: 40 });
      const started = performance.now();
      const got = await c.followTwice(url);
      expect(got.firstTry?.hops[0]?.status).toBe(429);
      expect(got.chain.hops[0]?.status).toBe(200);
      // a second is asked for, and five short pauses are the most that is waited
      expect(performance.now() - started).toBeGreaterThanOrEqual(190);
    }
  });
  it('one address of a host is asked where that is wanted', async () => {
    const url = await servers.http((req, res) => res.end(req.headers.host));
    const port = new URL(url).port;
    const { exchange, body } = await client({}, [`a.example=127.0.0.9:9`]).exchange(
      `http://a.example:${port}/`,
      'GET',
      {},
      { address: '127.0.0.1' },
    );
    expect(exchange.address).toBe(`127.0.0.1:${port}`);
    expect(body!.toString()).toBe(`a.example:${port}`);
  });
});

describe('the crawl', () => {
  async function crawl(
    pages: Record<string, string>,
    maxPages = 50,
    base = '',
  ): Promise<{ paths: string[]; endless: boolean; from: Record<string, string | null> }> {
    const url = await servers.http((req, res) => {
      const body =
        pages[req.url!] ??
        (req.url!.startsWith('/cal/')
          ? `<a href="/cal/${Number(/\d+$/.exec(req.url!)?.[0] ?? 0) + 1}">next</a>`
          : undefined);
      if (body === undefined) {
        res.statusCode = 404;
        res.end();
        return;
      }
      res.setHeader('content-type', 'text/html');
      res.end(`<!doctype html><title>x</title>${body}`);
    });
    const crawler = new Crawler(client(), {
      base: url + base,
      hosts: new Set(['127.0.0.1']),
      maxPages,
      concurrency: 3,
      extract: extractHere,
      deadline: () => false,
      onPage: () => {},
    });
    crawler.add(url + base, 'home');
    await crawler.run();
    const short = (u: string) => u.replace(url, '/');
    return {
      paths: crawler.pages.map((p) => short(p.url)),
      endless: crawler.endless,
      from: Object.fromEntries(crawler.pages.map((p) => [short(p.url), p.from && short(p.from)])),
    };
  }
  it('breadth first, each page with the page it was found on', async () => {
    const r = await crawl({
      '/': '<a href="/a">a</a><a href="/b">b</a>',
      '/a': '<a href="/c">c</a>',
      '/b': '',
      '/c': '',
    });
    expect(r.paths).toEqual(['/', '/a', '/b', '/c']);
    expect(r.from).toMatchObject({ '/': null, '/a': '/', '/c': '/a' });
  });
  it('an address that leads to a page already read is kept as a detour, and is no second page', async () => {
    const url = await servers.http((req, res) => {
      if (req.url === '/old') {
        res.writeHead(301, { location: '/a' });
        res.end();
        return;
      }
      res.setHeader('content-type', 'text/html');
      res.end(req.url === '/' ? '<a href="/a">a</a><a href="/old">o</a>' : '');
    });
    const crawler = new Crawler(client(), {
      base: url,
      hosts: new Set(['127.0.0.1']),
      maxPages: 9,
      concurrency: 1,
      extract: extractHere,
      deadline: () => false,
      onPage: () => {},
    });
    crawler.add(url, 'home');
    await crawler.run();
    expect([
      crawler.pages.map((p) => p.url),
      crawler.detours.map((d) => [d.url, d.chain.hops.map((h) => h.status)]),
    ]).toEqual([[url, `${url}a`], [[`${url}old`, [301, 200]]]]);
  });
  it('hidden pages are read where no link led, never where that has an effect or was read already', async () => {
    const seen: string[] = [];
    const url = await servers.http((req, res) => {
      seen.push(req.url!);
      res.setHeader('content-type', 'text/html');
      res.end('<meta name="robots" content="noindex"><p>Thanks');
    });
    const origin = url.slice(0, -1);
    const hidden = await readHidden(
      { client: client(), origin, ask: {} },
      extractHere,
      { hiddenPaths: ['/thanks/', 'thanks/', '/known/', '/logout', '//elsewhere.example/x'] },
      [page({ url: `${origin}/known/` })],
    );
    expect([seen, hidden.map((p) => [p.requested, p.facts?.metas[0]?.content])]).toEqual([
      ['/thanks/'],
      [[`${origin}/thanks/`, 'noindex']],
    ]);
  });
  it('stays below the base path', async () => {
    expect(
      (
        await crawl(
          {
            '/x/': '<a href="/x/a">a</a><a href="/y">y</a><a href="../">up</a>',
            '/x/a': '',
            '/y': '',
            '/': '',
          },
          50,
          'x/',
        )
      ).paths,
    ).toEqual(['/x/', '/x/a']);
  });
  it('nofollow, files and effects are not followed', async () => {
    expect(
      (
        await crawl({
          '/': '<a rel=nofollow href="/a">a</a><a href="/b.pdf">b</a><a href="/cart?add-to-cart=1">c</a><a href="/d">d</a>',
          '/a': '',
          '/d': '',
        })
      ).paths,
    ).toEqual(['/', '/d']);
  });
  it('a calendar ends by depth, queries by number', async () => {
    expect((await crawl({ '/': '<a href="/cal/1">c</a>' }, 500)).paths.length).toBeLessThan(16);
    const r = await crawl(
      { '/': Array.from({ length: 40 }, (_, i) => `<a href="/s?q=${i}">s</a>`).join('') },
      500,
    );
    expect(r.paths.length).toBe(11);
    expect(r.endless).toBe(true);
  });
  it('segments that repeat are a trap', async () => {
    expect((await crawl({ '/': '<a href="/a/b/a/b/a/b/">x</a>', '/a/b/a/b/a/b/': '' })).paths).toEqual(['/']);
  });
});

describe('a site of more pages than are read', () => {
  const number = (n: number): string => String(n).padStart(3, '0');
  /** 300 things to buy in two layouts, 40 notes, and some pages of their own, all in the sitemap by the alphabet. */
  const things = Array.from({ length: 300 }, (_, i) => `/a-shop/thing-${number(i)}`);
  const notes = Array.from({ length: 40 }, (_, i) => `/notes/${2000 + i}`);
  const own = ['/about', '/visit', '/terms', '/zoo/one', '/zoo/two'];
  const isPlain = (path: string): boolean => Number(path.slice(-3)) % 2 === 0;
  const bodyOf = (path: string): string => {
    if (path === '/')
      return [...own.slice(0, 3), ...things.slice(100, 140)].map((p) => `<a href="${p}">x</a>`).join('');
    return path.startsWith('/a-shop') && isPlain(path) ? '<h1>x</h1><form></form>' : '<h1>x</h1>';
  };

  async function read(maxPages: number) {
    let delay = 0;
    const url = await servers.http((req, res) => {
      delay = (delay * 7 + 3) % 11;
      // answers come in another order each time
      setTimeout(
        () => res.writeHead(200, { 'content-type': 'text/html' }).end(bodyOf(req.url!)),
        (delay * (maxPages % 5)) / 2,
      );
    });
    const crawler = new Crawler(client({ connections: 6 }), {
      base: url,
      hosts: new Set(['127.0.0.1']),
      maxPages,
      concurrency: 6,
      extract: extractHere,
      deadline: () => false,
      onPage: () => {},
    });
    crawler.add(url, 'home');
    crawler.add('/terms', 'brief');
    for (const path of [...things, ...notes, ...own]) crawler.add(path, 'sitemap');
    await crawler.run();
    const paths = crawler.pages.map((p) => new URL(p.url).pathname);
    return { paths, unread: crawler.unread.length };
  }

  it('has home, required and linked pages read, some of each template, and the rest from all in turn', async () => {
    const { paths, unread } = await read(30);
    const of = (start: string): number => paths.filter((p) => p.startsWith(start)).length;
    expect(paths[0]).toBe('/');
    expect(paths).toEqual(expect.arrayContaining(own));
    expect(of('/notes/')).toBeGreaterThan(5);
    expect(of('/a-shop/')).toBeGreaterThanOrEqual(10);
    expect(paths).toContain('/a-shop/thing-100');
    expect([paths.length, unread]).toEqual([30, 346 - 30]);
  });
  it('gives the same pages whatever the order of the answers', async () => {
    const [some, others] = [await read(31), await read(33)];
    expect(others.paths.slice(0, 31)).toEqual(some.paths);
  });
});

describe('a failure that comes while something else is waited for', () => {
  it('is one of the audit, and not of the process', async () => {
    const stray: unknown[] = [];
    const note = (reason: unknown): void => void stray.push(reason);
    process.on('unhandledRejection', note);
    const base = await servers.http((_, res) => {
      // the pages take longer than what is asked beside them
      setTimeout(() => res.writeHead(200, { 'content-type': 'text/html' }).end('<title>Slow</title>'), 150);
    });
    const broken = { services: null } as never;
    await expect(
      collect({
        url: 'http://front.example/',
        kind: 'live',
        map: [`front.example=127.0.0.1:${new URL(base).port}`],
        resolvers: ['127.0.0.1:9'],
        timeoutMs: 500,
        bootstrap: broken,
      }),
    ).rejects.toThrow();
    await new Promise((resolve) => setImmediate(resolve));
    process.off('unhandledRejection', note);
    expect(stray).toEqual([]);
  });
});
