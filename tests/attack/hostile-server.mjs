/**
 * A site that tries everything at once, as a program of its own: what hangs, loops, floods, lies and unpacks, drawings
 * that take for ever, pages that keep a browser busy. `node tests/attack/hostile-server.mjs`, which prints its port and
 * the port of a second one, where nothing of it is to arrive. Asked for /caught the second says what arrived.
 */
import http from 'node:http';
import zlib from 'node:zlib';

const page = (head, body) =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>A site that means harm</title>${head}</head><body><h1>Harm</h1><p>A page with enough words to be a page of some kind.</p>${body}</body></html>`;
const BOMB = zlib.gzipSync(Buffer.alloc(50_000_000, ' '));
const NOISE = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 90 90"><filter id="f"><feTurbulence numOctaves="1000"/><feGaussianBlur stdDeviation="900"/></filter>${'<rect width="90" height="90" filter="url(#f)"/>'.repeat(300)}</svg>`;
const PATHS = [
  'loop',
  'bomb.html',
  'drip',
  'headers',
  'deep',
  'bytes',
  'cut',
  'refuses',
  'elsewhere',
  'spins',
  'windows',
];
const HOME = page(
  `<link rel="icon" href="/noise.svg"><link rel="stylesheet" href="/slashes.css"><meta property="og:image" content="/noise.svg">`,
  `${PATHS.map((p) => `<a href="/${p}">${p}</a>`).join(' ')}<img src="/to-other" alt=""><script src="/to-other?script"></script>
   <script>for (let i = 0; i < 1000; i++) window.open('/windows?' + i); setInterval(() => fetch('/drip?' + Math.random()).catch(() => {}), 200);</script>`,
);

const caught = [];
const other = http.createServer((req, res) => {
  if (req.url !== '/caught') caught.push([req.url, ...req.rawHeaders].join('\n'));
  res.end(JSON.stringify(caught));
});

const html = (res, text, headers = {}) =>
  res.writeHead(200, { 'content-type': 'text/html', ...headers }).end(text);
const ANSWERS = {
  '/': (_, res) => html(res, HOME),
  '/robots.txt': (_, res) =>
    res.writeHead(200, { 'content-type': 'text/plain' }).end('Sitemap: /loop\n'.repeat(9999)),
  '/loop': (_, res) => res.writeHead(302, { location: '/loop' }).end(),
  '/bomb.html': (_, res) => html(res, BOMB, { 'content-encoding': 'gzip' }),
  '/headers': (_, res) =>
    html(
      res,
      page('', ''),
      Object.fromEntries(Array.from({ length: 60 }, (_v, i) => [`x-${i}`, 'w'.repeat(1000)])),
    ),
  '/deep': (_, res) => html(res, `${'<div>'.repeat(100_000)}deep`),
  '/bytes': (_, res) => html(res, Buffer.from(Array.from({ length: 90_000 }, (_v, i) => (i * 7919) % 256))),
  '/cut': (_, res) => {
    res.writeHead(200, { 'content-type': 'text/html', 'content-length': '99999' }).write('<title>cut');
    setTimeout(() => res.destroy(), 100);
  },
  '/refuses': (_, res) => res.writeHead(429, { 'retry-after': '99999999' }).end(),
  '/elsewhere': (_, res) =>
    res.writeHead(302, { location: 'http://169.254.169.254/latest/meta-data/' }).end(),
  '/spins': (_, res) => html(res, page('', '<script>for (;;) {}</script>')),
  '/windows': (_, res) => html(res, page('', '<script>while (Math.random() < 2) window.open("/")</script>')),
  '/noise.svg': (_, res) => res.writeHead(200, { 'content-type': 'image/svg+xml' }).end(NOISE),
  '/slashes.css': (_, res) =>
    res.writeHead(200, { 'content-type': 'text/css' }).end(`a{font:12px${'/'.repeat(300_000)}}`),
  '/to-other': (_, res) =>
    res.writeHead(302, { location: `http://127.0.0.1:${other.address().port}/caught-it` }).end(),
};

const server = http.createServer({ maxHeaderSize: 128 * 1024 }, (req, res) => {
  const { pathname } = new URL(req.url, 'http://x/');
  if (ANSWERS[pathname]) return void ANSWERS[pathname](req, res);
  if (pathname !== '/drip') return void res.writeHead(404).end();
  res.writeHead(200, { 'content-type': 'text/html' });
  const timer = setInterval(() => res.write('<'), 200);
  res.on('close', () => clearInterval(timer));
});
for (const s of [server, other]) s.on('clientError', (_, socket) => socket.destroy());
server.listen(0, '127.0.0.1', () =>
  other.listen(0, '127.0.0.1', () =>
    process.stdout.write(`${server.address().port} ${other.address().port}\n`),
  ),
);
process.once('disconnect', () => process.exit(0));
