/**
 * A site that means harm, as a program of its own so that it does not take part in what is measured: endless
 * sitemaps, pictures and style sheets that cost time, links with long detours and heavy headers.
 * `node tests/hostile-site.mjs KIND`, which prints its port.
 */
import http from 'node:http';
import zlib from 'node:zlib';

const kind = process.argv[2];
const page = (head, body) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>A site that means harm</title>${head}</head><body><h1>Harm</h1><p>A page with enough words to be a page of some kind.</p>${body}</body></html>`;
const gzip = (text) => zlib.gzipSync(text);
const once = (make) => {
  let made;
  return () => (made ??= make());
};

const urls = (from) =>
  Array.from({ length: 50_000 }, (_, i) => `<url><loc>http://HOST/p/${from}-${i}</loc></url>`).join('');
const sitemap = once(
  () => `<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${urls('x')}</urlset>`,
);
const SVG = once(() => gzip(`<svg ${'a="b" '.repeat(1_600_000)}`));
const ICO = once(() =>
  gzip(Buffer.concat([Buffer.from([0, 0, 1, 0, 255, 255]), Buffer.alloc(9_900_000, 1)])),
);
const CSS = once(() =>
  gzip(`a{font:12px${'/'.repeat(3_000_000)}}\n${'a{font:1px / / / / x}'.repeat(200_000)}`),
);
const PICTURE = { 'content-type': 'image/svg+xml', 'content-encoding': 'gzip' };

/** What is sent for a path; undefined where it is not there. */
const KINDS = {
  sitemaps(path, host) {
    if (path === '/') return { body: page('', '') };
    if (path === '/robots.txt')
      return {
        type: 'text/plain',
        body: Array.from({ length: 220 }, (_, i) => `Sitemap: http://${host}/s${i}.xml`).join('\n'),
      };
    if (/^\/s\d+\.xml$/.test(path))
      return { type: 'application/xml', body: sitemap().replaceAll('HOST', host) };
    return undefined;
  },
  files(path) {
    if (path === '/') {
      const links = Array.from(
        { length: 8 },
        (_, i) =>
          `<link rel="icon" href="/i${i}.svg"><link rel="icon" href="/i${i}.ico"><link rel="stylesheet" href="/s${i}.css">`,
      );
      return { body: page(links.join(''), '') };
    }
    if (path.endsWith('.svg')) return { headers: PICTURE, body: SVG() };
    if (path.endsWith('.ico'))
      return { headers: { ...PICTURE, 'content-type': 'image/x-icon' }, body: ICO() };
    if (path.endsWith('.css'))
      return { headers: { 'content-type': 'text/css', 'content-encoding': 'gzip' }, body: CSS() };
    return undefined;
  },
  links(path) {
    if (path === '/')
      return {
        body: page('', Array.from({ length: 1000 }, (_, i) => `<a href="/f${i}.pdf">${i}</a>`).join('')),
      };
    const [, file, hop = '0'] = /^\/(f\d+)\.pdf(?:\?(\d+))?$/.exec(path) ?? [];
    if (!file) return undefined;
    const headers = Object.fromEntries(
      Array.from({ length: 7 }, (_, i) => [`x-weight-${i}`, 'w'.repeat(8000)]),
    );
    return Number(hop) < 9
      ? { status: 302, headers: { ...headers, location: `/${file}.pdf?${Number(hop) + 1}` }, body: '' }
      : { headers, body: '' };
  },
  slow(path, host) {
    if (path === '/') return { body: page('', '') };
    if (path === '/robots.txt') return { type: 'text/plain', body: `Sitemap: http://${host}/s0.xml` };
    return { drip: true };
  },
};

const server = http.createServer({ maxHeaderSize: 128 * 1024 }, (req, res) => {
  const answer = KINDS[kind](req.url, req.headers.host);
  if (!answer) {
    res.writeHead(404).end();
    return;
  }
  const { status = 200, type = 'text/html', headers, body, drip } = answer;
  res.writeHead(status, { 'content-type': type, ...headers });
  if (!drip) {
    res.end(body);
    return;
  }
  const timer = setInterval(() => res.write('<'), 200);
  res.on('close', () => clearInterval(timer));
});
server.listen(0, '127.0.0.1', () => process.stdout.write(`${server.address().port}\n`));
process.once('disconnect', () => process.exit(0));
