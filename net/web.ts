/** What the practice net's web servers answer, by host, scheme and path. */
import { createHash } from 'node:crypto';
import zlib from 'node:zlib';
import type { LeafKind } from './certificates';
import type { Desk } from './desk';
import type { FaultSwitches, PracticeEnvironment } from './switches';
import {
  challengePage,
  extraPages,
  formerPage,
  holdingPage,
  listingPage,
  pagesOf,
  parkingPage,
  profilePage,
  renderPage,
  samplePage,
  thanksPage,
  unknownPage,
} from './pages';
import { ico, noisyPng, png } from './pictures';
import { TIDEMARK_HOSTS, tidemark } from './tidemark';
import {
  FORMER,
  HOSTS,
  SITES,
  hostFacts,
  hostIcon,
  keyOf,
  otherHost,
  passOf,
  environmentsBefore,
  preferredHost,
  SHOAL,
  subdomainOf,
  type PracticeSite,
} from './sites';

export interface WebAnswer {
  status: number;
  headers: Record<string, string>;
  body: Buffer | string;
  delayMs?: number;
}
export interface WebRequest {
  host: string;
  path: string;
  query: string;
  secure: boolean;
  acceptsGzip: boolean;
  headers: Record<string, string | undefined>;
  /** Address of the practice net that was dialled. */ address?: string;
}
type Faults = (fault: string) => boolean;

const html = (body: string, status = 200, headers: Record<string, string> = {}): WebAnswer => ({
  status,
  headers: { 'content-type': 'text/html; charset=utf-8', ...headers },
  body,
});
const text = (body: string, type = 'text/plain; charset=utf-8', status = 200): WebAnswer => ({
  status,
  headers: { 'content-type': type },
  body,
});
const redirect = (to: string, status = 301): WebAnswer => ({
  status,
  headers: { location: to, 'content-type': 'text/plain' },
  body: 'moved',
});

const KEPT = { 'cache-control': 'public, max-age=31536000' };
const pictures = new Map<string, Buffer>();
const picture = (key: string, make: () => Buffer): WebAnswer => {
  let b = pictures.get(key);
  if (!b) pictures.set(key, (b = make()));
  return {
    status: 200,
    headers: { 'content-type': key.endsWith('.ico') ? 'image/x-icon' : 'image/png', ...KEPT },
    body: b,
  };
};
const styleOf = ({
  colour,
}: PracticeSite): string => `@font-face{font-family:"Firth Sans";src:url(fonts/firth.woff2) format("woff2")}
:root{--ink:#1d2733;--main:${colour}}
*{box-sizing:border-box}
body{font-family:"Firth Sans",sans-serif;color:var(--ink);line-height:1.6;max-width:68rem;margin:0 auto;padding:0 1.5rem 4rem;background:#fffdf8}
header{display:flex;flex-wrap:wrap;align-items:baseline;gap:.5rem 2rem;border-bottom:3px solid var(--main);margin-bottom:2rem}
header p{font-weight:700;font-size:1.25rem}
header a{color:inherit;text-decoration:none}
nav ul{display:flex;flex-wrap:wrap;gap:.25rem 1.25rem;list-style:none;padding:0}
h1{font-size:2.25rem;line-height:1.2;color:var(--main)}
img{max-width:100%;height:auto;border-radius:6px}
form{display:grid;gap:.75rem;max-width:28rem}
label{display:grid;gap:.25rem}
input,textarea,button{font:inherit;padding:.5rem}
button{background:var(--main);color:#fff;border:0;border-radius:4px}
footer{border-top:1px solid #ddd;margin-top:3rem}
${Array.from({ length: 40 }, (_, i) => `.block-${i}{margin:${i}px 0;padding:${i % 7}px}`).join('\n')}
`;
const UNUSED_FONT = '@font-face{font-family:"Old Theme";src:url(fonts/old.woff2)}\n';
const SCRIPT = `/* menus */\n${Array.from({ length: 30 }, (_, i) => `function step${i}(n){return n+${i};}`).join('\n')}\n`;

/** Which site a host belongs to, as what, and below which path. */
function siteOf(
  host: string,
  path: string,
): { site: PracticeSite; environment: PracticeEnvironment; prefix: string } | undefined {
  for (const site of SITES) {
    if (host === site.domain || host === `www.${site.domain}`)
      return { site, environment: 'live', prefix: '/' };
    for (const p of environmentsBefore(site))
      if (host === p.host && path.startsWith(p.path.replace(/\/$/, '')))
        return { site, environment: 'staging', prefix: p.path };
  }
  return undefined;
}

type MakeAsset = (s: PracticeSite, on: Faults, path: string) => WebAnswer | undefined;

/** A picture in the site's colour, the same for every request. */
const plain =
  (width: number, height: number): MakeAsset =>
  (s, _, path) =>
    picture(`${s.slug}${path}`, () => png(width, height, s.colour));
/** A picture of noise, which cannot be packed. */
const noisy =
  (key: string, width: number, height: number): MakeAsset =>
  () =>
    picture(key, () => noisyPng(width, height));
const FONT: MakeAsset = () => ({
  status: 200,
  headers: { 'content-type': 'font/woff2', ...KEPT },
  body: Buffer.from(`wOF2${'\0'.repeat(60)}`, 'latin1'),
});

function manifestOf(s: PracticeSite): string {
  return JSON.stringify({
    name: s.name,
    short_name: s.name.slice(0, 12),
    start_url: './',
    scope: './',
    theme_color: s.colour,
    icons: [192, 512].map((z) => ({ src: `icon-${z}.png`, sizes: `${z}x${z}`, type: 'image/png' })),
  });
}

const ASSETS: Record<string, MakeAsset> = {
  '/favicon.ico': (s, on) =>
    on('no-icon') ? undefined : picture(`${s.slug}.ico`, () => ico([16, 32, 48], s.colour)),
  '/touch.png': (s, on, path) =>
    on('no-touch-icon')
      ? undefined
      : picture(`${s.slug}${path}`, () =>
          s.host === 'Fennel Hosting' ? png(240, 240, s.colour) : png(180, 180, s.colour),
        ),
  '/share.png': plain(1200, 630),
  '/share-small.png': plain(600, 400),
  '/share-heavy.png': noisy('heavy share.png', 1200, 630),
  '/logo.png': plain(300, 100),
  // no page leads to these two: only who has the build misses them
  '/pictures/winter.png': (s, on, path) => (on('files-forgotten') ? undefined : plain(400, 300)(s, on, path)),
  '/programme.txt': (s, on) => (on('files-forgotten') ? undefined : text(`What is on at ${s.name}\n`)),
  '/pictures/view.png': plain(600, 300),
  '/pictures/heavy.png': noisy('heavy.png', 1200, 1200),
  '/pictures/camera.png': noisy('camera.png', 560, 400),
  '/fonts/firth.woff2': FONT,
  '/fonts/old.woff2': FONT,
  '/style.3f9a1c2b.css': (s, on) => ({
    status: 200,
    headers: { 'content-type': 'text/css', ...(on('uncached') ? {} : KEPT) },
    body: (on('font-unused') ? UNUSED_FONT : '') + styleOf(s),
  }),
  '/app.js': (_, on) => ({
    status: 200,
    headers: { 'content-type': 'text/javascript', ...KEPT },
    body: on('file-old') ? `${SCRIPT}// last month's\n` : SCRIPT,
  }),
  '/site.webmanifest': (s, on) =>
    text(on('manifest-broken') ? '{"name":' : manifestOf(s), 'application/manifest+json'),
};

/** Icons, pictures, styles and scripts. */
export function asset(s: PracticeSite, path: string, on: Faults): WebAnswer | undefined {
  const size = /^\/icon-(32|48|128|192|240|512)\.png$/.exec(path)?.[1];
  if (!size || on('no-icon')) return Object.hasOwn(ASSETS, path) ? ASSETS[path]!(s, on, path) : undefined;
  return size === '48' && on('host-icon')
    ? picture(`host ${s.host} ${path}`, () => hostIcon(s.host))
    : picture(`${s.slug}${path}`, () => png(Number(size), Number(size), s.colour));
}

function robots(s: PracticeSite, on: Faults, goal: string): WebAnswer {
  if (on('robots-page')) return html('<!doctype html><title>Not found</title><p>Nothing here');
  if (on('robots-closed')) return text('User-agent: *\nDisallow: /\n');
  return text(
    [
      ...(on('robots-slip') ? ['Disallow: /early/'] : []),
      'User-agent: *',
      'Disallow: /cart/',
      ...(on('robots-slip') ? ['Dissallow: /basket/'] : []),
      ...(on('robots-no-assets') ? ['Disallow: /style.3f9a1c2b.css'] : []),
      ...(on('robots-tells') ? [`# drafts: ${s.staging.host}`] : []),
      '',
      `Sitemap: https://${goal}/sitemap.xml`,
      '',
    ].join('\n'),
  );
}

function sitemap(s: PracticeSite, on: Faults, goal: string, year: number): WebAnswer {
  const pages = [...pagesOf(s), ...extraPages(s, on)]
    .filter((p) => !((on('sitemap-short') || on('noindex-inside')) && p.path === '/news/'))
    .map((p) => p.path);
  if (on('sitemap-dead')) pages.push('/summer-party/');
  return text(
    `<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n${pages.map((p) => `<url><loc>https://${goal}${p}</loc><lastmod>${on('sitemap-future') ? `${year + 2}-01-01` : '2026-11-01'}</lastmod></url>`).join('\n')}\n</urlset>\n`,
    'application/xml',
  );
}

/** What a site under its old roof still shows, and what a domain shows before there is a site. */
function beforeLaunch(s: PracticeSite, r: WebRequest, on: Faults, year: number): WebAnswer {
  const file = asset(s, r.path, on);
  if (file) return file;
  if (s.replaces)
    return r.path === '/' || r.path.endsWith('.html')
      ? html(formerPage(s, r.path))
      : html(unknownPage('No such page'), 404);
  if (r.query.includes(passOf(s).slice(1))) return sitePage(s, r, LIVE, on, year);
  return r.path === '/' ? html(holdingPage(s, on('rude-holding'))) : html(unknownPage('No such page'), 404);
}

/** Addresses of the former site and where they lead now. */
export const FORMER_PATHS: [string, string][] = [
  ['/history.html', '/about/'],
  ['/prices.html', '/visit/'],
  ['/contact.html', '/contact/'],
];

/** Domains that lead to somebody else's page. */
function astray(s: PracticeSite, r: WebRequest, on: Faults): WebAnswer | undefined {
  if (on('parked')) return html(parkingPage(s.domain));
  if (on('unknown-name'))
    return html(unknownPage(HOSTS.find((h) => h.name === s.host)!.marks.unknownName[0]), 404);
  // another server at a second address, which knows the name from before
  if (r.address === FORMER && s.stage === 'launched') return html(formerPage(s, r.path));
  return on('shared-name')
    ? redirect(`https://${s.slug}.${hostFacts(s.host).suffix}${r.path}${r.query}`)
    : undefined;
}

/** From http to https, and from the other host to the preferred one. */
function forward(s: PracticeSite, r: WebRequest, on: Faults): WebAnswer | undefined {
  const { path, host } = r;
  const goal = preferredHost(s);
  const isDetour = on('detour');
  if (!r.secure && !on('http-stays'))
    return redirect(
      isDetour && path === '/' ? `https://${host}/start/` : `https://${host}${path}${r.query}`,
      on('temporary') ? 302 : 301,
    );
  if (isDetour && path === '/start/') return redirect(`https://${host}/`);
  if (on('challenge')) return html(challengePage(), 403);
  if (host === goal) return undefined;
  if (on('www-dead')) return html(unknownPage('No such host here'), 404);
  if (on('www-stays')) return undefined;
  if (on('www-circle')) return roundAgain(host, path);
  return redirect(
    on('path-lost') ? `https://${goal}/` : `https://${goal}${path}${r.query}`,
    on('temporary-forward') ? 302 : 301,
  );
}

type SpecialPath = (s: PracticeSite, on: Faults, year: number, path: string) => WebAnswer | undefined;

/** Between two addresses, without end. */
const roundAgain = (host: string, path: string): WebAnswer =>
  redirect(`https://${host}${path === '/' ? '/start/' : '/'}`);

/** What a launched site serves beside its pages; undefined where it is not there today. */
const SPECIAL_PATHS: Record<string, SpecialPath> = {
  '/robots.txt': (s, on) => robots(s, on, preferredHost(s)),
  '/sitemap.xml': (s, on, year) => (on('no-sitemap') ? undefined : sitemap(s, on, preferredHost(s), year)),
  '/.well-known/security.txt': (s, on, year) => {
    const end = on('ended-contact') ? '2024-01-01T00:00:00Z' : `${year + 1}-12-31T00:00:00Z`;
    return text(`Contact: mailto:hello@${s.domain}\nExpires: ${end}\n`);
  },
  '/.git/HEAD': (_, on) => (on('repository') ? text('ref: refs/heads/main\n') : undefined),
  '/coming-soon/': (s, on) => (on('holding-found') ? html(holdingPage(s, true)) : undefined),
  '/thanks/': (s, on) => html(thanksPage(s, !on('hidden-open'))),
  '/old-gate/': (s, on) => (on('link-detour') ? redirect(`https://${preferredHost(s)}/visit/`) : undefined),
  '/pictures/': (_, on, __, path) => (on('listing') ? html(listingPage(path)) : undefined),
};

function launchedAnswer(s: PracticeSite, r: WebRequest, on: Faults, year: number): WebAnswer {
  const { path } = r;
  if (on('holding-left') && !asset(s, path, on)) return html(holdingPage(s, false));
  const moved = FORMER_PATHS.find(([from]) => from === path);
  if (moved && !on('old-404')) return redirect(`https://${preferredHost(s)}${moved[1]}`);
  const special = Object.hasOwn(SPECIAL_PATHS, path) ? SPECIAL_PATHS[path]!(s, on, year, path) : undefined;
  return special ?? oldCopy(r, sitePage(s, r, LIVE, on, year), on);
}

/** An old copy for everybody but those who ask the cache to look again. */
function oldCopy(r: WebRequest, answer: WebAnswer, on: Faults): WebAnswer {
  if (!on('old-copy') || r.path !== '/' || /no-cache/.test(r.headers['cache-control'] ?? '')) return answer;
  return {
    ...answer,
    headers: { ...answer.headers, age: '86000' },
    body: String(answer.body).replace('Begin with', 'Closed for the winter. Begin with'),
  };
}

/** What the new host shows of a site that is being launched there; nothing where it is not asked. */
function atNewHost(s: PracticeSite, r: WebRequest, on: Faults, desk: Desk): WebAnswer | undefined {
  if (s.stage === 'launched' || r.address === FORMER) return undefined;
  const { hostTold, holdingUp } = desk.of(s);
  if (!hostTold) return html(unknownPage(HOSTS.find((h) => h.name === s.host)!.marks.unknownName[0]), 404);
  return holdingUp && s.replaces && !asset(s, r.path, on) ? html(holdingPage(s, false), 503) : undefined;
}

function liveAnswer(s: PracticeSite, r: WebRequest, { on, year, desk }: LiveSettings): WebAnswer {
  const unready = atNewHost(s, r, on, desk);
  if (unready) return unready;
  const isOpen = desk.isOpen(s) && (s.stage === 'launched' || r.address !== FORMER);
  const answer = isOpen ? launchedAnswer : beforeLaunch;
  return astray(s, r, on) ?? forward(s, r, on) ?? answer(s, r, on, year);
}

function stagingAnswer(s: PracticeSite, r: WebRequest, prefix: string, on: Faults, year: number): WebAnswer {
  if (!r.secure) return redirect(`https://${r.host}${r.path}${r.query}`);
  const { user, password } = keyOf(s);
  const known = r.headers.authorization === `Basic ${Buffer.from(`${user}:${password}`).toString('base64')}`;
  if (!on('unlocked') && !on('left-open') && !known)
    return {
      status: 401,
      headers: { 'content-type': 'text/plain', 'www-authenticate': 'Basic realm="Draft"' },
      body: 'Who is there?',
    };
  if (r.path === '/robots.txt')
    return text(on('disallow-only') ? 'User-agent: *\nDisallow: /\n' : 'User-agent: *\nDisallow:\n');
  if (r.path + '/' === prefix) return redirect(`https://${r.host}${prefix}`);
  const below = { ...r, path: `/${r.path.slice(prefix.length)}` };
  const answer = sitePage(s, below, { environment: 'staging', prefix }, on, year);
  if (!on('open') && !on('disallow-only')) answer.headers['x-robots-tag'] = 'noindex';
  return answer;
}

/** As what a site is shown, and below which path. */
interface Shown {
  environment: PracticeEnvironment;
  prefix: string;
}
const LIVE: Shown = { environment: 'live', prefix: '/' };

/** A page of the site as it is served, or what stands in its place. */
function sitePage(s: PracticeSite, r: WebRequest, shown: Shown, on: Faults, year: number): WebAnswer {
  const file = asset(s, r.path, on);
  if (file) return file;
  const pages = pagesOf(s);
  const data = pages.find((p) => p.path === r.path) ?? extraPages(s, on).find((p) => p.path === r.path);
  const isLive = shown.environment === 'live';
  if (!data)
    return on('soft-404') && isLive
      ? html(unknownPage('We could not find this, but look around'))
      : html(unknownPage('No such page'), 404);
  if (data.path === '/news/' && on('server-fault')) return text('internal fault', 'text/plain', 500);
  const isHome = data.path === '/';
  if (isHome && on('sample-home')) return html(samplePage());
  const page = renderPage(data, pages, {
    site: s,
    origin: `${r.secure ? 'https' : 'http'}://${r.host}`,
    ...shown,
    on,
    year,
    stagingOrigin: `https://${s.staging.host}${s.staging.path}`,
  });
  return {
    ...html(page, 200, pageHeaders(isLive && isHome, on)),
    ...(on('slow') && isLive ? { delayMs: 1000 } : {}),
  };
}

/** @param hasCookie whether the page sets the site's cookie */
function pageHeaders(hasCookie: boolean, on: Faults): Record<string, string> {
  const cookie = on('loose-cookie')
    ? 'firth_session=1; Path=/'
    : 'firth_session=1; Path=/; Secure; HttpOnly; SameSite=Lax';
  return {
    ...(on('latin') ? { 'content-type': 'text/html' } : {}),
    ...(hasCookie ? { 'set-cookie': cookie } : {}),
    'last-modified': on('publish-behind') ? 'Tue, 03 Nov 2026 08:00:00 GMT' : 'Tue, 10 Nov 2026 08:00:00 GMT',
  };
}

/** The network with profiles: of the sites, and of the template’s maker. */
function elsewhere(path: string): WebAnswer {
  const site = SITES.find((s) => path === `/${s.slug}`);
  if (site) return html(profilePage(site.name));
  return path === '/template-maker'
    ? html(profilePage('Template House'))
    : html(unknownPage('Nobody of this name is here'), 404);
}

const zipped = new Map<string, Buffer>();

/** Headers that a live host sends with everything. */
function hostHeaders(answer: WebAnswer, r: WebRequest, on: Faults): void {
  if (r.secure && !on('no-hsts'))
    answer.headers['strict-transport-security'] = 'max-age=31536000; includeSubDomains';
  if (!on('bare-headers'))
    Object.assign(answer.headers, {
      'x-content-type-options': 'nosniff',
      'content-security-policy': "frame-ancestors 'self'",
      'referrer-policy': 'strict-origin-when-cross-origin',
    });
  answer.headers.server = on('version-shown') ? 'tideway/2.4.1' : 'tideway';
}

/** What a hand at the site changes of an answer, before it is compressed. */
export type WebEdit = (r: WebRequest, answer: WebAnswer) => WebAnswer;

/** An answer, and whether it is sent as it is even to those who would take it packed. */
interface Answered {
  answer: WebAnswer;
  isPlain?: boolean;
}

/** Hosts that are no site of ours. */
function otherHostAnswer(r: WebRequest, switches: FaultSwitches, year: number): WebAnswer {
  if (SITES.some((s) => subdomainOf(s) === r.host)) return html(unknownPage('Tickets are sold at the door'));
  if (r.host === new URL(SHOAL).hostname) return elsewhere(r.path);
  if (TIDEMARK_HOSTS.includes(r.host)) return tidemark(r.path);
  if (HOSTS.some((h) => r.host === `www.${hostFacts(h.name).suffix}`))
    return text('A hosting product of the firth');
  const shared = SITES.find((s) => `${s.slug}.${hostFacts(s.host).suffix}` === r.host);
  if (shared) return sitePage(shared, r, LIVE, switches.reader(shared.slug, 'live'), year);
  const hasDrafts = SITES.some((s) => environmentsBefore(s).some((p) => p.host === r.host));
  return hasDrafts && r.path === '/robots.txt'
    ? text('User-agent: *\nDisallow:\n')
    : html(unknownPage('No site is configured at this address'), 404);
}

/** A path below where the environment begins. */
const pathIn = (path: string, prefix: string): string =>
  path.startsWith(prefix) ? `/${path.slice(prefix.length).replace(/^\//, '')}` : path;

interface LiveSettings {
  on: Faults;
  year: number;
  desk: Desk;
}

function answerOf(r: WebRequest, switches: FaultSwitches, year: number): Answered {
  const hit = siteOf(r.host, r.path);
  if (!hit) return { answer: otherHostAnswer(r, switches, year) };
  const on = switches.reader(hit.site.slug, hit.environment);
  const { desk } = switches;
  const isLive = hit.environment === 'live';
  const given = isLive
    ? liveAnswer(hit.site, r, { on, year, desk })
    : stagingAnswer(hit.site, r, hit.prefix, on, year);
  const { slug } = hit.site;
  const path = pathIn(r.path, hit.prefix);
  // behind doors and redirects, as every other file
  const isOpen = given.status === 200 || given.status === 404;
  const uploaded = isOpen ? switches.files.get(slug, hit.environment, path) : undefined;
  const { status, headers, body, ...rest } = uploaded ?? given;
  const answer: WebAnswer = { status, body, headers: { ...headers }, ...rest };
  if (typeof answer.body === 'string')
    answer.body = switches.files.in(
      switches.texts.in(answer.body, slug, hit.environment, path),
      slug,
      hit.environment,
    );
  if (isLive && on('badge-put-in') && typeof answer.body === 'string')
    answer.body = answer.body.replace('</body>', () => `${badgeOf(hit.site)}</body>`);
  if (isLive) hostHeaders(answer, r, on);
  return { answer, isPlain: isLive && on('uncompressed') };
}

/** What a host puts into every page on its way out. */
function badgeOf({ host }: PracticeSite): string {
  const { suffix, badge } = hostFacts(host);
  return `<div class="badge"><a href="https://www.${suffix}/">${badge[0]}</a></div>`;
}

/** Packs a text, once for all who ask for it. */
function packed(answer: WebAnswer): WebAnswer {
  const body = Buffer.isBuffer(answer.body) ? answer.body : Buffer.from(answer.body);
  const key = createHash('sha1').update(body).digest('base64');
  let small = zipped.get(key);
  if (!small) {
    small = zlib.gzipSync(body);
    if (zipped.size > 4000) zipped.clear();
    zipped.set(key, small);
  }
  return {
    ...answer,
    headers: { ...answer.headers, 'content-encoding': 'gzip', vary: 'accept-encoding' },
    body: small,
  };
}

export function answerWeb(
  r: WebRequest,
  switches: FaultSwitches,
  now: Date,
  edit: WebEdit = (_, answer) => answer,
): WebAnswer {
  const { answer: given, isPlain } = answerOf(r, switches, now.getUTCFullYear());
  const answer = edit(r, given);
  const isText = /^(text|application)\//.test(answer.headers['content-type'] ?? '');
  return !isPlain && r.acceptsGzip && isText && answer.body.length > 500 ? packed(answer) : answer;
}

const KINDS: [string, LeafKind | 'silent'][] = [
  ['tls-silent', 'silent'],
  ['expired', 'expired'],
  ['self-signed', 'self-signed'],
  ['wrong-name', 'wrong-name'],
  ['ends-soon', 'soon'],
  ['no-intermediate', 'no-chain'],
  ['weak-key', 'weak-key'],
];

/**
 * A site's certificate names and kind: both hosts of the live site, or the one host alone; and whether old
 * versions are spoken.
 */
export function certificateFor(
  host: string,
  switches: FaultSwitches,
  isNewHost = true,
): { names: string[]; kind: LeafKind | 'silent'; old: boolean } {
  const site = SITES.find((s) => host === s.domain || host === `www.${s.domain}`);
  const subdomain = SITES.find((s) => subdomainOf(s) === host);
  if (subdomain && switches.isOn(subdomain.slug, 'live', 'subdomain-plain'))
    return { names: [host], kind: 'silent', old: false };
  if (!site) return { names: [host], kind: 'good', old: false };
  const on = switches.reader(site.slug, 'live');
  // a host that was not told the domain has no certificate for it
  if (isNewHost && !switches.desk.of(site).hostTold) return { names: [host], kind: 'wrong-name', old: false };
  return {
    names: [preferredHost(site), otherHost(site)],
    kind: KINDS.find(([fault]) => on(fault))?.[1] ?? 'good',
    old: on('old-tls'),
  };
}
