/**
 * What opens an environment goes to the origin it was entered for, with every request there, and to nobody else:
 * whatever loads it, wherever a redirect leads, on both screens, before and after the consent click.
 */
import type http from 'node:http';
import https from 'node:https';
import type { AddressInfo } from 'node:net';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RenderedEvidence } from '#core/facts/rendered';
import { Dialer } from '#probe/dialer';
import { extractHere } from '#probe/extractor';
import type { Access } from '#probe/http/access';
import { USUAL_BROWSER } from '#probe/rendering/browser';
import { render } from '#probe/rendering/render';
import { Authority } from '../../net/certificates';
import { LocalServers } from '../local-servers';

const DOOR = 'http://front.example';
/** Another host, port and scheme. */
const ELSEWHERE = ['http://outside.example', 'http://front.example:8080', 'https://front.example'];
const KINDS = ['picture', 'frame', 'script', 'style', 'fetch', 'font', 'worker', 'later'];
const SECRET = 'tide-and-marram-41';
const ID = 'G-TIDE41TIDE';

const servers = new LocalServers();
const closers: (() => void)[] = [];
afterAll(() => {
  servers.close();
  for (const close of closers) close();
});

interface Asked {
  /** Scheme, host and port. */
  at: string;
  path: string;
  /** Everything that was sent but the body. */
  sent: string;
  agent: string;
}
let asked: Asked[] = [];

/** Leads from the door to the same thing elsewhere, or to another address of the door. */
const redirects = (res: http.ServerResponse, path: string): boolean => {
  const [, to, kind] = /^\/to\/(\d|own)\/(\w+)/.exec(path) ?? [];
  if (to === undefined) return false;
  const location = to === 'own' ? `/inner/${kind}` : `${ELSEWHERE[Number(to)]}/got/${kind}`;
  res.writeHead(302, { location, 'access-control-allow-origin': '*' }).end();
  return true;
};

/** Loads each kind of thing by an address that redirects. */
const FRONT = `<!doctype html><html lang="en"><head><title>Front</title>
${['0', '1', '2', 'own'].map((to) => `<link rel="stylesheet" href="/to/${to}/style"><script src="/to/${to}/script"></script>`).join('\n')}
<style>${['0', '1', '2', 'own'].map((to) => `@font-face{font-family:f${to};src:url(/to/${to}/font)} .f${to}{font-family:f${to}}`).join('\n')}</style></head>
<body><h1>Front</h1><p>A page with enough words to be a page of its own.</p>
${['0', '1', '2', 'own'].map((to) => `<img alt="" src="/to/${to}/picture"><iframe src="/to/${to}/frame"></iframe><span class="f${to}">a</span>`).join('\n')}
<iframe src="http://outside.example/embedding"></iframe>
<button id="yes">Yes</button>
<script>
const TOS = ['0', '1', '2', 'own'];
for (const to of TOS) fetch('/to/' + to + '/fetch', { headers: { authorization: 'Bearer own-token' } }).catch(() => {});
new Worker('/worker.js');
fetch('/to-hit');
document.cookie = 'seen=1; path=/';
document.getElementById('yes').onclick = () => { for (const to of TOS) fetch('/to/' + to + '/later', { mode: 'no-cors' }).catch(() => {}); };
</script></body></html>`;
const WORKER = `for (const to of ['0', '1', '2', 'own']) fetch('/to/' + to + '/worker', { mode: 'no-cors' }).catch(() => {});`;

const listener =
  (scheme: string): http.RequestListener =>
  (req, res) => {
    const at = `${scheme}://${req.headers.host}`;
    const path = req.url!;
    asked.push({
      at,
      path,
      sent: [path, ...req.rawHeaders].join('\n'),
      agent: req.headers['user-agent'] ?? '',
    });
    const { pathname } = new URL(path, DOOR);
    if (redirects(res, pathname)) return;
    if (pathname === '/to-hit') {
      res.writeHead(302, { location: `http://outside.example/collect?tid=${ID}&en=page_view` }).end();
      return;
    }
    const page =
      pathname === '/' ? FRONT : pathname === '/embedding' ? `<img src="${DOOR}/from-outside">` : '';
    const [type, body] =
      pathname === '/worker.js' || pathname.endsWith('/script')
        ? ['text/javascript', pathname === '/worker.js' ? WORKER : '']
        : pathname.endsWith('/style')
          ? ['text/css', '']
          : ['text/html', page || '<p>words</p>'];
    res.writeHead(200, { 'content-type': type, 'access-control-allow-origin': '*' }).end(body);
  };

let map: string[];
let authority: Authority;
beforeAll(async () => {
  authority = await Authority.create('http://issuer.example/');
  const leaf = await authority.leaf(['front.example'], 'good');
  const secure = https.createServer({ key: leaf.key, cert: leaf.chain }, listener('https'));
  closers.push(() => {
    secure.closeAllConnections();
    secure.close();
  });
  await new Promise<void>((r) => secure.listen(0, '127.0.0.1', r));
  const plain = async () => new URL(await servers.http(listener('http'))).port;
  map = [
    `front.example:80=127.0.0.1:${await plain()}`,
    `front.example:8080=127.0.0.1:${await plain()}`,
    `front.example:443=127.0.0.1:${(secure.address() as AddressInfo).port}`,
    `outside.example=127.0.0.1:${await plain()}`,
  ];
});

async function seenWith(access: Access): Promise<RenderedEvidence> {
  asked = [];
  const { evidence } = await render(
    [`${DOOR}/`],
    { browser: { ...USUAL_BROWSER, keys: [authority.keyDigest] }, pages: 0 },
    {
      dialer: new Dialer({ resolvers: ['127.0.0.1:9'], map, ports: [80, 443, 8080] }),
      extract: extractHere,
      selectors: [],
      access,
      ids: [ID],
      consentClick: '#yes',
    },
  );
  expect(evidence.missing).toBeUndefined();
  return evidence;
}

const origins = [DOOR];
const ACCESSES: [name: string, access: Access, inRequest: RegExp][] = [
  [
    'user and password',
    { kind: 'credentials', user: 'marram', password: SECRET, origins },
    new RegExp(`authorization\\nBasic ${Buffer.from(`marram:${SECRET}`).toString('base64')}`, 'i'),
  ],
  [
    'a cookie',
    { kind: 'cookie', name: 'door', value: SECRET, origins },
    new RegExp(`cookie\\n.*door=${SECRET}`, 'i'),
  ],
  [
    'a parameter',
    { kind: 'parameter', name: 'door', value: SECRET, origins },
    new RegExp(`^\\S*[?&]door=${SECRET}`),
  ],
];

describe.each(ACCESSES)('access by %s', (_, access, inRequest) => {
  let evidence: RenderedEvidence;
  beforeAll(async () => {
    evidence = await seenWith(access);
  });

  it('goes with every request to its origin, on both screens, after redirects and the consent click too', () => {
    const own = asked.filter((a) => a.at === DOOR);
    expect(own.filter((a) => !inRequest.test(a.sent)).map((a) => a.path)).toEqual([]);
    for (const kind of KINDS)
      expect(own.filter((a) => a.path.startsWith(`/inner/${kind}`)).length, kind).toBeGreaterThan(0);
    expect(own.some((a) => a.path.startsWith('/from-outside'))).toBe(true);
    expect(new Set(own.map((a) => /Mobile/.test(a.agent))).size).toBe(2);
    const views = evidence.pages.flatMap((p) => p.views);
    expect(views.map((v) => [v.status, v.failure])).toEqual([
      [200, undefined],
      [200, undefined],
    ]);
    expect(views.find((v) => v.screen === 'desktop')!.consent).toBe('clicked');
  });

  it.each(ELSEWHERE)('never reaches %s', (elsewhere) => {
    const there = asked.filter((a) => a.at === elsewhere);
    for (const kind of KINDS)
      expect(there.filter((a) => a.path.startsWith(`/got/${kind}`)).length, kind).toBeGreaterThan(0);
    const basic = Buffer.from(`marram:${SECRET}`).toString('base64');
    expect(
      there.filter(({ sent }) => sent.includes(SECRET) || sent.includes(basic)).map((a) => a.path),
    ).toEqual([]);
  });

  it('leaves what the page itself sends as it is, and shows nothing of itself', () => {
    const tokens = asked.filter(
      (a) => a.at === ELSEWHERE[0] && a.path.startsWith('/got/fetch') && /authorization/i.test(a.sent),
    );
    // a token of the page's own is dropped by the browser at another origin (Fetch, HTTP-redirect fetch, step 13)
    expect(tokens).toEqual([]);
    if (access.kind === 'parameter')
      expect(asked.some((a) => a.at === DOOR && a.sent.includes('Bearer own-token'))).toBe(true);
    expect(JSON.stringify(evidence)).not.toContain(SECRET);
    expect(evidence.pages[0]!.views.map((v) => v.cookies.map((c) => c.name))).toEqual([['seen'], ['seen']]);
  });

  it('counts no visit, by a redirect either', () => {
    expect(asked.filter((a) => a.path.startsWith('/collect'))).toEqual([]);
    expect(evidence.pages[0]!.views.map((v) => v.hits.map((h) => h.event))).toEqual([
      ['page_view'],
      ['page_view'],
    ]);
  });
});
