/**
 * A server of two hundred hosts with ten pages each, in a process of its own: `node --import tsx/esm
 * tests/bench/many-hosts.ts` prints its port.
 */
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import zlib from 'node:zlib';

export const HOSTS = Array.from({ length: 200 }, (_, i) => `h${i}.bench.example`);
export const PAGES = 10;

/** A page of usual size: some navigation, some text, a few pictures. */
function pageOf(host: string, n: number): string {
  const words =
    'the ferry leaves when the tide allows and returns before the lamps are lit along the quay '.split(' ');
  const text = (i: number) =>
    Array.from({ length: 60 }, (_, w) => words[(w * 7 + i * 13 + n) % words.length]).join(' ');
  return `<!doctype html><html lang="en-GB"><head><meta charset="utf-8"><title>Page ${n} of ${host}</title><meta name="description" content="What stands on page ${n} of ${host}, in a sentence of usual length for such a thing."><link rel="canonical" href="http://${host}/p${n}"></head><body><nav><ul>${Array.from({ length: PAGES }, (_, i) => `<li><a href="/p${i}">Page ${i}</a></li>`).join('')}</ul></nav><main><h1>Page ${n}</h1>${Array.from({ length: 12 }, (_, i) => `<h2>Part ${i}</h2><p>${text(i)}</p><img src="/i${i}.png" alt="Picture ${i}">`).join('')}</main></body></html>`;
}

if (process.argv[1]?.endsWith('many-hosts.ts')) {
  const packed = new Map<string, Buffer>();
  const server = http.createServer((req, res) => {
    const host = req.headers.host ?? '';
    const n = Number(/^\/p(\d+)$/.exec(req.url ?? '')?.[1] ?? NaN);
    if (Number.isNaN(n)) {
      res.statusCode = 404;
      res.end();
      return;
    }
    const key = `${host} ${n}`;
    let body = packed.get(key);
    if (!body) packed.set(key, (body = zlib.gzipSync(pageOf(host, n))));
    res.writeHead(200, {
      'content-type': 'text/html; charset=utf-8',
      'content-encoding': 'gzip',
      'content-length': body.length,
      'cache-control': 'no-cache',
    });
    res.end(body);
  });
  server.listen(0, '127.0.0.1', () => process.stdout.write(`${(server.address() as AddressInfo).port}\n`));
  process.on('disconnect', () => process.exit(0));
}
